/** What of an import may be taken over, where the files alone do not say it. */
import { eq } from 'drizzle-orm'
import { IANAZone } from 'luxon'
import { COMMON_SCALE } from '#core/grades'
import type { IsoDate } from '#core/time'
import type { Reader } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import type { Present, RosterItem } from '#shared/oneRoster/plan'
import type { RosterFault } from '#shared/oneRoster/read'
import { idOf } from './present'
import { programsIn } from './writePeople'

/** What cannot be seen in the files alone: grades that there are not, terms whose seats are registered, programs. */
export async function judge(
  db: Reader,
  items: readonly RosterItem[],
  { present, today }: { present: Present; today: IsoDate }
): Promise<{ items: RosterItem[]; faults: RosterFault[] }> {
  const starts = new Map(
    (await db.select({ code: t.term.code, start: t.term.startsOn }).from(t.term)).map((one) => [
      one.code,
      one.start
    ])
  )
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
    (await db.select({ signIn: t.account.signIn }).from(t.account)).map((one) => one.signIn)
  )
  const context = {
    starts,
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
    if (one.table === 'users') signIns.add(one.row.username!)
    return [left ? { ...one, change: 'left', reason: left } : one]
  })
  return { items: withoutOrphans(kept, present), faults }
}

interface JudgeContext {
  starts: ReadonlyMap<string, string>
  programs: ReadonlySet<string>
  signIns: ReadonlySet<string>
  today: IsoDate
  hasInstitution: boolean
}

function judgeOne(
  { table, id, row, change }: RosterItem,
  { starts, programs, signIns, today, hasInstitution }: JudgeContext
): { left?: string; wrong?: string } {
  const hasBegun = (starts.get(id.split('-')[1] ?? '') ?? '9999') <= today
  switch (table) {
    case 'orgs':
      if (!hasInstitution) return { wrong: 'A district is needed first: the institution itself.' }
      if (id !== idOf.institution || change === 'changed') return {}
      return IANAZone.isValidZone(row['metadata.timeZone'] ?? '')
        ? {}
        : { wrong: 'metadata.timeZone is needed of a new institution, as in the time zone database.' }
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
      const isTaken = change === 'new' && id.startsWith('student-') && signIns.has(row.username!)
      return isTaken ? { wrong: `username ${row.username!} is somebody else’s.` } : {}
    }
    case 'enrollments':
      if (!id.startsWith('taken-') || hasBegun) return {}
      return { left: 'Seats of a term to come are registered, not brought.' }
    case 'results':
      if (row.scoreStatus !== 'fully graded') return { left: `It is ${row.scoreStatus!}.` }
      if (!hasBegun) return { left: 'The term has not begun.' }
      return COMMON_SCALE.has(row.textScore ?? '')
        ? {}
        : {
            wrong: `textScore is needed, a grade of the scale${row.textScore ? `, which has no ${row.textScore}` : ''}.`
          }
    default:
      return {}
  }
}

/** Who teaches a class that is not brought is not brought either. */
function withoutOrphans(items: readonly RosterItem[], present: Present): RosterItem[] {
  const coming = new Set(items.flatMap((one) => (one.change === 'new' ? [one.id] : [])))
  return items.map((one) => {
    const { table, change, id, row } = one
    if (table !== 'enrollments' || change !== 'new' || !id.startsWith('teaches-')) return one
    const about = row.classSourcedId!
    if (coming.has(about) || present.get('classes')?.has(about)) return one
    return { ...one, change: 'left', reason: 'Its class is not brought.' }
  })
}
