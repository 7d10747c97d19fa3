import { int, json, mysqlEnum, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import type { AreaSpec } from '#core/degree'
import { credits, id } from './columns'

export const program = mysqlTable(
  'program',
  {
    id: id(),
    code: varchar({ length: 8 }).notNull(),
    title: varchar({ length: 120 }).notNull(),
    shortTitle: varchar({ length: 40 }).notNull(),
    kind: mysqlEnum(['degree', 'minor', 'certificate']).notNull()
  },
  (t) => [uniqueIndex('program_code').on(t.code)]
)

/** A program as of a catalog year. The tree is checked when it is loaded, and again when it is read. */
export const programVersion = mysqlTable(
  'program_version',
  {
    id: id(),
    programId: int()
      .notNull()
      .references(() => program.id),
    catalogYear: varchar({ length: 9 }).notNull(),
    credits: credits().notNull(),
    areas: json().$type<AreaSpec[]>().notNull(),
    /** Codes of programs that have to be taken along. */
    obliges: json().$type<string[]>().notNull(),
    /** Courses by term of study. */
    suggested: json().$type<string[][]>().notNull()
  },
  (t) => [uniqueIndex('program_version_year').on(t.programId, t.catalogYear)]
)
