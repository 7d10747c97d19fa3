/** Students as their screens see them: read in one sweep, whether for one student or a whole desk. */
import { termCode } from '#core/ids'
import type { Reader } from '#server/db/connect'
import { groupBy } from '#server/db/groupBy'
import { readAgreed } from '#server/features/advising/agreed'
import { handedOnRows } from '#server/features/advising/deskRequests'
import { readAccounts } from '#server/features/charges/ledger'
import { readScale } from '#server/features/catalog/scale'
import { readOpenings } from '#server/features/registration/openings'
import { keepFreeOf } from '#server/features/week/habits'
import type { StudentRecord } from '#shared/record/responses'
import {
  programRows,
  readPolicies,
  intentionRows,
  graduationRows,
  exceptionRows,
  recordRows,
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
import { agreementRows, preparedRows } from './seatQueries'
import { earnedIn } from './earned'
import {
  advisorOf,
  carryOf,
  entryOf,
  exceptionOf,
  graduationOf,
  holdOf,
  intentionsOf,
  lastOfEachTerm,
  openingsFor,
  permittedBy,
  preparedOf,
  programOf,
  requestOf,
  routeOf,
  signOffOf,
  studentOf
} from './recordParts'
import { readSeatParts } from './seatParts'

/** The records of students; `relation` is how the reader stands to them. */
export async function readStudentRecords(
  db: Reader,
  ids: readonly number[],
  relation: StudentRecord['relation']
): Promise<StudentRecord[]> {
  if (!ids.length) return []
  const { students, own, said, seats, openings } = await readParts(db, [...ids], relation)
  // Only an opening asks for it.
  const scale = openings.some((one) => one.creditsLeast !== null) ? await readScale(db) : undefined
  return students.map((row): StudentRecord => {
    const { id } = row.student
    const programs = own.programs.get(id) ?? []
    const person = {
      ...{ id, standing: row.student.standing, programs: programs.map((p) => p.code), block: row.blockCode },
      credits: scale ? earnedIn(own.record.get(id) ?? [], scale) : 0
    }
    return {
      student: studentOf(row),
      relation,
      programs: programs.map((one) => programOf(one, own.policies)),
      tests: Object.fromEntries((own.tests.get(id) ?? []).map((one) => [one.test, one.score])),
      milestones: (own.milestones.get(id) ?? []).map((one) => one.condition),
      exceptions: (own.exceptions.get(id) ?? []).map(exceptionOf),
      record: (own.record.get(id) ?? []).map(entryOf),
      ...seats(id),
      holds: (own.holds.get(id) ?? []).map(holdOf),
      accounts: own.accounts.get(id) ?? [],
      graduations: (own.graduations.get(id) ?? []).map(graduationOf),
      openings: openingsFor(person, openings),
      carry: carryOf(row, said.carried.get(id) ?? []),
      ...saidOf(said, id)
    }
  })
}

/** What a student and the advisors plan, ask and agree. */
function saidOf(said: Awaited<ReturnType<typeof readSaid>>, id: number) {
  const requests = said.requests.get(id) ?? []
  return {
    agreements: (said.agreements.get(id) ?? []).map(({ term, at }) => ({
      term: termCode(term),
      at: at!.getTime()
    })),
    prepared: (said.prepared.get(id) ?? []).map(preparedOf),
    advisors: (said.advisors.get(id) ?? []).map((one) => advisorOf(one, said.away)),
    route: routeOf(said.routes.get(id)?.[0], said.planned),
    keepFree: (said.keepFree.get(id) ?? []).map(keepFreeOf),
    permitted: requests.flatMap(permittedBy),
    signOffs: (said.signOffs.get(id) ?? []).map(signOffOf),
    intentions: intentionsOf(said.intentions.get(id) ?? []),
    reviews: lastOfEachTerm(said.reviews.get(id) ?? []),
    agreed: said.agreed.get(id) ?? [],
    requests: requests.map((row) => requestOf(row, said.handedOn))
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
