import { int, json, mysqlEnum, mysqlTable, primaryKey, varchar } from 'drizzle-orm/mysql-core'
import type { RosterItem } from '#shared/oneRoster/plan'
import type { RosterFault } from '#shared/oneRoster/read'
import type { RosterCounts } from '#shared/oneRoster/responses'
import { id, instant } from './columns'
import { account } from './people'

/** A set of files that was brought: what it would change, and what came of it. */
export const dataImport = mysqlTable('data_import', {
  id: id(),
  name: varchar({ length: 120 }).notNull(),
  state: mysqlEnum(['planned', 'applied', 'undone']).notNull(),
  counts: json().$type<RosterCounts>().notNull(),
  faults: json().$type<RosterFault[]>().notNull(),
  byId: int()
    .notNull()
    .references(() => account.id),
  at: instant().notNull(),
  endedAt: instant()
})

/** Lines of it, some hundred in a row: those that change something, or are left as they are. */
export const dataImportItems = mysqlTable(
  'data_import_items',
  {
    importId: int()
      .notNull()
      .references(() => dataImport.id),
    ordinal: int().notNull(),
    items: json().$type<RosterItem[]>().notNull()
  },
  (t) => [primaryKey({ columns: [t.importId, t.ordinal] })]
)

/** What was written for it, in order: rows with what stood there before, by which it is undone. */
export const dataImportSteps = mysqlTable(
  'data_import_steps',
  {
    importId: int()
      .notNull()
      .references(() => dataImport.id),
    ordinal: int().notNull(),
    steps: json()
      .$type<{ table: string; key: Record<string, unknown>; before: object | null; after: object }[]>()
      .notNull()
  },
  (t) => [primaryKey({ columns: [t.importId, t.ordinal] })]
)
