/**
 * Who may do what: the one table of all endpoints. An endpoint names its line here and asks nothing else; a test calls
 * each of them as everybody, and fails for an endpoint without a line.
 */
import { ROLES, type Role } from '#shared/accounts/responses'
import { DECIDERS } from '#shared/advising/asking'
import type { StudentRecord } from '#shared/record/responses'

export type Relation = StudentRecord['relation']

/** What is logged when somebody reads what is another's. */
export const READS = ['record.read', 'sheet.read', 'dates.read', 'classes.read', 'versions.read'] as const
export type Read = (typeof READS)[number]

interface ForAnybody {
  /** Why nobody has to be signed in. */
  open: string
}
interface ForRoles {
  roles: readonly Role[]
}
interface ForRelations {
  relations: readonly Relation[]
  /** May be called when the degree is awarded too, and the record closed. */
  staysOpen?: true
  /** For what tells of the record. */
  reads?: Read
}

const OWN = ['self'] as const
const OWN_OR_ADVISOR = ['self', 'programAdvisor'] as const
const ADVISOR = ['programAdvisor'] as const
/** Who takes part in the talk about a student. */
const TALKERS = ['self', 'programAdvisor', 'supportAdvisor'] as const
const RULES = ['programAdvisor', 'registrar'] as const
const READERS = ['self', 'programAdvisor', 'supportAdvisor', 'registrar'] as const
const ADVISORS = ['programAdvisor', 'supportAdvisor'] as const
const EVERYBODY = ROLES
const REGISTRAR = ['registrar'] as const
/** Who plans the offer of a term. */
const PLANNERS = ['department', 'registrar'] as const
/** Who places and lifts holds: an office those of its own. */
const HOLDERS = ['office', 'registrar'] as const
const TEACHERS = ['instructor', 'department'] as const

