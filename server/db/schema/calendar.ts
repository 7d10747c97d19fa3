import { sql } from 'drizzle-orm'
import {
  boolean,
  check,
  date,
  int,
  json,
  mysqlEnum,
  mysqlTable,
  smallint,
  text,
  uniqueIndex,
  varchar
} from 'drizzle-orm/mysql-core'
import { SEASONS } from '#core/catalog'
import type { TermPrices } from '#core/charges'
import { SIGN_OFF_POLICIES } from '#core/registration'
import { credits, id, instant } from './columns'

const day = () => date({ mode: 'string' })

export const term = mysqlTable(
  'term',
  {
    id: id(),
    code: varchar({ length: 8 }).notNull(),
    name: varchar({ length: 40 }).notNull(),
    season: mysqlEnum(SEASONS).notNull(),
    year: smallint().notNull(),
    startsOn: day().notNull(),
    endsOn: day().notNull(),
    published: boolean().notNull(),
    /** From this instant nothing can be added; dropping has a date of its own. */
    addEndsAt: instant().notNull(),
    /** Until this instant a drop leaves no trace on the record; then a W, until `dropEndsAt`. */
    dropFreeEndsAt: instant().notNull(),
    dropEndsAt: instant().notNull(),
    /** From this instant nobody in line is offered a seat any more. */
    linesCloseAt: instant().notNull(),
    /** Hours for which an offer of a seat stands, and those near the first day of classes. */
    offerHours: smallint().notNull(),
    offerHoursNear: smallint().notNull(),
    /** Until this instant students hand in what they mean to take, before there are sections; null where that is not asked. */
    intentionsDueAt: instant(),
    /** Until this instant those who finish in the term apply to graduate; null where no day is set. */
    graduateBy: instant(),
    paymentDueOn: day().notNull(),
    /** Null where it is not known here what the term costs. */
    prices: json().$type<TermPrices>(),
    loadMost: credits().notNull(),
    /** A course earned with less may be taken again; null where nothing that is earned may. */
    repeatBelow: varchar({ length: 2 }),
    signOffPolicy: mysqlEnum(SIGN_OFF_POLICIES).notNull(),
    waitlistPolicy: mysqlEnum(['offer', 'automatic']).notNull(),
    /** Whether a run sheet may be left to run by itself at its opening. */
    arming: boolean().notNull().default(false),
    /** Terms of registration, accepted once by each student; null where there are none. */
    agreement: text(),
    /** Counts changes of its dates and rules. */
    version: int().notNull().default(1)
  },
  (t) => [uniqueIndex('term_code').on(t.code), check('term_dates', sql`${t.startsOn} < ${t.endsOn}`)]
)

export const session = mysqlTable(
  'session',
  {
    id: id(),
    termId: int()
      .notNull()
      .references(() => term.id),
    code: varchar({ length: 8 }).notNull(),
    name: varchar({ length: 60 }).notNull(),
    half: mysqlEnum(['full', 'first', 'second', 'other']).notNull(),
    startsOn: day().notNull(),
    endsOn: day().notNull(),
    /** Dates of its own, within those of the term; null where they are the term's. */
    addEndsAt: instant(),
    dropFreeEndsAt: instant(),
    dropEndsAt: instant()
  },
  (t) => [
    uniqueIndex('session_code').on(t.termId, t.code),
    check('session_dates', sql`${t.startsOn} <= ${t.endsOn}`)
  ]
)

export const holiday = mysqlTable(
  'holiday',
  {
    id: id(),
    termId: int()
      .notNull()
      .references(() => term.id),
    onDate: day().notNull(),
    name: varchar({ length: 60 }).notNull()
  },
  (t) => [uniqueIndex('holiday_date').on(t.termId, t.onDate)]
)

/** What the campus clock says: standing at an instant, or running on from it. */
export const campusClock = mysqlTable(
  'campus_clock',
  {
    id: int().primaryKey(),
    mode: mysqlEnum(['standing', 'running', 'real']).notNull(),
    campusAt: instant().notNull(),
    setAt: instant().notNull()
  },
  (t) => [check('campus_clock_single', sql`${t.id} = 1`)]
)
