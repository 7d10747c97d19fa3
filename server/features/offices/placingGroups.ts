/** Whom an office can place in a term, and in which order. */
import { asc, eq, isNotNull } from 'drizzle-orm'
import { courseCode, studentId, type StudentId, type TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import { all, type Reader } from '#server/db/connect'
import { groupBy } from '#server/db/groupBy'
import * as t from '#server/db/schema/index'
import { opensFor } from '#server/features/registration/openings'
import { Refused } from '#server/http/problem'
import type { TermView } from '#shared/catalog/responses'
import type { CatalogContext } from '#shared/catalog/context'
import type { PlacingGroups } from '#shared/offices/placing'
import type { PlacingGroup } from '#shared/offices/placingRequests'
import { byOpening, everybodyOf } from './openingFigures'

/** When students are placed, and by which catalog. */
export interface PlacingTime {
  catalogContext: CatalogContext
  now: Instant
}

/** @throws Refused where students see no sections of the term, or nothing can be added any more */
export function mustTakePlacing(code: TermCode, { catalogContext, now }: PlacingTime): TermView {
  const term = catalogContext.terms.find((one) => one.code === code)
  if (!term) throw new Refused(404, 'noTerm', `There is no term ${code}.`)
  if (!term.published)
    throw new Refused(
      409,
      'notPublished',
      `${term.name} is not published: nobody is placed in sections that students do not see.`
    )
  if (now >= term.addEndsAt) throw new Refused(409, 'closed', `Adding to ${term.name} has ended.`)
  return term
}

/** Who can be placed in a term. @throws Refused where nobody can */
export async function readGroups(db: Reader, code: TermCode, at: PlacingTime): Promise<PlacingGroups> {
  const term = mustTakePlacing(code, at)
  const blocks = groupBy(await blockRows(db, code), (row) => row.block)
  const members = groupBy(await blockMembers(db), (row) => row.block)
  const openings = await openingRows(db, code)
  const people = await openingMembers(db, code, openings)
  return {
    handedIn: (await handedIn(db, term.code)).length,
    blocks: [...blocks].map(([block, rows]) => ({
      ...{ code: block, title: rows[0]!.title, students: members.get(block)?.length ?? 0 },
      courses: rows.map((row) => courseCode(row.course))
    })),
    openings: openings.map(({ id, title, opensAt }) => ({
      ...{ id, title, opens: opensAt.getTime() },
      students: people.get(id)?.length ?? 0
    }))
  }
}

/** A group in the order in which its students are placed: whose registration opens first, then who handed in first. */
export async function membersOf(db: Reader, code: TermCode, group: PlacingGroup): Promise<StudentId[]> {
  const meant = new Map((await handedIn(db, code)).map((row) => [row.student, row.at]))
  const members = await peopleOf(db, code, group, [...meant.keys()])
  const opens = await opensFor(db, code, members)
  const rank = (one: StudentId) => [opens.get(one) ?? Infinity, meant.get(one) ?? Infinity, one] as const
  return members
    .map((one) => ({ one, rank: rank(one) }))
    .sort((a, b) => compare(a.rank, b.rank))
    .map(({ one }) => one)
}

function compare(a: readonly number[], b: readonly number[]): number {
  for (const [i, value] of a.entries()) if (value !== b[i]) return value < b[i]! ? -1 : 1
  return 0
}

async function peopleOf(
  db: Reader,
  code: TermCode,
  group: PlacingGroup,
  meant: StudentId[]
): Promise<StudentId[]> {
  if (group.kind === 'handedIn') return meant
  if (group.kind === 'block') {
    const members = groupBy(await blockMembers(db), (row) => row.block).get(group.block)
    if (!members) throw new Refused(404, 'noBlock', `No student is in a block ${group.block}.`)
    return members.map((row) => studentId(row.student))
  }
  const openings = await openingRows(db, code)
  const of = openings.find((one) => one.id === group.opening)
  if (!of) throw new Refused(404, 'noOpening', 'There is no such opening of this term any more.')
  return (await openingMembers(db, code, openings)).get(of.id) ?? []
}

/** Who handed in what they mean to take, with the instant. */
async function handedIn(db: Reader, code: TermCode): Promise<{ student: StudentId; at: Instant }[]> {
  const rows = await db
    .selectDistinct({ student: t.intention.studentId, at: t.intention.at })
    .from(t.intention)
    .innerJoin(t.term, eq(t.term.id, t.intention.termId))
    .where(eq(t.term.code, code))
  return rows.map(({ student, at }) => ({ student: studentId(student), at: at.getTime() }))
}

/** The courses of blocks in a term, or of one block. */
export function blockRows(db: Reader, code: TermCode, block?: string) {
  return db
    .selectDistinct({ block: t.block.code, title: t.block.title, course: t.course.code })
    .from(t.section)
    .innerJoin(t.block, eq(t.block.id, t.section.blockId))
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .where(all(eq(t.term.code, code), ...(block === undefined ? [] : [eq(t.block.code, block)])))
    .orderBy(asc(t.block.code), asc(t.course.code))
}

function blockMembers(db: Reader) {
  return db
    .select({ block: t.block.code, student: t.student.id })
    .from(t.student)
    .innerJoin(t.block, eq(t.block.id, t.student.blockId))
    .where(isNotNull(t.student.blockId))
}

function openingRows(db: Reader, code: TermCode) {
  return db
    .select({ id: t.opening.id, title: t.opening.title, opensAt: t.opening.opensAt })
    .from(t.opening)
    .innerJoin(t.term, eq(t.term.id, t.opening.termId))
    .where(eq(t.term.code, code))
    .orderBy(asc(t.opening.opensAt), asc(t.opening.id))
}

/** Those for whom each opening is the first. */
async function openingMembers<T extends { id: number; opensAt: Date }>(
  db: Reader,
  code: TermCode,
  openings: readonly T[]
): Promise<Map<number, StudentId[]>> {
  const first = await opensFor(db, code, await everybodyOf(db))
  return new Map(byOpening(first, openings).map(({ of, people }) => [of.id, people]))
}