export const ACCESS = {
  'GET /api/session': { open: 'says that nobody is signed in' },
  'POST /api/session': { open: 'signing in' },
  'GET /api/session/ways': { open: 'how one may sign in' },
  'GET /sign-on': { open: 'the way to the sign-on of the institution' },
  'GET /sign-on/back': { open: 'the way back from it' },
  'POST /api/session/link': { open: 'asking for a link where the password is lost' },
  'DELETE /api/session': { open: 'signing out, of a session that has ended as well' },
  'GET /readyz': { open: 'for a monitor' },
  'GET /public': { open: 'the year, for anybody' },
  'GET /public/calendar.ics': { open: 'the year, for any calendar program' },
  'GET /public/colours.css': { open: 'how public pages look' },
  'GET /public/courses': { open: 'the catalog, for anybody' },
  'GET /public/courses/:code': { open: 'a course, for anybody' },
  'GET /public/programs': { open: 'programs, for anybody' },
  'GET /public/programs/:code': { open: 'a program, for anybody' },
  'GET /public/offer': { open: 'sections of the next term and their seats, for anybody' },
  'GET /public/offer/:term': { open: 'sections of a term and their seats, for anybody' },
  'GET /public/openings': { open: 'when registration opens, for anybody' },
  'GET /public/interface': { open: 'what other programs may ask, for those who write them' },
  'GET /public/interface/types': { open: 'what other programs are answered' },
  'GET /public/interface/:area': { open: 'a part of what other programs may ask' },
  'GET /public/openapi.json': { open: 'the same for programs' },
  'GET /api/clock': { open: 'the time on campus' },
  'GET /api/shared/:key': { open: 'a week, for whoever has its link' },
  'GET /api/calendars/:key': { open: 'classes, for a calendar program that has the address' },
  'GET /api/welcome/:key': { open: 'whose password a link sets' },
  'POST /api/welcome/:key': { open: 'setting a password by a link' },
  'GET /api/demo/people': { open: 'cards of the sign-in page; in the demo only' },

  'GET /api/terms/:code/demand': { roles: PLANNERS },
  'GET /api/terms/:code/demand/needs': { roles: PLANNERS },
  'GET /api/blocks': { roles: REGISTRAR },
  'POST /api/terms/:code/prices': { roles: REGISTRAR },
  'GET /api/terms/:code/placing': { roles: REGISTRAR },
  'POST /api/terms/:code/placing': { roles: REGISTRAR },
  'POST /api/clock': { roles: EVERYBODY },
  'GET /api/demo/morning': { roles: EVERYBODY },
  'POST /api/demo/morning': { roles: EVERYBODY },
  'GET /api/terms/:code/courses/:course': { roles: PLANNERS },
  'POST /api/terms/:code/courses/:course/sections': { roles: PLANNERS },
  'POST /api/sections/:section/rules': { roles: PLANNERS },
  'POST /api/sections/:section/seats': { roles: PLANNERS },
  'POST /api/sections/:section/like': { roles: PLANNERS },
  'POST /api/sections/:section/cancel': { roles: PLANNERS },
  'POST /api/sections/:section/move': { roles: PLANNERS },
  'GET /api/account/sessions': { roles: EVERYBODY },
  'DELETE /api/account/sessions': { roles: EVERYBODY },
  'DELETE /api/account/sessions/:session': { roles: EVERYBODY },
  'POST /api/account/password': { roles: EVERYBODY },
  'GET /api/account/second-step': { roles: EVERYBODY },
  'POST /api/account/second-step/begin': { roles: EVERYBODY },
  'POST /api/account/second-step': { roles: EVERYBODY },
  'POST /api/account/second-step/off': { roles: EVERYBODY },
  'GET /api/account/kept': { roles: EVERYBODY },
  'GET /api/account/mails': { roles: EVERYBODY },
  'GET /api/account/mail-choices': { roles: EVERYBODY },
  'POST /api/account/mail-choices': { roles: EVERYBODY },
  'GET /api/catalog': { roles: EVERYBODY },
  'GET /api/catalog/:code': { roles: EVERYBODY },
  'GET /api/catalog/descriptions': { roles: EVERYBODY },
  'GET /api/catalog/:code/written': { roles: REGISTRAR },
  'POST /api/catalog': { roles: REGISTRAR },
  'POST /api/catalog/:code': { roles: REGISTRAR },
  'POST /api/catalog/effect': { roles: REGISTRAR },
  'POST /api/catalog/lists': { roles: REGISTRAR },
  'GET /api/programs': { roles: EVERYBODY },
  'GET /api/openings': { roles: EVERYBODY },
  'GET /api/terms/:code/offer': { roles: EVERYBODY },
  'GET /api/terms/:code/seats': { roles: EVERYBODY },
  'GET /api/news': { roles: EVERYBODY },
  'GET /api/desk': { roles: ADVISORS },
  'POST /api/desk/views': { roles: ADVISORS },
  'DELETE /api/desk/views/:view': { roles: ADVISORS },
  'GET /api/advisors': { roles: [...ADVISORS, 'registrar'] },
  'GET /api/groups': { roles: ADVISORS },
  'POST /api/groups': { roles: ADVISORS },
  'POST /api/desk/hand-over': { roles: ADVISORS },
  'GET /api/openings/figures': { roles: REGISTRAR },
  'GET /api/openings/:opening/unready': { roles: REGISTRAR },
  'POST /api/openings/:opening': { roles: REGISTRAR },
  'POST /api/openings/:opening/nudge': { roles: REGISTRAR },
  'GET /api/people': { roles: REGISTRAR },
  'GET /api/accounts': { roles: REGISTRAR },
  'POST /api/accounts': { roles: REGISTRAR },
  'POST /api/accounts/links': { roles: REGISTRAR },
  'POST /api/accounts/:account/link': { roles: REGISTRAR },
  'DELETE /api/accounts/:account': { roles: REGISTRAR },
  'GET /api/connections': { roles: REGISTRAR },
  'POST /api/connections/tokens': { roles: REGISTRAR },
  'DELETE /api/connections/tokens/:token': { roles: REGISTRAR },
  'POST /api/connections/webhooks': { roles: REGISTRAR },
  'DELETE /api/connections/webhooks/:webhook': { roles: REGISTRAR },
  'POST /api/connections/webhooks/:webhook/test': { roles: REGISTRAR },
  'POST /api/connections/deliveries/:delivery': { roles: REGISTRAR },
  'GET /api/college': { roles: REGISTRAR },
  'POST /api/college': { roles: REGISTRAR },
  'POST /api/guidance': { roles: REGISTRAR },
  'POST /api/guidance/:guidance': { roles: REGISTRAR },
  'DELETE /api/guidance/:guidance': { roles: REGISTRAR },
  'POST /api/hold-kinds': { roles: REGISTRAR },
  'POST /api/hold-kinds/:kind': { roles: REGISTRAR },
  'DELETE /api/hold-kinds/:kind': { roles: REGISTRAR },
  'GET /api/holds': { roles: HOLDERS },
  'POST /api/holds': { roles: HOLDERS },
  'DELETE /api/holds/:hold': { roles: HOLDERS },
  'GET /api/graduations': { roles: REGISTRAR },
  'POST /api/graduations/:graduation/award': { roles: REGISTRAR },
  'GET /api/teaching': { roles: TEACHERS },
  'GET /api/requests': { roles: DECIDERS },
  'GET /api/programs/versions': { roles: REGISTRAR },
  'GET /api/files/one-roster': { roles: REGISTRAR },
  'GET /api/files/own': { roles: REGISTRAR },
  'GET /api/imports': { roles: REGISTRAR },
  'POST /api/imports': { roles: REGISTRAR },
  'GET /api/imports/:import': { roles: REGISTRAR },
  'POST /api/imports/:import/apply': { roles: REGISTRAR },
  'POST /api/imports/:import/undo': { roles: REGISTRAR },
  'GET /api/programs/drafts': { roles: REGISTRAR },
  'POST /api/programs/drafts': { roles: REGISTRAR },
  'GET /api/programs/drafts/:draft': { roles: REGISTRAR },
  'POST /api/programs/drafts/:draft': { roles: REGISTRAR },
  'DELETE /api/programs/drafts/:draft': { roles: REGISTRAR },
  'POST /api/programs/drafts/:draft/effect': { roles: REGISTRAR },
  'POST /api/programs/drafts/:draft/publication': { roles: REGISTRAR },
  'GET /api/requests/:request/effect': { roles: REGISTRAR },
  'POST /api/requests/answers': { roles: DECIDERS },
  'POST /api/requests/:request/hand-on': { roles: DECIDERS },
  'GET /api/hours': { roles: ADVISORS },
  'POST /api/hours': { roles: ADVISORS },
  'POST /api/hours/calendar-address': { roles: ADVISORS },
  'DELETE /api/hours/calendar-address': { roles: ADVISORS },
  'POST /api/openings': { roles: REGISTRAR },
  'DELETE /api/openings/:opening': { roles: REGISTRAR },
  'GET /api/terms': { roles: REGISTRAR },
  'POST /api/terms': { roles: REGISTRAR },
  'POST /api/terms/new': { roles: REGISTRAR },
  'GET /api/terms/:code': { roles: REGISTRAR },
  'POST /api/terms/:code': { roles: REGISTRAR },
  'DELETE /api/terms/:code': { roles: REGISTRAR },
  'GET /api/terms/:code/copy': { roles: REGISTRAR },
  'POST /api/terms/:code/copy': { roles: REGISTRAR },
  'POST /api/terms/:code/openings': { roles: REGISTRAR },
  'GET /api/terms/:code/publication': { roles: REGISTRAR },
  'POST /api/terms/:code/publication': { roles: REGISTRAR },
  'GET /api/terms/due': { roles: REGISTRAR },
  'POST /api/terms/:code/grades': { roles: REGISTRAR },

  'GET /api/students/:id': { relations: READERS, reads: 'record.read' },
  'GET /api/students/:id/sheet': { relations: READERS, reads: 'sheet.read' },
  'GET /api/students/:id/dates': { relations: READERS, reads: 'dates.read' },
  'GET /api/students/:id/classes': { relations: READERS, reads: 'classes.read' },
  'GET /api/students/:id/routes/:route/versions': { relations: READERS, reads: 'versions.read' },

  'GET /api/students/:id/reads': { relations: OWN },

  'POST /api/students/:id/entries': { relations: REGISTRAR },
  'POST /api/students/:id/entries/effect': { relations: REGISTRAR },
  'POST /api/students/:id/route': { relations: OWN_OR_ADVISOR },
  'POST /api/students/:id/route/step': { relations: OWN_OR_ADVISOR },
  'POST /api/students/:id/route/return': { relations: OWN },
  'POST /api/students/:id/routes': { relations: OWN },
  'POST /api/students/:id/routes/:route': { relations: OWN },
  'DELETE /api/students/:id/routes/:route': { relations: OWN },
  'POST /api/students/:id/carry': { relations: OWN },
  'POST /api/students/:id/terms/:term': { relations: OWN },
  'POST /api/students/:id/courses/:course': { relations: OWN },
  'POST /api/students/:id/program': { relations: OWN },
  'POST /api/students/:id/review': { relations: OWN },
  'DELETE /api/students/:id/review': { relations: OWN },
  'POST /api/students/:id/intentions': { relations: OWN },
  'DELETE /api/students/:id/intentions': { relations: OWN },
  'POST /api/students/:id/graduation': { relations: OWN },
  'DELETE /api/students/:id/graduation': { relations: OWN },
  'POST /api/students/:id/transcripts': { relations: OWN, staysOpen: true },
  'DELETE /api/students/:id/transcripts/:transcript': { relations: OWN, staysOpen: true },
  'POST /api/students/:id/review/answer': { relations: ADVISOR },
  'POST /api/students/:id/requests': { relations: OWN },
  'DELETE /api/students/:id/requests/:request': { relations: OWN },
  'POST /api/students/:id/remarks': { relations: TALKERS, staysOpen: true },
  'POST /api/students/:id/threads/:thread': { relations: TALKERS, staysOpen: true },
  'POST /api/students/:id/suggestions': { relations: ADVISORS },
  'POST /api/students/:id/suggestions/answers': { relations: OWN },
  'POST /api/students/:id/suggestions/:suggestion': { relations: ADVISORS },
  'DELETE /api/students/:id/suggestions/:suggestion': { relations: ADVISORS },
  'POST /api/students/:id/section-suggestions': { relations: ADVISORS },
  'DELETE /api/students/:id/section-suggestions/:suggestion': { relations: ADVISORS },
  'POST /api/students/:id/section-suggestions/:suggestion/answer': { relations: OWN },
  'GET /api/students/:id/advisors/:advisor/times': { relations: TALKERS },
  'POST /api/students/:id/appointments': { relations: TALKERS },
  'POST /api/students/:id/appointments/:appointment': { relations: TALKERS },
  'POST /api/students/:id/talks': { relations: ADVISORS },
  'POST /api/students/:id/agreed': { relations: TALKERS },
  'POST /api/students/:id/agreed/:line': { relations: TALKERS },
  'DELETE /api/students/:id/agreed/:line': { relations: TALKERS },
  'POST /api/students/:id/picks': { relations: OWN },
  'POST /api/students/:id/weeks': { relations: OWN },
  'POST /api/students/:id/weeks/:week': { relations: OWN },
  'DELETE /api/students/:id/weeks/:week': { relations: OWN },
  'POST /api/students/:id/keep-free': { relations: OWN },
  'POST /api/students/:id/week-habits': { relations: OWN },
  'POST /api/students/:id/calendar-address': { relations: OWN },
  'DELETE /api/students/:id/calendar-address': { relations: OWN, staysOpen: true },
  'POST /api/students/:id/runs': { relations: ['self', 'registrar'] },
  'POST /api/students/:id/placements': { relations: REGISTRAR },
  'POST /api/students/:id/fallbacks': { relations: OWN },
  'POST /api/students/:id/sheet': { relations: OWN },
  'POST /api/students/:id/agreement': { relations: OWN },
  'POST /api/students/:id/payments': { relations: OWN, staysOpen: true },
  'POST /api/students/:id/offers/:offer': { relations: OWN },
  'POST /api/students/:id/milestones/:condition': { relations: RULES },
  'DELETE /api/students/:id/milestones/:condition': { relations: RULES },
  'POST /api/students/:id/exceptions': { relations: RULES },
  'DELETE /api/students/:id/exceptions/:exception': { relations: RULES },
  'POST /api/students/:id/sign-off': { relations: ADVISOR },
  'DELETE /api/students/:id/sign-off': { relations: ADVISOR }
} as const satisfies Record<string, ForAnybody | ForRoles | ForRelations>

type Lines<Kind> = {
  [Key in keyof typeof ACCESS]: (typeof ACCESS)[Key] extends Kind ? Key : never
}[keyof typeof ACCESS]
/** Lines for anybody, for roles, and for those who stand in a relation to a student. */
export type OpenLine = Lines<ForAnybody>
export type RoleLine = Lines<ForRoles>
export type StudentLine = Lines<ForRelations>

/** Whether somebody takes part in the talk about a student. */
export const isTalker = (relation: Relation): boolean => (TALKERS as readonly Relation[]).includes(relation)

/** The methods that an address answers; none where there is no such address. */
export function methodsAt(path: string): string[] {
  const parts = path.split('/')
  return Object.keys(ACCESS).flatMap((line) => {
    const [method, pattern] = line.split(' ') as [string, string]
    const wanted = pattern.split('/')
    const fits =
      wanted.length === parts.length && wanted.every((one, i) => one[0] === ':' || one === parts[i])
    return fits ? [method] : []
  })
}
