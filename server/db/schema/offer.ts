import { sql } from 'drizzle-orm'
import {
  boolean,
  check,
  date,
  index,
  int,
  json,
  mysqlEnum,
  mysqlTable,
  primaryKey,
  smallint,
  uniqueIndex,
  varchar,
  type AnyMySqlColumn
} from 'drizzle-orm/mysql-core'
import type { Section } from '#core/week'
import { session, term } from './calendar'
import { course } from './catalog'
import { credits, id, money } from './columns'
import { campus, room } from './institution'

export const instructor = mysqlTable('instructor', {
  id: id(),
  name: varchar({ length: 80 }).notNull(),
  mail: varchar({ length: 120 }).notNull()
})

/** Sections planned for a cohort so that they never clash. */
export const block = mysqlTable(
  'block',
  {
    id: id(),
    code: varchar({ length: 16 }).notNull(),
    title: varchar({ length: 60 }).notNull(),
    programCode: varchar({ length: 8 }).notNull(),
    yearLevel: smallint().notNull()
  },
  (t) => [uniqueIndex('block_code').on(t.code)]
)

/** A section, or a component of one: a lab or tutorial has a code, seats and a line of its own. */
export const section = mysqlTable(
  'section',
  {
    id: id(),
    courseId: int()
      .notNull()
      .references(() => course.id),
    termId: int()
      .notNull()
      .references(() => term.id),
    sessionId: int()
      .notNull()
      .references(() => session.id),
    number: varchar({ length: 6 }).notNull(),
    code: varchar({ length: 5 }).notNull(),
    kind: mysqlEnum(['lecture', 'lab', 'tutorial', 'seminar', 'studio']).notNull(),
    parentId: int().references((): AnyMySqlColumn => section.id),
    campusId: int()
      .notNull()
      .references(() => campus.id),
    /** Where it is held away from every campus. */
    offSite: varchar({ length: 80 }),
    mode: mysqlEnum(['inPerson', 'onlineHours', 'online', 'mixed']).notNull(),
    /** A rule of the prerequisite language, where it differs from that of the course. */
    prerequisite: varchar({ length: 500 }),
    /** Codes of categories, where they differ from those of the course. */
    categories: json().$type<string[]>(),
    /** Zero for a component. */
    credits: credits().notNull(),
    /** Where a student chooses among credits: the most of them, and `credits` is the least. */
    creditsMost: credits(),
    topic: varchar({ length: 120 }),
    capacity: smallint().notNull(),
    taken: smallint().notNull().default(0),
    /** Seats kept for those in line: offered to one of them, or freed and still to be offered. */
    offered: smallint().notNull().default(0),
    /** Seats taken in a term of which it is not kept any more by whom. */
    takenFormerly: smallint().notNull().default(0),
    waitCapacity: smallint().notNull(),
    waiting: smallint().notNull().default(0),
    blockId: int().references(() => block.id),
    officeOnly: boolean().notNull().default(false),
    permissionNeeded: boolean().notNull().default(false),
    cancelled: boolean().notNull().default(false),
    onlyFor: json().$type<Section['onlyFor']>(),
    fee: money().notNull()
  },
  (t) => [
    uniqueIndex('section_code').on(t.code),
    uniqueIndex('section_number').on(t.termId, t.courseId, t.number),
    index('section_parent').on(t.parentId),
    index('section_offered').on(t.offered),
    check(
      'section_taken',
      sql`${t.taken} >= 0 and ${t.offered} >= 0 and ${t.taken} + ${t.offered} <= ${t.capacity}`
    ),
    check('section_waiting', sql`${t.waiting} >= 0 and ${t.waiting} <= ${t.waitCapacity}`)
  ]
)

export const sectionInstructor = mysqlTable(
  'section_instructor',
  {
    sectionId: int()
      .notNull()
      .references(() => section.id),
    instructorId: int()
      .notNull()
      .references(() => instructor.id)
  },
  (t) => [primaryKey({ columns: [t.sectionId, t.instructorId] })]
)

export const meeting = mysqlTable(
  'meeting',
  {
    id: id(),
    sectionId: int()
      .notNull()
      .references(() => section.id),
    /** Day letters, R being Thursday. */
    days: varchar({ length: 7 }).notNull(),
    /** Minutes after midnight, campus time, half-open. */
    startsMin: smallint().notNull(),
    endsMin: smallint().notNull(),
    fromOn: date({ mode: 'string' }).notNull(),
    toOn: date({ mode: 'string' }).notNull(),
    roomId: int().references(() => room.id)
  },
  (t) => [
    index('meeting_section').on(t.sectionId),
    check(
      'meeting_hours',
      sql`${t.startsMin} >= 0 and ${t.startsMin} < ${t.endsMin} and ${t.endsMin} <= 1440`
    ),
    check('meeting_dates', sql`${t.fromOn} <= ${t.toOn}`)
  ]
)

/** Seats of a section kept for a program or a block until an instant. */
export const reservedSeats = mysqlTable(
  'reserved_seats',
  {
    id: id(),
    sectionId: int()
      .notNull()
      .references(() => section.id),
    programCode: varchar({ length: 8 }),
    blockId: int().references(() => block.id),
    seats: smallint().notNull()
  },
  (t) => [check('reserved_for', sql`(${t.programCode} is null) <> (${t.blockId} is null)`)]
)
