/** Each part of a student's record, made of its rows. */
import type { ExceptionGrant, PlannedCourse, RecordEntry } from '#core/degree'
import { courseCode, studentId, termCode, type SectionCode } from '#core/ids'
import { openingFor, type Opening, type OpeningPerson } from '#core/registration'
import { groupBy } from '#server/db/groupBy'
import { programSpec } from '#server/features/catalog/programs'
import { isPermission, type HandedOn, type StudentRequest } from '#shared/advising/asking'
import type { ReviewView } from '#shared/advising/responses'
import type { StudentRecord } from '#shared/record/responses'
import type {
  advisorRows,
  awayRows,
  carriedRows,
  exceptionRows,
  graduationRows,
  holdRows,
  intentionRows,
  plannedRows,
  programRows,
  readPolicies,
  recordRows,
  requestRows,
  reviewRows,
  routeRows,
  signOffRows,
  studentRows
} from './queries'
import type { preparedRows } from './seatQueries'

/** A row of what one of the queries answers. */
type Row<Query extends (...asked: never[]) => PromiseLike<readonly unknown[]>> = Awaited<
  ReturnType<Query>
>[number]

export function studentOf({
  student: s,
  name,
  campus,
  block
}: Row<typeof studentRows>): StudentRecord['student'] {
  const { standing, level, residency, attendance, number } = s
  return { id: studentId(s.id), name, number, standing, level, residency, campus, block, attendance }
}

export function programOf(
  { confirmed, saidInstead, review, programId, ...row }: Row<typeof programRows>,
  policies: Awaited<ReturnType<typeof readPolicies>>
): StudentRecord['programs'][number] {
  return { spec: programSpec(row), confirmed, saidInstead, review, policies: policies.get(programId) ?? [] }
}

export function exceptionOf({ grant, program, course, by }: Row<typeof exceptionRows>): ExceptionGrant {
  return {
    id: grant.id,
    kind: grant.kind,
    program,
    need: grant.needId,
    amount: grant.amount,
    course: course === null ? null : courseCode(course),
    reason: grant.reason,
    by,
    at: grant.at.getTime()
  }
}

export function entryOf(row: Row<typeof recordRows>): RecordEntry {
  const { course, term, credits, grade, origin, campus, mode, categories } = row
  return {
    course: courseCode(course),
    term: term === null ? null : termCode(term),
    ...{ credits, grade, origin, campus, mode, categories }
  }
}

export function preparedOf({ sheet, term }: Row<typeof preparedRows>): StudentRecord['prepared'][number] {
  const { order, leftOut, drops, whole, armedAt } = sheet
  return { term: termCode(term), order, leftOut, drops, whole, armed: armedAt !== null }
}

export function holdOf(row: Row<typeof holdRows>): StudentRecord['holds'][number] {
  const { title, office, amount, stopsRegistration, stopsTranscript, howToLift } = row
  return { title, office, amount, stopsRegistration, stopsTranscript, howToLift }
}

export function advisorOf(
  { studentId: _, ...card }: Row<typeof advisorRows>,
  away: ReadonlyMap<number, Row<typeof awayRows>[]>
): StudentRecord['advisors'][number] {
  return { ...card, away: (away.get(card.id) ?? []).map(({ from, to, standIn }) => ({ from, to, standIn })) }
}

export function routeOf(
  row: Row<typeof routeRows> | undefined,
  planned: ReadonlyMap<number, Row<typeof plannedRows>[]>
): StudentRecord['route'] {
  const route = row?.route
  return {
    id: route?.id ?? null,
    name: route?.name ?? 'Main route',
    note: route?.note ?? null,
    chosen: true,
    version: route?.version ?? 0,
    changedAt: route?.changedAt.getTime() ?? 0,
    changedBy: row?.changedBy ?? '',
    advisorMayEdit: route?.advisorMayEdit ?? false,
    ...{ seen: null, undo: null, redo: null },
    courses: (route ? (planned.get(route.id) ?? []) : []).map(plannedOf)
  }
}

