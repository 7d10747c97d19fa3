/** Students as their screens see them: read in one sweep, whether for one student or a whole desk. */
import type { ExceptionGrant, PlannedCourse, RecordEntry } from '#core/degree'
import { courseCode, studentId, termCode, type SectionCode } from '#core/ids'
import { openingFor } from '#core/registration'
import type { Reader } from '#server/db/connect'
import { groupBy } from '#server/db/groupBy'
import { readAgreed } from '#server/features/advising/agreed'
import { handedOnRows } from '#server/features/advising/deskRequests'
import { readAccounts } from '#server/features/charges/ledger'
import { programSpec } from '#server/features/catalog/catalog'
import { readScale } from '#server/features/catalog/scale'
import { readOpenings } from '#server/features/registration/openings'
import { keepFreeOf } from '#server/features/week/habits'
import { isPermission, type HandedOn, type StudentRequest } from '#shared/advising/asking'
import type { ReviewView } from '#shared/advising/responses'
import type { StudentRecord } from '#shared/record/responses'
import {
  programRows,
  readPolicies,
  intentionRows,
  graduationRows,
  exceptionRows,
  recordRows,
  agreementRows,
  preparedRows,
  advisorRows,
  awayRows,
  routeRows,
  plannedRows,
  signOffRows,
  reviewRows,
  requestRows,
  studentRows,
  testRows,
  milestoneRows,
  holdRows,
  carriedRows,
  keepFreeRows
} from './queries'
import { earnedIn } from './earned'
import { readSeatParts } from './seatParts'

