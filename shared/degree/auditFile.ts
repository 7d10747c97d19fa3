/** What an audit says, as plain data for a file: the same for the command line and for an export. */
import type { Audit, ConditionResult, LimitResult, NeedResult, Attempt, Attempts } from '#core/degree'
import { paceOfProgress } from '#core/degree'

export interface AuditFile {
  format: 'ridgeway audit 1'
  name: string
  programs: ProgramResult[]
  /** Attempts that give no credits. */
  idle: { course: string; term: string | null; grade: string | null; why: string; by: string | null }[]
  pace: { completed: number; attempted: number } | null
}

interface ProgramResult {
  code: string
  title: string
  catalogYear: string
  credits: number
  /** `limit` when a better reading may exist. */
  ended: string
  amounts: Audit['amounts']
  average: { overall: number | null; program: number | null }
  areas: AreaLine[]
  conditions: ConditionLine[]
  limits: LimitResult[]
  entry: { met: boolean; areas: AreaLine[]; conditions: ConditionLine[] } | null
  outside: (CourseLine & { why: string; full: string[] })[]
}

interface AreaLine {
  id: string
  title: string
  credits: number
  state: string
  amounts: Audit['amounts']
  /** Branches taken, by choice. */
  choices: Record<string, string[]>
  needs: NeedLine[]
}

interface NeedLine {
  id: string
  title: string
  state: string
  measure: string
  amounts: Audit['amounts']
  missing: {
    amount: number
    subjects: number
    parts: { from: string; amount: number }[]
    /** It stays open whatever is still taken. */
    beyond: boolean
  } | null
  waived: { by: string; reason: string } | null
  /** What of it is waived, in its measure. */
  lessened: { amount: number; by: string; reason: string }[]
  courses: (CourseLine & { substituted: boolean })[]
}

interface CourseLine {
  course: string
  term: string | null
  credits: number
  status: string
  grade: string | null
  origin: string
}

interface ConditionLine {
  id: string
  title: string
  status: string | null
  credits: ConditionResult['amounts'] | null
  value: number | null
  waived: { by: string; reason: string } | null
}

export function auditFile(audits: readonly Audit[], attempts: Attempts, name = ''): AuditFile {
  const pace = paceOfProgress(attempts)
  return {
    format: 'ridgeway audit 1',
    name,
    programs: audits.map(programResult),
    idle: attempts.idle.map(({ entry, why, by = null }) => ({
      course: entry.course,
      term: entry.term,
      grade: entry.grade,
      why,
      by
    })),
    pace: pace ? { completed: pace.completed, attempted: pace.attempted } : null
  }
}

function programResult(audit: Audit): ProgramResult {
  const { spec } = audit.program
  return {
    code: spec.code,
    title: spec.title,
    catalogYear: spec.catalogYear,
    credits: spec.credits,
    ended: audit.ended,
    amounts: audit.amounts,
    average: { overall: audit.gpa.overall ?? null, program: audit.gpa.program ?? null },
    areas: areaLines(audit),
    conditions: audit.conditions.map(conditionLine),
    limits: audit.limits,
    entry: audit.entry
      ? {
          met: isMet(audit.entry),
          areas: areaLines(audit.entry),
          conditions: audit.entry.conditions.map(conditionLine)
        }
      : null,
    outside: audit.outside.map(({ attempt, why, full }) => ({
      ...courseLine(attempt),
      why,
      full: full.map((need) => need.id)
    }))
  }
}

/** Whether all of an audit is earned: every need and every condition. */
export function isMet(audit: Audit): boolean {
  return (
    audit.areas.every((area) => area.state === 'met') &&
    audit.conditions.every((condition) => condition.status === 'earned')
  )
}

function areaLines(audit: Audit): AreaLine[] {
  return audit.areas.map(({ area, credits, state, amounts, choices, needs }) => ({
    id: area.id,
    title: area.title,
    credits,
    state,
    amounts,
    choices: Object.fromEntries(choices.map(({ choice, taken }) => [choice.id, taken])),
    needs: needs.map(needLine)
  }))
}

function needLine({ need, state, amounts, missing, lacks, evidence, beyond }: NeedResult): NeedLine {
  return {
    id: need.id,
    title: need.title,
    state,
    measure: need.measure,
    amounts,
    missing: state === 'needed' ? { amount: missing, ...lacks, beyond } : null,
    waived: need.waived ? { by: need.waived.by, reason: need.waived.reason } : null,
    lessened: (need.lessened ?? []).map(({ amount, by, reason }) => ({ amount: amount!, by, reason })),
    courses: evidence.map((attempt) => ({
      ...courseLine(attempt),
      substituted: need.substituted.some((one) => one.course === attempt.course)
    }))
  }
}

function courseLine({ course, term, credits, status, grade, origin }: Attempt): CourseLine {
  return { course, term, credits, status, grade, origin }
}

function conditionLine({ spec, status, amounts, value, waived }: ConditionResult): ConditionLine {
  return {
    id: spec.id,
    title: spec.title,
    status: status ?? null,
    credits: amounts ?? null,
    value: value ?? null,
    waived: waived ? { by: waived.by, reason: waived.reason } : null
  }
}

const COLUMNS = [
  'program',
  'area',
  'need',
  'state',
  'course',
  'term',
  'credits',
  'status',
  'grade',
  'note'
] as const

/** The same as rows of a table: a row for each course of a need, for each need still open, for each course outside. */
export function auditRows(file: AuditFile): Record<(typeof COLUMNS)[number], string>[] {
  const empty = Object.fromEntries(COLUMNS.map((name) => [name, ''])) as Record<
    (typeof COLUMNS)[number],
    string
  >
  const cells = ({ course, term, credits, status, grade }: CourseLine) => ({
    course,
    term: term ?? '',
    credits: String(credits),
    status,
    grade: grade ?? ''
  })
  return file.programs.flatMap((program) => [
    ...program.areas.flatMap((area) =>
      area.needs.flatMap((need) => {
        const row = { ...empty, program: program.code, area: area.title, need: need.title, state: need.state }
        const open = need.missing
          ? [{ ...row, credits: String(need.amounts.needed), note: 'still needed' }]
          : need.waived
            ? [{ ...row, note: `waived: ${need.waived.reason}` }]
            : []
        return [
          ...need.courses.map((one) => ({
            ...row,
            ...cells(one),
            note: one.substituted ? 'substituted' : ''
          })),
          ...open
        ]
      })
    ),
    ...program.outside.map((one) => ({
      ...empty,
      program: program.code,
      state: 'outside',
      ...cells(one),
      note: one.why
    }))
  ])
}
