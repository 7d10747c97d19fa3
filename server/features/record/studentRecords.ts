/** Students as their screens see them: read in one sweep, whether for one student or a whole desk. */
import type { ExceptionGrant, PlannedCourse, RecordEntry } from '#core/degree'
import { courseCode, studentId, termCode, type SectionCode } from '#core/ids'
import { openingFor } from '#core/registration'
import { all, type Reader } from '#server/db/connect'
import { groupBy } from '#server/db/groupBy'
import * as t from '#server/db/schema/index'
import { readAgreed } from '#server/features/advising/agreed'
import { handedOnRows } from '#server/features/advising/deskRequests'
import { readAccounts } from '#server/features/charges/ledger'
import { programSpec } from '#server/features/catalog/catalog'
import { readOpenings } from '#server/features/registration/openings'
import { keepFreeOf } from '#server/features/week/habits'
import { isPermission, type HandedOn, type StudentRequest } from '#shared/advising/asking'
import type { ReviewView } from '#shared/advising/responses'
import type { StudentRecord } from '#shared/record/responses'
import {
  programRows,
  policyRows,
  intentionRows,
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
  requestRows
} from './queries'
import { readSeatParts } from './seatParts'
import { asc, eq, inArray, isNull } from 'drizzle-orm'

/** Pictures of students, in the order of their ids; `relation` is how the reader stands to them. */
export async function readStudentRecords(
  db: Reader,
  ids: readonly number[],
  relation: StudentRecord['relation']
): Promise<StudentRecord[]> {
  if (!ids.length) return []
  const wanted = [...ids]
  const students = await db
    .select({
      student: t.student,
      name: t.account.name,
      campus: t.campus.code,
      block: t.block.title,
      blockCode: t.block.code,
      aim: t.term.code
    })
    .from(t.student)
    .innerJoin(t.account, eq(t.account.id, t.student.accountId))
    .innerJoin(t.campus, eq(t.campus.id, t.student.homeCampusId))
    .leftJoin(t.block, eq(t.block.id, t.student.blockId))
    .leftJoin(t.term, eq(t.term.id, t.student.aimTermId))
    .where(inArray(t.student.id, wanted))
    .orderBy(asc(t.student.id))
  const programs = groupBy(await programRows(db, wanted), (row) => row.studentId)
  const policies = groupBy(await policyRows(db), (row) => row.program)
  const tests = groupBy(
    await db.select().from(t.testScore).where(inArray(t.testScore.studentId, wanted)),
    (row) => row.studentId
  )
  const milestones = groupBy(
    await db.select().from(t.milestone).where(inArray(t.milestone.studentId, wanted)),
    (row) => row.studentId
  )
  const exceptions = groupBy(await exceptionRows(db, wanted), (row) => row.grant.studentId)
  const record = groupBy(await recordRows(db, wanted), (row) => row.studentId)
  const seats = await readSeatParts(db, wanted, relation)
  const agreements = groupBy(await agreementRows(db, wanted), (row) => row.studentId)
  const prepared = groupBy(await preparedRows(db, wanted), (row) => row.sheet.studentId)
  const holds = groupBy(
    await db
      .select()
      .from(t.hold)
      .where(all(inArray(t.hold.studentId, wanted), isNull(t.hold.liftedAt))),
    (row) => row.studentId
  )
  const advising = await advisorRows(db, wanted)
  const advisors = groupBy(advising, (row) => row.studentId)
  const theirs = [...new Set(advising.map((row) => row.id))]
  const away = groupBy(theirs.length ? await awayRows(db, theirs) : [], (row) => row.advisor)
  const routes = groupBy(await routeRows(db, wanted), (row) => row.route.studentId)
  const routeIds = [...routes.values()].flat().map((row) => row.route.id)
  const planned = groupBy(routeIds.length ? await plannedRows(db, routeIds) : [], (row) => row.routeId)
  const carried = groupBy(
    await db
      .select({ own: t.studentTerm, term: t.term.code })
      .from(t.studentTerm)
      .innerJoin(t.term, eq(t.term.id, t.studentTerm.termId))
      .where(inArray(t.studentTerm.studentId, wanted)),
    (row) => row.own.studentId
  )
  const signOffs = groupBy(await signOffRows(db, wanted), (row) => row.studentId)
  const intentions = groupBy(await intentionRows(db, wanted), (row) => row.studentId)
  const reviews = groupBy(await reviewRows(db, wanted), (row) => row.studentId)
  const asked = await requestRows(db, wanted)
  const requests = groupBy(asked, (row) => row.request.studentId)
  const handedOn = await handedOnRows(
    db,
    asked.map((row) => row.request.id)
  )
  const agreed = await readAgreed(db, wanted)
  const keepFree = groupBy(
    await db
      .select()
      .from(t.keepFree)
      .where(inArray(t.keepFree.studentId, wanted))
      .orderBy(asc(t.keepFree.id)),
    (row) => row.studentId
  )
  const accounts = await readAccounts(db, wanted)
  const openings = await readOpenings(db)

  return students.map(({ student: s, name, campus, block, blockCode, aim }): StudentRecord => {
    const own = programs.get(s.id) ?? []
    const route = routes.get(s.id)?.[0]
    const person = { id: s.id, standing: s.standing, programs: own.map((p) => p.code), block: blockCode }
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
      programs: own.map(({ confirmed, saidInstead, review, programId, ...row }) => ({
        spec: programSpec(row),
        confirmed,
        saidInstead,
        review,
        policies: (policies.get(programId) ?? []).map(({ term, policy }) => ({
          term: termCode(term),
          policy
        }))
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
      holds: (holds.get(s.id) ?? []).map(({ title, office, amount, stopsRegistration, howToLift }) => ({
        title,
        office,
        amount,
        stopsRegistration,
        howToLift
      })),
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
