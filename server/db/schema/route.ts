import { sql } from 'drizzle-orm'
import {
  boolean,
  check,
  index,
  int,
  json,
  mysqlEnum,
  mysqlTable,
  primaryKey,
  text,
  uniqueIndex,
  varchar
} from 'drizzle-orm/mysql-core'
import type { RouteChange } from '#core/findings'
import { term } from './calendar'
import { course } from './catalog'
import { credits, id, instant } from './columns'
import { account, student } from './people'

export const route = mysqlTable(
  'route',
  {
    id: id(),
    studentId: int()
      .notNull()
      .references(() => student.id),
    name: varchar({ length: 60 }).notNull(),
    /** True for the chosen one, null for the others, so that only one can be. */
    chosen: boolean(),
    version: int().notNull().default(1),
    changedAt: instant().notNull(),
    changedBy: int()
      .notNull()
      .references(() => account.id),
    note: varchar({ length: 400 }),
    /** Whether the program advisor may change it, not only read it. */
    advisorMayEdit: boolean().notNull().default(false),
    /** When an advisor last looked at it, and which version that was. */
    seenAt: instant(),
    seenBy: int().references(() => account.id),
    seenVersion: int()
  },
  (t) => [
    uniqueIndex('route_chosen').on(t.studentId, t.chosen),
    uniqueIndex('route_name').on(t.studentId, t.name),
    check('route_chosen_or_null', sql`${t.chosen} is null or ${t.chosen} = true`)
  ]
)

export const plannedCourse = mysqlTable(
  'planned_course',
  {
    id: id(),
    routeId: int()
      .notNull()
      .references(() => route.id),
    courseId: int()
      .notNull()
      .references(() => course.id),
    termId: int()
      .notNull()
      .references(() => term.id),
    credits: credits().notNull(),
    note: varchar({ length: 400 }),
    locked: boolean().notNull().default(false)
  },
  (t) => [uniqueIndex('planned_course_once').on(t.routeId, t.termId, t.courseId)]
)

/** Every change of a route, in order: what it was, and whether it undid or repeated an earlier one. */
export const routeStep = mysqlTable(
  'route_step',
  {
    routeId: int()
      .notNull()
      .references(() => route.id),
    version: int().notNull(),
    kind: mysqlEnum(['do', 'undo', 'redo']).notNull(),
    /** The version of the step that was undone or repeated. */
    ofVersion: int(),
    change: json().$type<RouteChange>().notNull(),
    at: instant().notNull(),
    by: int()
      .notNull()
      .references(() => account.id)
  },
  (t) => [primaryKey({ columns: [t.routeId, t.version] })]
)

/** Courses a student has starred, and looked at last. */
export const courseMark = mysqlTable(
  'course_mark',
  {
    studentId: int()
      .notNull()
      .references(() => student.id),
    courseId: int()
      .notNull()
      .references(() => course.id),
    starredAt: instant(),
    lookedAt: instant()
  },
  (t) => [primaryKey({ columns: [t.studentId, t.courseId] })]
)

export const note = mysqlTable(
  'note',
  {
    id: id(),
    studentId: int()
      .notNull()
      .references(() => student.id),
    authorId: int()
      .notNull()
      .references(() => account.id),
    routeId: int().references(() => route.id),
    termId: int().references(() => term.id),
    courseId: int().references(() => course.id),
    /** Who reads it beside its author. */
    visibility: mysqlEnum(['own', 'shared', 'advisors']).notNull(),
    text: text().notNull(),
    at: instant().notNull()
  },
  (t) => [index('note_student').on(t.studentId)]
)

/** A course that a student handed in as meant for a term, before there are sections of it. */
export const intention = mysqlTable(
  'intention',
  {
    id: id(),
    studentId: int()
      .notNull()
      .references(() => student.id),
    termId: int()
      .notNull()
      .references(() => term.id),
    courseId: int()
      .notNull()
      .references(() => course.id),
    at: instant().notNull()
  },
  (t) => [
    uniqueIndex('intention_once').on(t.studentId, t.termId, t.courseId),
    index('intention_term').on(t.termId)
  ]
)