/** Pictures of students, in the order of their ids; `relation` is how the reader stands to them. */
export async function readStudentRecords(
  db: Reader,
  ids: readonly number[],
  relation: StudentRecord['relation']
): Promise<StudentRecord[]> {
  if (!ids.length) return []
  const wanted = [...ids]
  const { students, own, said, seats, openings } = await readParts(db, wanted, relation)
  // Only an opening asks for it.
  const scale = openings.some((one) => one.creditsLeast !== null) ? await readScale(db) : undefined
  const { programs, policies, tests, milestones, exceptions, record, holds, accounts, graduations } = own
  const { advisors, away, routes, planned, carried, signOffs, intentions, reviews } = said
  const { agreements, prepared, requests, handedOn, agreed, keepFree } = said

  return students.map(({ student: s, name, campus, block, blockCode, aim }): StudentRecord => {
    const mine = programs.get(s.id) ?? []
    const route = routes.get(s.id)?.[0]
    const person = {
      ...{ id: s.id, standing: s.standing, programs: mine.map((p) => p.code), block: blockCode },
      credits: scale ? earnedIn(record.get(s.id) ?? [], scale) : 0
    }
    const terms = [...new Set(openings.map((o) => o.term))]
    return {
      student: {
        id: studentId(s.id),
        name,
        number: s.number,
        standing: s.standing,
        level: s.level,
        residency: s.residency,
        campus,
        block,
        attendance: s.attendance
      },
      relation,
      programs: mine.map(({ confirmed, saidInstead, review, programId, ...row }) => ({
        spec: programSpec(row),
        confirmed,
        saidInstead,
        review,
        policies: policies.get(programId) ?? []
      })),
      tests: Object.fromEntries((tests.get(s.id) ?? []).map((row) => [row.test, row.score])),
      milestones: (milestones.get(s.id) ?? []).map((row) => row.condition),
      exceptions: (exceptions.get(s.id) ?? []).map(({ grant, program, course, by }): ExceptionGrant => ({
        id: grant.id,
        kind: grant.kind,
        program,
        need: grant.needId,
        course: course === null ? null : courseCode(course),
        reason: grant.reason,
        by,
        at: grant.at.getTime()
      })),
      record: (record.get(s.id) ?? []).map(
        ({ course, term, credits, grade, origin, campus, mode, categories }): RecordEntry => ({
          course: courseCode(course),
          term: term === null ? null : termCode(term),
          credits,
          grade,
          origin,
          campus,
          mode,
          categories
        })
      ),
      ...seats(s.id),
      agreements: (agreements.get(s.id) ?? []).map(({ term, at }) => ({
        term: termCode(term),
        at: at!.getTime()
      })),
      prepared: (prepared.get(s.id) ?? []).map(
        ({ sheet: { order, leftOut, drops, whole, armedAt }, term }) => ({
          term: termCode(term),
          order,
          leftOut,
          drops,
          whole,
          armed: armedAt !== null
        })
      ),
      holds: (holds.get(s.id) ?? []).map(
        ({ title, office, amount, stopsRegistration, stopsTranscript, howToLift }) => ({
          ...{ title, office, amount, stopsRegistration, stopsTranscript, howToLift }
        })
      ),
      accounts: accounts.get(s.id) ?? [],
      advisors: (advisors.get(s.id) ?? []).map(({ studentId: _, ...card }) => ({
        ...card,
        away: (away.get(card.id) ?? []).map(({ from, to, standIn }) => ({ from, to, standIn }))
      })),
      route: {
        id: route?.route.id ?? null,
        name: route?.route.name ?? 'Main route',
        note: route?.route.note ?? null,
        chosen: true,
        version: route?.route.version ?? 0,
        changedAt: route?.route.changedAt.getTime() ?? 0,
        changedBy: route?.changedBy ?? '',
        advisorMayEdit: route?.route.advisorMayEdit ?? false,
        seen: null,
        undo: null,
        redo: null,
        courses: (route ? (planned.get(route.route.id) ?? []) : []).map(
          ({ course, term, credits, note, locked }): PlannedCourse => ({
            course: courseCode(course),
            term: termCode(term),
            credits,
            note,
            locked
          })
        )
      },
      carry: {
        credits: s.carryCredits,
        least: s.carryLeast,
        hours: s.carryHours,
        outside: s.outsideHours,
        target: aim === null ? null : termCode(aim),
        terms: (carried.get(s.id) ?? []).map(({ term, own: { carryCredits, carryHours, away } }) => ({
          term: termCode(term),
          credits: carryCredits,
          hours: carryHours,
          away
        }))
      },
      openings: terms.flatMap((term) => {
        const found = openingFor(person, term, openings)
        return found ? [{ term, title: found.title, opens: found.opens }] : []
      }),
      keepFree: (keepFree.get(s.id) ?? []).map(keepFreeOf),
      permitted: (requests.get(s.id) ?? []).flatMap(({ request: { kind, state, until }, section }) =>
        state === 'given' && isPermission(kind)
          ? [{ section: section as SectionCode, kind, until: until?.getTime() ?? null }]
          : []
      ),
      signOffs: (signOffs.get(s.id) ?? []).map((row) => ({
        term: termCode(row.term),
        by: row.by,
        at: row.signOff.at.getTime(),
        courses: row.signOff.courses.map(courseCode),
        alternatives: row.signOff.alternatives.map(courseCode),
        creditsLeast: row.signOff.creditsLeast,
        creditsMost: row.signOff.creditsMost,
        conditions: row.signOff.conditions,
        until: row.signOff.until?.getTime() ?? null,
        together: row.signOff.together
      })),
      intentions: [...groupBy(intentions.get(s.id) ?? [], (row) => row.term)].map(([term, rows]) => ({
        term: termCode(term),
        at: rows[0]!.at.getTime(),
        courses: rows.map((row) => courseCode(row.course))
      })),
      graduations: (graduations.get(s.id) ?? []).map(
        ({ graduation: { id, askedAt, awardedAt, ...row }, program, catalogYear, term, by }) => ({
          ...{ id, program, catalogYear, term: termCode(term), askedAt: askedAt.getTime() },
          state: row.state === 'awarded' ? 'awarded' : 'asked',
          awarded: awardedAt && by ? { at: awardedAt.getTime(), by } : null
        })
      ),
      reviews: lastOfEachTerm(reviews.get(s.id) ?? []),
      agreed: agreed.get(s.id) ?? [],
      requests: (requests.get(s.id) ?? []).map((row) => requestOf(row, handedOn))
    }
  })
}

