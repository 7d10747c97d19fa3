import { sql } from 'drizzle-orm'
import {
  boolean,
  check,
  int,
  json,
  mysqlEnum,
  mysqlTable,
  primaryKey,
  text,
  tinyint,
  uniqueIndex,
  varchar
} from 'drizzle-orm/mysql-core'
import type { Season } from '#core/catalog'
import { credits, id, money } from './columns'
import { department } from './institution'

export const subject = mysqlTable(
  'subject',
  {
    id: id(),
    code: varchar({ length: 5 }).notNull(),
    name: varchar({ length: 80 }).notNull(),
    /** The college, of several, that it belongs to. */
    college: varchar({ length: 80 }).notNull(),
    departmentId: int().references(() => department.id)
  },
  (t) => [uniqueIndex('subject_code').on(t.code)]
)

export const course = mysqlTable(
  'course',
  {
    id: id(),
    subjectId: int()
      .notNull()
      .references(() => subject.id),
    code: varchar({ length: 12 }).notNull(),
    title: varchar({ length: 120 }).notNull(),
    description: text().notNull(),
    credits: credits().notNull(),
    creditsMost: credits().notNull(),
    level: mysqlEnum(['undergraduate', 'graduate']).notNull(),
    yearLevel: tinyint().notNull(),
    seasons: json().$type<Season[]>().notNull(),
    years: mysqlEnum(['every', 'odd', 'even']).notNull(),
    /** A rule of the prerequisite language. */
    prerequisite: varchar({ length: 500 }).notNull(),
    repeatable: boolean().notNull(),
    fee: money().notNull(),
    /** Counts how often it was written. */
    version: int().notNull().default(1)
  },
  (t) => [
    uniqueIndex('course_code').on(t.code),
    check('course_credits', sql`${t.credits} > 0 and ${t.creditsMost} >= ${t.credits}`)
  ]
)

export const courseRelation = mysqlTable(
  'course_relation',
  {
    courseId: int()
      .notNull()
      .references(() => course.id),
    otherId: int()
      .notNull()
      .references(() => course.id),
    kind: mysqlEnum(['equivalent', 'exclusive', 'supportLab']).notNull()
  },
  (t) => [primaryKey({ columns: [t.courseId, t.otherId, t.kind] })]
)

export const category = mysqlTable(
  'category',
  {
    id: id(),
    family: varchar({ length: 40 }).notNull(),
    code: varchar({ length: 24 }).notNull(),
    title: varchar({ length: 80 }).notNull()
  },
  (t) => [uniqueIndex('category_code').on(t.code)]
)

export const courseCategory = mysqlTable(
  'course_category',
  {
    courseId: int()
      .notNull()
      .references(() => course.id),
    categoryId: int()
      .notNull()
      .references(() => category.id)
  },
  (t) => [primaryKey({ columns: [t.courseId, t.categoryId] })]
)
