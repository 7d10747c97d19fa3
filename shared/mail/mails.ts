// oxlint-disable max-lines -- a mail for each event, one beside the other
/** What is mailed to a student of what others, or time, did to their record, and to an advisor of appointments; worked out from the log's own entry. */
import { DECIDER_WORDS, KIND_SENTENCES, type Decider, type RequestKind } from '#shared/advising/asking'
import type { TermView } from '#shared/catalog/responses'
import { LACK_SENTENCES, type Lack } from '#shared/offices/openings'
import type { SectionInstead } from '#shared/sections/responses'
import { rehearsalText, type RehearsalSaid } from '#shared/registration/rehearsal'
import { appointmentTime } from '#shared/appointments/texts'
import { dayText, deadlineText, instantText } from '#shared/when'
import { count } from '#shared/words'

export interface MailText {
  subject: string
  text: string
}

/** An entry of the log as far as a mail tells of it. */
export interface MailedEvent {
  action: string
  before: Record<string, unknown> | null
  after: Record<string, unknown> | null
}

interface About {
  terms: readonly Pick<TermView, 'code' | 'name'>[]
  zone: string
}

type Teller = (
  event: { term: string; of: Record<string, unknown>; before: Record<string, unknown> },
  about: About & { toStudent: boolean }
) => MailText

const said = (words: unknown) => (words ? ` ${String(words)}` : '')

/** `With Orla Denholt on Thu 15 Apr 2027, 10:00 am to 10:30 am, Garrow 214.`; to the advisor with the student's name. */
function whenText(of: Record<string, unknown>, { zone, toStudent }: About & { toStudent: boolean }): string {
  const time = appointmentTime({ startsAt: Number(of.startsAt), endsAt: Number(of.endsAt) }, zone)
  const parts = [`With ${other(of, toStudent)} on ${time}, ${String(of.place)}.`]
  if (of.about) parts.push(`It is about: ${String(of.about)}`)
  if (of.bring) parts.push(`${toStudent ? 'Bring' : 'To bring'}: ${String(of.bring)}`)
  return parts.join(' ')
}
const other = (of: Record<string, unknown>, toStudent: boolean) => String(toStudent ? of.advisor : of.student)

const listed = (sections: unknown, by = ' + ') => (Array.isArray(sections) ? sections.join(by) : '')

/** What could be registered in place of a section, as of the change. */
function insteadText({ instead }: Record<string, unknown>): string {
  const found = instead as SectionInstead | null
  return found
    ? `The nearest that fits your week and had a seat then: ${found.section}, ${found.hours} (${found.code}).`
    : 'No other section of it could be registered by you then.'
}

const sentenceOf = ({ kind }: Record<string, unknown>) => KIND_SENTENCES[kind as RequestKind]
/** `Asked was for a seat more in a full section: ENDA 310, section F5NAB.` */
function askedText(of: Record<string, unknown>): string {
  const parts = [of.title, of.course, of.section && `section ${String(of.section)}`].filter(Boolean)
  return `Asked was ${sentenceOf(of)}: ${parts.map(String).join(', ')}.`
}

/** What a remark is about. */
function subjectOf(
  { about, key }: Record<string, unknown>,
  { terms, toStudent }: About & { toStudent: boolean }
): string {
  if (about === 'need') return 'a requirement'
  if (about === 'term') return terms.find((one) => one.code === key)?.name ?? String(key)
  if (about === 'section') return `section ${String(key)}`
  if (about === 'finding') return 'a finding'
  if (about === 'course') return String(key)
  return toStudent ? 'your route' : 'the route'
}

