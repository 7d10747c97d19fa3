import { int, mediumtext, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { id, instant } from './columns'
import { account } from './people'
import { programVersion } from './program'

/** A version of a program that is being written: a text, which may be wrong still. Published, it is a version. */
export const programDraft = mysqlTable(
  'program_draft',
  {
    id: id(),
    code: varchar({ length: 8 }).notNull(),
    catalogYear: varchar({ length: 9 }).notNull(),
    title: varchar({ length: 160 }).notNull(),
    /** The version that it was made from. */
    fromVersionId: int().references(() => programVersion.id),
    fromText: mediumtext().notNull(),
    /** Grows with every change. */
    version: int().notNull().default(1),
    changedBy: int()
      .notNull()
      .references(() => account.id),
    changedAt: instant().notNull()
  },
  (t) => [uniqueIndex('program_draft_year').on(t.code, t.catalogYear)]
)