function plannedOf({ course, term, credits, note, locked }: Row<typeof plannedRows>): PlannedCourse {
  return { course: courseCode(course), term: termCode(term), credits, note, locked }
}

export function carryOf(
  { student: s, aim }: Row<typeof studentRows>,
  carried: readonly Row<typeof carriedRows>[]
): StudentRecord['carry'] {
  return {
    ...{ credits: s.carryCredits, least: s.carryLeast, hours: s.carryHours, outside: s.outsideHours },
    target: aim === null ? null : termCode(aim),
    terms: carried.map(({ term, own: { carryCredits, carryHours, away } }) => ({
      term: termCode(term),
      credits: carryCredits,
      hours: carryHours,
      away
    }))
  }
}

/** Of each term with openings the one that is this student's. */
export function openingsFor(person: OpeningPerson, openings: readonly Opening[]): StudentRecord['openings'] {
  const terms = [...new Set(openings.map((one) => one.term))]
  return terms.flatMap((term) => {
    const found = openingFor(person, term, openings)
    return found ? [{ term, title: found.title, opens: found.opens }] : []
  })
}

export function permittedBy({
  request: { kind, state, until },
  section
}: Row<typeof requestRows>): StudentRecord['permitted'] {
  return state === 'given' && isPermission(kind)
    ? [{ section: section as SectionCode, kind, until: until?.getTime() ?? null }]
    : []
}

export function signOffOf({ term, by, signOff }: Row<typeof signOffRows>): StudentRecord['signOffs'][number] {
  const { creditsLeast, creditsMost, conditions, together } = signOff
  return {
    ...{ term: termCode(term), by, at: signOff.at.getTime() },
    courses: signOff.courses.map(courseCode),
    alternatives: signOff.alternatives.map(courseCode),
    ...{ creditsLeast, creditsMost, conditions, until: signOff.until?.getTime() ?? null, together }
  }
}

export function intentionsOf(rows: readonly Row<typeof intentionRows>[]): StudentRecord['intentions'] {
  return [...groupBy(rows, (row) => row.term)].map(([term, own]) => ({
    term: termCode(term),
    at: own[0]!.at.getTime(),
    courses: own.map((row) => courseCode(row.course))
  }))
}

export function graduationOf(row: Row<typeof graduationRows>): StudentRecord['graduations'][number] {
  const { graduation, program, catalogYear, term, by } = row
  const { id, askedAt, awardedAt, state } = graduation
  return {
    ...{ id, program, catalogYear, term: termCode(term), askedAt: askedAt.getTime() },
    state: state === 'awarded' ? 'awarded' : 'asked',
    awarded: awardedAt && by ? { at: awardedAt.getTime(), by } : null
  }
}

/** Of each term what was asked for last. */
export function lastOfEachTerm(rows: readonly Row<typeof reviewRows>[]): ReviewView[] {
  return [...new Map(rows.map((row) => [row.term, row])).values()].map(({ term, by, review }) => ({
    term: termCode(term),
    note: review.note,
    answers: review.answers,
    askedAt: review.askedAt.getTime(),
    answer: by && review.answeredAt ? { by, at: review.answeredAt.getTime(), missing: review.missing } : null
  }))
}

export function requestOf(
  { request: row, section, course, program, by }: Row<typeof requestRows>,
  handedOn: ReadonlyMap<number, HandedOn[]>
): StudentRequest {
  return {
    id: row.id,
    kind: row.kind,
    section: section as SectionCode | null,
    course: course === null ? null : courseCode(course),
    program,
    need: row.needId,
    state: row.state as StudentRequest['state'],
    reason: row.reason,
    askedAt: row.askedAt.getTime(),
    waitsFor: row.waitsFor,
    handedOn: handedOn.get(row.id) ?? [],
    answer:
      row.state !== 'asked' && by && row.decidedAt
        ? { by, at: row.decidedAt.getTime(), words: row.words, until: row.until?.getTime() ?? null }
        : null
  }
}