/** Of each action that is mailed, what is said; where to answer is said in the application. */
const TOLD: Record<string, Teller> = {
  'account.linked': ({ of }) => ({
    subject: 'Your link to sign in to Ridgeway',
    text: `${of.isFirst ? 'You have an account' : 'Somebody asked for a link for your account'}: you sign in as ${String(of.signIn)}. Whoever opens the link in this mail chooses its password, once, within a week. ${
      of.isFirst
        ? 'Keep it to yourself.'
        : 'If it was not you, leave it alone: nothing changes, and the password is as before.'
    }`
  }),
  'account.invited': ({ of }) => ({
    subject: 'A link to sign in was made for your account',
    text: `The registrar’s office has made a link by which the password of ${String(of.signIn)} is set anew, once, within a week. If you did not ask for it, tell them.`
  }),
  'offer.made': ({ term, of }, { zone }) => ({
    subject: `A seat in ${term} is held for you`,
    text: `A seat in ${listed(of.sections)} is held for you until ${instantText(Number(of.until), zone)}. ${
      of.serves === 'automatic'
        ? 'It becomes yours by itself, as this term has it, unless something stands in the way; Register says which.'
        : 'Take or decline it on Register; without an answer the offer ends then.'
    }`
  }),
  'offer.lapsed': ({ term, of }) => ({
    subject: `The offer of a seat in ${String(of.course)} has ended`,
    text: `The seat in ${String(of.course)}, ${term}, was held for you until then. Without an answer you have left its line.`
  }),
  'payment.noticed': ({ term }) => ({
    subject: `${term} is not paid for`,
    text: `Register says what is owed for ${term}, and whether and when seats are given back for it.`
  }),
  'registration.released': ({ term, of, before }) => ({
    subject: `Your seat in ${String(of.course)} was given back`,
    text: `${term} was not paid for by the due date, so your seat in ${String(of.course)} (${listed(before.sections)}) was given back. What is still free can be registered anew.`
  }),
  'registration.cancelled': ({ term, of }) => ({
    subject: `${String(of.section)} was cancelled`,
    text: `${String(of.section)}, ${term}, was cancelled. Your seat in it is given back, with all that it cost. ${insteadText(of)}`
  }),
  'registration.partCancelled': ({ term, of }) => ({
    subject: `${String(of.section)} was cancelled`,
    text: `${String(of.section)}, ${term}, was cancelled, and your seat in it is given back, with all that it cost. Your seat in the rest of ${String(of.course)} stays; Today says how to have another part for it. ${insteadText(of)}`
  }),
  'line.cancelled': ({ term, of }) => ({
    subject: `${String(of.section)} was cancelled`,
    text: `${String(of.section)}, ${term}, was cancelled, and you stand in its line no more. ${insteadText(of)}`
  }),
  'registration.moved': ({ term, of }) => ({
    subject: `${String(of.section)} meets at other hours`,
    text: `${String(of.section)}, ${term}, meets ${String(of.hours)} from now on; before it was ${String(of.was)}. Your seat in it stays. ${
      Array.isArray(of.against) && of.against.length
        ? `It clashes with ${of.against.join(', ')}. ${insteadText(of)}`
        : 'It clashes with nothing that you hold.'
    }`
  }),
  'registration.elsewhere': ({ term, of }) => ({
    subject: `${String(of.section)}: ${of.place ? 'another room' : 'other instructors'}`,
    text: [
      `Of ${String(of.section)}, ${term}, something has changed. Your seat in it stays, and so do its hours.`,
      ...(of.place
        ? [
            `It meets ${of.place === 'online' ? 'online' : `in ${String(of.place)}`}; before it was ${String(of.placeBefore)}.`
          ]
        : []),
      ...(of.instructors ? [`It is taught by ${String(of.instructors)}.`] : [])
    ].join(' ')
  }),
  'rehearsal.told': ({ term, of }, { zone }) => ({
    subject: `Your run sheet for ${term}, rehearsed`,
    text: rehearsalText(of as unknown as RehearsalSaid, zone)
  }),
  'sheet.ran': ({ term, of }) => ({
    subject: `Your run sheet for ${term} has run`,
    text: of.receipt
      ? `As you had prepared it, your sheet ran at your opening: ${String(of.seats)} of ${count(Number(of.lines), 'line')} ended in a seat. The receipt is on Register.`
      : 'As you had prepared it, your sheet was to run at your opening; nothing was left on it to register.'
  }),
  'signOff.given': ({ term }) => ({
    subject: `${term} is signed off`,
    text: `Your advisor has signed off your courses for ${term}.`
  }),
  'signOff.withdrawn': ({ term }) => ({
    subject: `The sign-off of ${term} is withdrawn`,
    text: `Your advisor has withdrawn the sign-off of ${term}.`
  }),
  'review.answered': ({ term, of }) => ({
    subject: `${term} is not signed off yet`,
    text: `Your advisor has looked at ${term} and says what is missing: ${String(of.missing)}`
  }),
  // Before requests were one kind of thing.
  'permission.answered': ({ of }, { zone }) => ({
    subject: `Your request for ${String(of.course)} is answered`,
    text: `The permission you asked for (${String(of.course)}, section ${String(of.section)}) was ${
      of.answer === 'given'
        ? `given${of.until === null ? '' : `, and holds until ${deadlineText(Number(of.until), zone)}`}`
        : 'declined'
    }.${of.words ? ` ${String(of.words)}` : ''}`
  }),
  'advising.handedOver': ({ of }, { toStudent }) => ({
    subject: toStudent
      ? `${String(of.to)} is your ${of.purpose === 'support' ? 'support' : 'program'} advisor from now on`
      : `${String(of.by)} has handed ${count(Number(of.students), 'student')} over to you`,
    text: toStudent
      ? `${String(of.by)} has handed this over. What was said, signed off and agreed stays as it is.`
      : `They are on your desk from now on.${of.noted ? ' What was noted for you stands in the talk, among advisors.' : ''}`
  }),
  'program.changed': ({ of, before }) => ({
    subject: 'Your program on record is another one',
    text: `It was ${String(before.program)}, catalog ${String(before.catalogYear)}; it is ${String(of.program)}, catalog ${String(of.catalogYear)}, from now on. Confirm it on Today.`
  }),
  'group.offered': ({ term, of }) => ({
    subject: `${String(of.by)} plans with your group: ${String(of.title)}`,
    text: [
      (of.courses as string[]).length
        ? `Suggested for ${term}: ${listed(of.courses, ', ')}. You accept or decline it on Route.`
        : '',
      of.task ? `To do${of.due ? ` by ${dayText(String(of.due))}` : ''}: ${String(of.task)}.` : ''
    ]
      .filter(Boolean)
      .join(' ')
  }),
  'request.asked': ({ of }) => ({
    subject: `${String(of.by)} asks ${sentenceOf(of)}`,
    text: `${askedText(of)} It waits for you under Requests. Reason: “${String(of.reason)}”`
  }),
  'request.handedOn': ({ of }, { toStudent }) => ({
    subject: toStudent
      ? `Your request is handed on to ${DECIDER_WORDS[of.to as Decider]}`
      : `${String(of.by)} hands a request on to you`,
    text: `${askedText(of)} ${
      toStudent ? `${String(of.by)} has handed it on.` : 'It waits for you under Requests.'
    }${said(of.words)}`
  }),
  'request.answered': ({ of }, { zone }) => ({
    subject: `Your request is ${String(of.answer)}`,
    text: `${askedText(of)} It is ${
      of.answer === 'given' && of.until !== null
        ? `given, and holds until ${deadlineText(Number(of.until), zone)}`
        : String(of.answer)
    }.${said(of.words)}`
  }),
  'remark.made': ({ of }, about) => {
    if (!about.toStudent) {
      const subject = `${String(of.by)} wrote about ${subjectOf(of, about)}`
      return {
        subject,
        text: `${subject}. You are asked to read it, or have written about it; it stands beside the route of the student.`
      }
    }
    const subject = `${String(of.by)} wrote to you about ${subjectOf(of, about)}`
    return { subject, text: `${subject}. Read and answer it beside your route.` }
  },
  'remark.amongAdvisors': ({ of }) => ({
    subject: `${String(of.by)} wrote among advisors`,
    text: `${String(of.by)} wrote something among advisors that you are asked to read, or have written about. It stands beside the route of the student.`
  }),
  'opening.moved': ({ term, of, before }, { zone }) => ({
    subject: `${term} opens for you at another time`,
    text: `${
      of.opens === null
        ? `No opening of ${term} is for you any more; the registrar decides on openings.`
        : `You may register for ${term} from ${instantText(Number(of.opens), zone)} on.`
    }${before.opens === null ? '' : ` Before, it was ${instantText(Number(before.opens), zone)}.`}`
  }),
  'term.datesChanged': ({ term, of }) => ({
    subject: `Dates of ${term} have changed`,
    text: `You hold seats in ${term}. ${listed(of.changes, ' ')}`
  }),
  'term.onOffer': ({ term, of }, { zone }) => ({
    subject: `The sections of ${term} are published`,
    text: [
      (of.without as string[]).length
        ? `Of ${count(Number(of.planned), 'course')} that you planned, ${listed(of.without, ', ')} had no section then.`
        : `${Number(of.planned) === 1 ? 'The course' : `Each of the ${String(of.planned)} courses`} that you planned had sections then.`,
      of.opens === null
        ? `No opening of ${term} was for you then.`
        : `You may register from ${instantText(Number(of.opens), zone)} on.`,
      'Choose your week on Week.'
    ].join(' ')
  }),
  'opening.nudged': ({ term, of }, { zone }) => ({
    subject: `Before you register for ${term}`,
    text: `You may register for ${term} from ${instantText(Number(of.opens), zone)} on. As of now something is missing: ${(
      of.lacks as Lack[]
    )
      .map((lack) => LACK_SENTENCES[lack])
      .join(' ')}`
  }),
  'hold.placed': ({ of }) => ({
    subject: `A hold is placed on your record: ${String(of.title)}`,
    text: `${String(of.office)} has placed a hold${
      of.amount === null ? '' : ` over ${Number(of.amount).toFixed(2)}`
    }. ${of.stopsRegistration ? 'It stops you from registering. ' : 'It does not stop you from registering. '}${of.stopsTranscript ? 'Transcripts are not sent while it stands. ' : ''}${String(of.howToLift)}`
  }),
  'record.entered': ({ of }) => ({
    subject: 'Your record was changed',
    text: `${String(of.by)} has entered: ${String(of.what)}. Reason: “${String(of.reason)}”`
  }),
  'run.forStudent': ({ term, of }) => ({
    subject: `${String(of.by)} has registered for you`,
    text: `A run for ${term} was made for you. Your consent was noted so: “${String(of.consent)}” Receipt ${String(of.receipt)} on Register says what came of it. If you did not agree to it, tell the registrar at once.`
  }),
  'milestone.reached': ({ of }, { toStudent }) => ({
    subject: `${String(of.title)}: reached`,
    text: `${String(of.by)} has noted it on ${toStudent ? 'your' : 'the'} record.`
  }),
  'graduation.awarded': ({ of }, { toStudent }) => ({
    subject: toStudent ? 'Your degree is awarded' : 'A degree is awarded',
    text: `${String(of.program)} is awarded. ${toStudent ? 'Your record is closed; it can be read, and transcripts sent, for good.' : 'The record is closed.'}`
  }),
  'hold.lifted': ({ before }) => ({
    subject: `A hold is lifted: ${String(before.title)}`,
    text: `The hold that ${String(before.office)} had placed on your record is lifted.`
  }),
  'suggestion.made': ({ of }) => ({
    subject: `${String(of.by)} suggests a change to your route`,
    text: `${String(of.by)} suggests a change to your route; more may follow. They are drawn on Route, where you accept or decline each.`
  }),
  'suggestion.sections': ({ of }) => ({
    subject: `${String(of.by)} suggests sections of ${String(of.course)}`,
    text: `${String(of.by)} suggests ${listed(of.sections)} for ${String(of.course)}. Accept or decline it on Week.`
  }),
  'appointment.booked': ({ of }, about) => ({
    subject: `An appointment with ${other(of, about.toStudent)} is booked`,
    text: whenText(of, about)
  }),
  'appointment.invited': ({ of }, about) => ({
    subject: `${String(of.advisor)} invites you to an appointment`,
    text: `${whenText(of, about)} Accept or decline it, or choose another time, beside your route.`
  }),
  'appointment.accepted': ({ of }, about) => ({
    subject: `${String(of.student)} accepts your invitation`,
    text: whenText(of, about)
  }),
  'appointment.declined': ({ of }, about) => ({
    subject: `${String(of.student)} declines your invitation`,
    text: `${whenText(of, about)}${said(of.words)}`
  }),
  'appointment.moved': ({ of, before }, about) => ({
    subject: `The appointment with ${other(of, about.toStudent)} is moved`,
    text: `${whenText(of, about)}${
      before.startsAt ? ` Before it was to begin at ${instantText(Number(before.startsAt), about.zone)}.` : ''
    }${about.toStudent ? ' Accept the new time, or choose another, beside your route.' : ''}`
  }),
  'appointment.cancelled': ({ of }, about) => ({
    subject: `The appointment with ${other(of, about.toStudent)} is cancelled`,
    text: `It was to be: ${whenText(of, about)}${said(of.words)}`
  }),
  'appointment.reminded': ({ of }, about) => ({
    subject: `An appointment with ${other(of, about.toStudent)}, ${instantText(Number(of.startsAt), about.zone)}`,
    text: whenText(of, about)
  }),
  'talk.recorded': ({ of }) => ({
    subject: `${String(of.by)} has noted what you spoke about`,
    text: `It stands in the talk beside your route, with the day of ${dayText(String(of.on))}.`
  }),
  'waiver.answered': ({ of }) => ({
    subject: `Your request for ${String(of.course)} is answered`,
    text: `The waiver of the prerequisite of ${String(of.course)} was ${String(of.state)}.`
  })
}

/** Said among advisors: of it the student is told nothing. */
export const isAmongAdvisors = (action: string): boolean => AMONG_ADVISORS.some((one) => one === action)
/** What is logged of what advisors say among each other. */
export const AMONG_ADVISORS = ['remark.amongAdvisors', 'thread.settledAmongAdvisors'] as const

export const isMailed = (action: string): boolean => action in TOLD

/** The mail of an entry; undefined for one that is not mailed. */
export function mailOf(
  { action, before, after }: MailedEvent,
  about: About,
  toStudent = true
): MailText | undefined {
  const of = after ?? {}
  const code = String(of.term ?? before?.term ?? '')
  const term = about.terms.find((one) => one.code === code)?.name ?? code
  return TOLD[action]?.({ term, of, before: before ?? {} }, { ...about, toStudent })
}
