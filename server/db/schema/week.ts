import { sql } from 'drizzle-orm'
import {
  boolean,
  check,
  index,
  int,
  json,
  mysqlTable,
  smallint,
  uniqueIndex,
  varchar
} from 'drizzle-orm/mysql-core'
import type { Wish } from '#core/find'
import type { AsPicked } from '#core/week'
import { term } from './calendar'
import { id, instant } from './columns'
import { section } from './offer'
import { student } from './people'

export const draftWeek = mysqlTable(
  'draft_week',
  {
    id: id(),
    studentId: int()
      .notNull()
      .references(() => student.id),
    termId: int()
      .notNull()
      .references(() => term.id),
    name: varchar({ length: 60 }).notNull(),
    /** True for the one the student is going with, null for the others. */
    goingWith: boolean(),
    /** Whoever has it may see the week and nothing else; null while it is not shared. */
    shareKey: varchar({ length: 32 }),
    note: varchar({ length: 500 })
  },
  (t) => [
    uniqueIndex('draft_week_going').on(t.studentId, t.termId, t.goingWith),
    uniqueIndex('draft_week_name').on(t.studentId, t.termId, t.name),
    uniqueIndex('draft_week_share').on(t.shareKey),
    check('draft_week_going_or_null', sql`${t.goingWith} is null or ${t.goingWith} = true`)
  ]
)

export const pickedSection = mysqlTable(
  'picked_section',
  {
    id: id(),
    draftWeekId: int()
      .notNull()
      .references(() => draftWeek.id),
    sectionId: int()
      .notNull()
      .references(() => section.id),
    /** What the section was like when it was picked. */
    asPicked: json().$type<AsPicked>(),
    /** Picked while a seat of the course was held: instead of it. */
    exchange: boolean().notNull().default(false)
  },
  (t) => [uniqueIndex('picked_section_once').on(t.draftWeekId, t.sectionId)]
)

/** Hours in which a student will not take classes, in every term. */
export const keepFree = mysqlTable(
  'keep_free',
  {
    id: id(),
    studentId: int()
      .notNull()
      .references(() => student.id),
    name: varchar({ length: 60 }).notNull(),
    /** Day letters, R being Thursday. */
    days: varchar({ length: 7 }).notNull(),
    /** Minutes after midnight, campus time, half-open. */
    startsMin: smallint().notNull(),
    endsMin: smallint().notNull(),
    /** Must hold; otherwise if possible. */
    hard: boolean().notNull()
  },
  (t) => [
    index('keep_free_student').on(t.studentId),
    check(
      'keep_free_hours',
      sql`${t.startsMin} >= 0 and ${t.startsMin} < ${t.endsMin} and ${t.endsMin} <= 1440`
    )
  ]
)

/** What a student cares about in a week. */
export const weekHabits = mysqlTable('week_habits', {
  studentId: int()
    .primaryKey()
    .references(() => student.id),
  /** In order of weight. */
  wishes: json().$type<Wish[]>().notNull(),
  /** Whether the way from one campus to another must fit between classes. */
  travelHolds: boolean().notNull()
})

/** The private address at which a calendar program reads a student's classes. */
export const calendarAddress = mysqlTable(
  'calendar_address',
  {
    studentId: int()
      .primaryKey()
      .references(() => student.id),
    key: varchar({ length: 32 }).notNull(),
    madeAt: instant().notNull()
  },
  (t) => [uniqueIndex('calendar_address_key').on(t.key)]
)
