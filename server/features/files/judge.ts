/** What of an import may be taken over, where the files alone do not say it. */
import { eq, isNotNull } from 'drizzle-orm'
import { IANAZone } from 'luxon'
import { COMMON_SCALE, scaleOf, type GradeScale, type GradeSpec } from '#core/grades'
import { parseRule } from '#core/requisites'
import { RuleError } from '#core/rules'
import type { IsoDate } from '#core/time'
import type { Reader } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import type { Present, RosterItem } from '#shared/oneRoster/plan'
import type { RosterFault } from '#shared/oneRoster/read'
import { scaleWith, TABLES, type Row } from '#shared/oneRoster/tables'
import { idOf } from './rosterIds'
import { programsIn } from './writePeople'

/** What cannot be seen in the files alone: grades that there are not, terms whose seats are registered, programs. */
export async function judge(
  db: Reader,
  items: readonly RosterItem[],
  { present, today }: { present: Present; today: IsoDate }
): Promise<{ items: RosterItem[]; faults: RosterFault[] }> {
  const terms = await db
    .select({ code: t.term.code, name: t.term.name, start: t.term.startsOn, end: t.term.endsOn })
    .from(t.term)
  const starts = new Map(terms.map((one) => [one.code, one.start]))
  for (const { id, row, change } of items)
    if (change === 'new' && row.type === 'term') starts.set(id.slice('term-'.length), row.startDate!)
  const programs = new Set(
    (
      await db
        .select({ code: t.program.code, year: t.programVersion.catalogYear })
        .from(t.programVersion)
        .innerJoin(t.program, eq(t.program.id, t.programVersion.programId))
    ).map((one) => `${one.code} ${one.year}`)
  )
  const [institution] = await db.select().from(t.institution).limit(1)
  const signIns = new Set(
    (await db.select({ signIn: t.account.signIn }).from(t.account)).map((one) => asSignedIn(one.signIn))
  )
  const [graded] = await db
    .select({ id: t.recordCourse.id })
    .from(t.recordCourse)
    .where(isNotNull(t.recordCourse.grade))
    .limit(1)
  const context = {
    scale: scaleFor(items, institution, Boolean(graded)),
    hasGraded: Boolean(graded),
    starts,
    terms,
    programs,
    today,
    signIns,
    hasInstitution: Boolean(institution) || items.some((one) => one.id === idOf.institution)
  }
  const faults: RosterFault[] = []
  const kept = items.flatMap((one): RosterItem[] => {
    if (one.change !== 'new' && one.change !== 'changed') return [one]
    const { left, wrong } = judgeOne(one, context)
    if (wrong) {
      faults.push({ file: `${one.table}.csv`, line: one.line, message: wrong })
      return []
    }
    // Each of those that are kept is known to the next.
    if (one.table === 'users') signIns.add(asSignedIn(one.row.username!))
    if (one.change === 'new' && one.row.type === 'term') terms.push(termIn(one))
    return [left ? { ...one, change: 'left', reason: left } : one]
  })
  return { items: withoutOrphans(kept, present), faults }
}

/** The scale by which what is brought is judged: once a grade was given, the one there is. */
function scaleFor(
  items: readonly RosterItem[],
  institution: { grades: GradeSpec[] | null } | undefined,
  hasGraded: boolean
): GradeScale {
  const rows = items.flatMap(({ table, row, change }) =>
    table === 'grades' && (change === 'new' || change === 'changed') ? [row] : []
  )
  const known = institution && scaleOf(institution.grades)
  if (hasGraded || !rows.length) return known ?? COMMON_SCALE
  return scaleWith(known?.grades ?? [], rows)
}

/** As two names to sign in with are the same to the database. */
const asSignedIn = (name: string) => name.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase()

/** Terms follow one another: no day is in two of them. */
const isOverlapping = ({ start, end }: KnownTerm, row: Row) => start <= row.endDate! && row.startDate! <= end

interface KnownTerm {
  code: string
  name: string
  start: string
  end: string
}
const termIn = ({ id, row }: RosterItem): KnownTerm => ({
  ...{ code: id.slice('term-'.length), name: row.title!, start: row.startDate!, end: row.endDate! }
})

interface JudgeContext {
  scale: GradeScale
  /** Whether somebody has a grade. */
  hasGraded: boolean
  terms: readonly KnownTerm[]
  starts: ReadonlyMap<string, string>
  programs: ReadonlySet<string>
  signIns: ReadonlySet<string>
  today: IsoDate
  hasInstitution: boolean
}

