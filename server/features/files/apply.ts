/** What an import writes, table by table; rows that another rests on come first. */
import type { Transaction } from '#server/db/connect'
import { TABLES, type Table } from '#shared/oneRoster/tables'
import { academicSessions, classes, courses, grades, orgs } from './writeOffer'
import { enrollments, results, users } from './writePeople'
import { Apply, type ApplyContext, type OnTable, type Wanted } from './writing'

const ON_TABLE: Partial<Record<Table, OnTable>> = {
  ...{ orgs, grades, academicSessions, courses, classes, users, enrollments, results }
}

/** Writes what an import brings, in the order in which it rests on one another. */
export async function writeWanted(tx: Transaction, at: ApplyContext, wanted: Wanted): Promise<void> {
  const work = new Apply(tx, at, wanted)
  for (const table of TABLES) {
    const items = wanted.get(table) ?? []
    if (!items.length) continue
    await ON_TABLE[table]?.(work, items)
    work.readAnew()
  }
  await work.journal.end()
}
