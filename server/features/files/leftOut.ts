/** What of a set is left out when it is taken over, and whether the rest stands without it. */
import type { Transaction } from '#server/db/connect'
import { pause } from '#server/pause'
import { readScale } from '#server/features/catalog/scale'
import { Refused } from '#server/http/problem'
import { presentOf, type RosterItem } from '#shared/oneRoster/plan'
import { LINES_A_TURN } from '#shared/oneRoster/read'
import { TABLES, type Table } from '#shared/oneRoster/tables'
import { gradeFault, restsOn } from './judge'
import { readRosterTables } from './present'

export interface LeftOut {
  /** Whole files. */
  leaveOut: readonly Table[]
  lines: readonly { table: Table; line: number }[]
}

/** The lines without those that are left out, and without what would be new and rests on one that would have been. */
export function withoutLines(items: readonly RosterItem[], lines: LeftOut['lines']): RosterItem[] {
  if (!lines.length) return [...items]
  const named = new Set(lines.map((one) => `${one.table} ${one.line}`))
  let kept = items.filter((one) => !named.has(`${one.table} ${one.line}`))
  const gone = new Set(
    items.filter((one) => one.change === 'new' && named.has(`${one.table} ${one.line}`)).map((one) => one.id)
  )
  for (let before = -1; before !== gone.size;) {
    before = gone.size
    const resting = new Set(kept.filter((one) => restsOn(one).some((id) => gone.has(id))))
    for (const one of resting) if (one.change === 'new') gone.add(one.id)
    kept = kept.filter((one) => !resting.has(one))
  }
  return kept
}

/** What is new is not here, what is changed is as it was, and what they name is there or comes with them. @throws Refused */
export async function mustStand(
  tx: Transaction,
  items: readonly RosterItem[],
  leaveOut: readonly Table[]
): Promise<void> {
  const present = presentOf(await readRosterTables(tx, new Set(items.map((one) => one.table))))
  const moved = items.find(({ table, id, change, fields }) => {
    const row = present.get(table)?.get(id)
    if (change === 'new') return row !== undefined
    return !row || fields.some((one) => (row[one.name] ?? '') !== one.before)
  })
  if (moved)
    throw new Refused(
      409,
      'movedOn',
      `What is here has changed since (${moved.table}.csv, line ${moved.line}). Bring the files again to see how it stands now.`
    )
  if (leaveOut.includes('grades')) await mustKnowGrades(tx, items)
  const coming = new Set(items.map((one) => one.id))
  const isThere = (id: string) => coming.has(id) || TABLES.some((table) => present.get(table)?.has(id))
  for (const [n, item] of items.entries()) {
    if (n % LINES_A_TURN === 0) await pause()
    const open = restsOn(item).find((id) => !isThere(id))
    if (open)
      throw new Refused(
        422,
        'restsOn',
        `${item.table}.csv, line ${item.line} rests on ${open}, which is left out.`,
        [
          {
            field: 'leaveOut',
            message: `has to name ${item.table} too, where it names ${leaveOut.join(', ')}`
          }
        ]
      )
  }
}

/** Without the scale that came with them, lines name grades of the one there is alone. @throws Refused */
async function mustKnowGrades(tx: Transaction, items: readonly RosterItem[]): Promise<void> {
  const scale = await readScale(tx)
  for (const item of items) {
    const { wrong } = gradeFault(item, scale)
    if (wrong)
      throw new Refused(
        422,
        'restsOn',
        `${item.table}.csv, line ${item.line}: ${wrong} The grades are left out.`,
        [{ field: 'leaveOut', message: `has to name ${item.table} too, where it names grades` }]
      )
  }
}