/** Of each term what was asked for last. */
function lastOfEachTerm(rows: Awaited<ReturnType<typeof reviewRows>>): ReviewView[] {
  return [...new Map(rows.map((row) => [row.term, row])).values()].map(({ term, by, review }) => ({
    term: termCode(term),
    note: review.note,
    answers: review.answers,
    askedAt: review.askedAt.getTime(),
    answer: by && review.answeredAt ? { by, at: review.answeredAt.getTime(), missing: review.missing } : null
  }))
}

function requestOf(
  { request: row, section, course, program, by }: Awaited<ReturnType<typeof requestRows>>[number],
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

/**
 * All that the records rest on, by student. It is asked for at once: outside of a transaction several connections
 * answer, within one they follow one another.
 */
async function readParts(db: Reader, ids: number[], relation: StudentRecord['relation']) {
  const [students, own, said, seats, openings] = await Promise.all([
    studentRows(db, ids),
    readOwn(db, ids),
    readSaid(db, ids),
    readSeatParts(db, ids, relation),
    readOpenings(db)
  ])
  return { students, own, said, seats, openings }
}

const byStudent = <Row extends { studentId: number }>(rows: readonly Row[]) =>
  groupBy(rows, (row) => row.studentId)

/** What is on the record, and what offices say of it. */
async function readOwn(db: Reader, ids: number[]) {
  const [programs, policies, tests, milestones, exceptions, record, holds, accounts, graduations] =
    await Promise.all([
      programRows(db, ids),
      readPolicies(db),
      testRows(db, ids),
      milestoneRows(db, ids),
      exceptionRows(db, ids),
      recordRows(db, ids),
      holdRows(db, ids),
      readAccounts(db, ids),
      graduationRows(db, ids)
    ])
  return {
    ...{ programs: byStudent(programs), policies },
    ...{ tests: byStudent(tests), milestones: byStudent(milestones), record: byStudent(record) },
    ...{ exceptions: groupBy(exceptions, (row) => row.grant.studentId), holds: byStudent(holds), accounts },
    graduations: byStudent(graduations)
  }
}

/** What the students and their advisors plan, ask and agree. */
async function readSaid(db: Reader, ids: number[]) {
  const [advising, routed, asked, rows] = await Promise.all([
    readAdvisors(db, ids),
    readChosenRoutes(db, ids),
    readRequests(db, ids),
    Promise.all([
      ...([carriedRows(db, ids), keepFreeRows(db, ids), readAgreed(db, ids)] as const),
      ...([signOffRows(db, ids), intentionRows(db, ids), reviewRows(db, ids)] as const),
      ...([agreementRows(db, ids), preparedRows(db, ids)] as const)
    ])
  ])
  const [carried, keepFree, agreed, signOffs, intentions, reviews, agreements, prepared] = rows
  return {
    ...advising,
    ...routed,
    ...asked,
    carried: groupBy(carried, (row) => row.own.studentId),
    ...{ keepFree: byStudent(keepFree), agreed, signOffs: byStudent(signOffs) },
    ...{ intentions: byStudent(intentions), reviews: byStudent(reviews), agreements: byStudent(agreements) },
    prepared: groupBy(prepared, (row) => row.sheet.studentId)
  }
}

async function readAdvisors(db: Reader, ids: number[]) {
  const advising = await advisorRows(db, ids)
  const theirs = [...new Set(advising.map((row) => row.id))]
  const away = groupBy(theirs.length ? await awayRows(db, theirs) : [], (row) => row.advisor)
  return { advisors: byStudent(advising), away }
}

async function readChosenRoutes(db: Reader, ids: number[]) {
  const routes = groupBy(await routeRows(db, ids), (row) => row.route.studentId)
  const routeIds = [...routes.values()].flat().map((row) => row.route.id)
  const planned = groupBy(routeIds.length ? await plannedRows(db, routeIds) : [], (row) => row.routeId)
  return { routes, planned }
}

async function readRequests(db: Reader, ids: number[]) {
  const asked = await requestRows(db, ids)
  const handedOn = await handedOnRows(
    db,
    asked.map((row) => row.request.id)
  )
  return { requests: groupBy(asked, (row) => row.request.studentId), handedOn }
}
