/** An application to graduate: what is in its way, and what is only still to come. */
import type { Audit, NeedState } from '#core/degree'
import type { Instant } from '#core/time'
import type { TermView } from '#shared/catalog/responses'
import type { Reading } from '#shared/reading'
import type { StudentRecord } from '#shared/record/responses'
import { deadlineText } from '#shared/when'
import { creditsText, type TermNames } from '#shared/words'
import { conditionText } from './texts'

export interface GraduationView {
  id: number
  /** The degree, with its catalog year. */
  program: string
  catalogYear: string
  term: TermView['code']
  state: 'asked' | 'awarded'
  askedAt: Instant
  awarded: { at: Instant; by: string } | null
}

export interface GraduationStep {
  id: string
  /** `inTheWay` stops the application; `ahead` has to be done by the end, `done` is. */
  state: 'inTheWay' | 'ahead' | 'done'
  title: string
  detail: string
  /** Where something can be done about it. */
  at?: 'degree' | 'route' | 'today'
}

export interface GraduationReading {
  /** The term at whose end all programs are complete; undefined while something is needed. */
  term: TermView | undefined
  steps: GraduationStep[]
  mayApply: boolean
  /** All of it is earned: the degree can be awarded. */
  isComplete: boolean
}

type Of = Pick<Reading, 'audits' | 'finish' | 'now'>

const AHEAD: Partial<Record<NeedState, string>> = {
  gradesDue: 'grades due',
  underWay: 'under way',
  registered: 'registered',
  mapped: 'planned'
}

/** What stands between a student and the degree, by the audits of all programs on record. */
export function graduationOf(
  { audits, finish: term, now }: Of,
  programs: StudentRecord['programs'],
  { termName, zone }: { termName: TermNames; zone: string }
): GraduationReading {
  const steps = [
    ...audits.flatMap((audit) => [...needed(audit), ...conditions(audit), ...ahead(audit, termName)]),
    ...programs.map(confirmation),
    ...deadline(term, now, zone)
  ]
  const order = ['inTheWay', 'ahead', 'done']
  steps.sort((a, b) => order.indexOf(a.state) - order.indexOf(b.state))
  const isFree = steps.every((step) => step.state !== 'inTheWay')
  return {
    term,
    steps,
    mayApply: audits.length > 0 && isFree && term !== undefined,
    isComplete: audits.length > 0 && audits.every(isEarned)
  }
}

/** Nothing of a program is open, under way or without a grade. */
function isEarned({ areas, amounts, conditions: asked }: Audit): boolean {
  const { earned: _, ...rest } = amounts
  return (
    areas.every((area) => area.needs.every((need) => need.state === 'met')) &&
    Object.values(rest).every((credits) => credits === 0) &&
    asked.every((one) => one.status === 'earned')
  )
}

const needsOf = ({ areas }: Audit) => areas.flatMap((area) => area.needs)

function needed(audit: Audit): GraduationStep[] {
  const { spec } = audit.program
  return needsOf(audit)
    .filter((need) => need.state === 'needed')
    .map(({ need, missing, lacks, amounts }): GraduationStep => {
      const parts = [
        ...(amounts.needed ? [`${creditsText(amounts.needed)} of it are needed`] : []),
        ...(!amounts.needed && missing ? [`${missing} more ${need.measure}`] : []),
        ...(lacks.subjects ? ['more subjects'] : []),
        ...lacks.parts.map((part) => `${part.amount} ${need.measure} from ${part.from}`)
      ]
      const id = `${spec.code} ${need.id}`
      const detail = parts.length ? parts.join(' · ') : 'not met yet'
      return { id, state: 'inTheWay', title: need.title, detail, at: 'degree' }
    })
}

function conditions({ conditions: asked, program }: Audit): GraduationStep[] {
  return asked.map((one): GraduationStep => {
    // Credits are planned or they are not; what is shown, tested or averaged comes with time.
    const isLost = one.status === undefined && one.spec.asks === 'credits'
    const state = isLost ? 'inTheWay' : one.status === 'earned' ? 'done' : 'ahead'
    const id = `${program.spec.code} ${one.spec.id}`
    return { id, state, title: one.spec.title, detail: conditionText(one).replace(/\.$/, ''), at: 'degree' }
  })
}

/** What is still to come, one line for each term and how firm it is. */
function ahead(audit: Audit, termName: TermNames): GraduationStep[] {
  const open = needsOf(audit).filter((need) => AHEAD[need.state])
  const attempts = open.flatMap((need) => need.evidence).filter((one) => one.status !== 'earned')
  const groups = new Map<string, Set<string>>()
  for (const { term, status, detail, course } of attempts) {
    const how = detail === 'gradeDue' ? 'gradesDue' : status === 'planned' ? 'mapped' : status
    const group = `${term ?? ''} ${how}`
    groups.set(group, (groups.get(group) ?? new Set()).add(course))
  }
  return [...groups].map(([group, courses]): GraduationStep => {
    const [term, how] = group.split(' ') as [string, NeedState]
    const title = [...courses].join(', ')
    const id = `${audit.program.spec.code} ${group}`
    return { id, state: 'ahead', title, detail: `${AHEAD[how]}, ${termName(term)}`, at: 'route' }
  })
}

function confirmation({ spec, confirmed }: StudentRecord['programs'][number]): GraduationStep {
  const title = `${spec.title}, ${spec.catalogYear}`
  const id = `confirmed ${spec.code}`
  return confirmed === 'confirmed'
    ? { id, state: 'done', title, detail: 'program and catalog year confirmed' }
    : {
        ...{ id, state: 'inTheWay', title, at: 'today' },
        detail: confirmed === 'wrong' ? 'reported as wrong; the registrar settles it' : 'not confirmed yet'
      }
}

function deadline(term: TermView | undefined, now: Instant, zone: string): GraduationStep[] {
  const by = term?.graduateBy
  if (!term || by === null || by === undefined || now < by) return []
  return [
    {
      ...{ id: 'deadline', state: 'inTheWay', title: `Applications for ${term.name}` },
      detail: `were taken until ${deadlineText(by, zone)}; ask the registrar`
    }
  ]
}
