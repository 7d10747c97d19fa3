import { sql } from 'drizzle-orm'
import { int, json, mysqlEnum, mysqlTable, text, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import type { AreaSpec, ProgramSpec, SlotSpec } from '#core/degree'
import type { ReviewRules } from '#shared/advising/review'
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

/** The parts of a program that not every program has. */
export type ProgramRules = Pick<
  ProgramSpec,
  'limits' | 'mayShare' | 'conditions' | 'entry' | 'repeats' | 'note'
>

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
    /** Courses and needs by term of study. */
    suggested: json().$type<SlotSpec[][]>().notNull(),
    /** What the program asks for beside its areas. */
    rules: json()
      .$type<ProgramRules>()
      .notNull()
      .default(sql`('{}')`),
    /** What has to be there when a review is asked for. */
    review: json()
      .$type<ReviewRules>()
      .notNull()
      .default(sql`('{"covers":"term","questions":[]}')`)
  },
  (t) => [uniqueIndex('program_version_year').on(t.programId, t.catalogYear)]
)

/** A course list kept by name, for the programs of a catalog year. */
export const courseList = mysqlTable(
  'course_list',
  {
    id: id(),
    name: varchar({ length: 40 }).notNull(),
    catalogYear: varchar({ length: 9 }).notNull(),
    title: varchar({ length: 120 }).notNull(),
    /** A text of the course-set language. */
    fromText: text().notNull()
  },
  (t) => [uniqueIndex('course_list_year').on(t.name, t.catalogYear)]
)