function judgeOne(
  { table, id, row, change }: RosterItem,
  { scale, hasGraded, starts, terms, programs, signIns, today, hasInstitution }: JudgeContext
): { left?: string; wrong?: string } {
  const hasBegun = (starts.get(id.split('-')[1] ?? '') ?? '9999') <= today
  switch (table) {
    case 'orgs':
      if (!hasInstitution) return { wrong: 'A district is needed first: the institution itself.' }
      if (id !== idOf.institution || change === 'changed') return {}
      return IANAZone.isValidZone(row['metadata.timeZone'] ?? '')
        ? {}
        : { wrong: 'metadata.timeZone is needed of a new institution, as in the time zone database.' }
    case 'grades':
      if (!hasInstitution) return { wrong: 'A district is needed first: the institution itself.' }
      if (hasGraded) return { left: 'The scale stays as it is once grades have been given by it.' }
      return scale.withdrawn
        ? {}
        : { wrong: 'A scale needs a grade of the result withdrawn, for late drops.' }
    case 'courses':
      return gradeFault({ table: 'courses', row }, scale)
    case 'academicSessions': {
      const other = row.type === 'term' && terms.find((one) => isOverlapping(one, row))
      return other ? { wrong: `${other.name} has some of these days (${other.start} to ${other.end}).` } : {}
    }
    case 'classes':
      if (!row.classCode) return { left: 'Only what is taken in it is kept of a class without a code.' }
      if (hasBegun) return { left: 'Of a term that has begun only what is taken in it is brought.' }
      return row['metadata.seats']
        ? {}
        : { wrong: 'metadata.seats is needed of a class that is not here yet.' }
    case 'users': {
      const unknown = programsIn(row).find((one) => !programs.has(one))
      if (unknown)
        return { wrong: `metadata.programs names ${unknown}, and there is no such version of a program.` }
      const isTaken = change === 'new' && id.startsWith('student-') && signIns.has(asSignedIn(row.username!))
      return isTaken ? { wrong: `username ${row.username!} is somebody else’s.` } : {}
    }
    case 'enrollments':
      if (!id.startsWith('taken-') || hasBegun) return {}
      return { left: 'Seats of a term to come are registered, not brought.' }
    case 'results':
      if (row.scoreStatus !== 'fully graded') return { left: `It is ${row.scoreStatus!}.` }
      if (!hasBegun) return { left: 'The term has not begun.' }
      return gradeFault({ table: 'results', row }, scale)
    default:
      return {}
  }
}

/** What a line says of grades that the scale does not have. */
export function gradeFault(
  { table, row }: Pick<RosterItem, 'table' | 'row'>,
  scale: GradeScale
): { wrong?: string } {
  if (table === 'results' && !scale.has(row.textScore ?? '')) {
    const known = row.textScore ? `, which has no ${row.textScore}` : ''
    return { wrong: `textScore is needed, a grade of the scale${known}.` }
  }
  if (table !== 'courses') return {}
  try {
    parseRule(row['metadata.prerequisite'] ?? '', scale)
    return {}
  } catch (error) {
    if (!(error instanceof RuleError)) throw error
    return { wrong: `metadata.prerequisite: ${error.message}` }
  }
}

/** What rests on a line that is not brought is not brought either. */
function withoutOrphans(items: readonly RosterItem[], present: Present): RosterItem[] {
  const coming = new Set(items.flatMap((one) => (one.change === 'new' ? [one.id] : [])))
  const isThere = (id: string) => coming.has(id) || TABLES.some((table) => present.get(table)?.has(id))
  return items.map((one) => {
    const open = one.change === 'new' ? restsOn(one).find((id) => !isThere(id)) : undefined
    if (open === undefined) return one
    coming.delete(one.id)
    return { ...one, change: 'left', reason: `It rests on ${open}, which is not brought.` }
  })
}

/** What has to be there for a line to be written. */
export function restsOn({ table, id, row }: RosterItem): string[] {
  const [, term = '', subject = '', number = ''] = id.split('-')
  const courseAndTerm = [idOf.term(term), idOf.course(`${subject} ${number}`)]
  const named = (...columns: string[]) => columns.flatMap((one) => (row[one] ? [row[one]] : []))
  switch (table) {
    case 'orgs':
    case 'academicSessions':
      return named('parentSourcedId')
    case 'courses':
      return named('orgSourcedId')
    case 'classes':
      return [...courseAndTerm, ...named('schoolSourcedId', 'metadata.parentSourcedId')]
    case 'users':
      return named('primaryOrgSourcedId')
    case 'enrollments':
      return id.startsWith('taken-')
        ? [...courseAndTerm, ...named('userSourcedId')]
        : named('classSourcedId', 'userSourcedId')
    case 'results':
      return [`taken-${id.slice('grade-'.length)}`]
    default:
      return []
  }
}
