import { sql } from 'drizzle-orm'
import {
  boolean,
  check,
  date,
  index,
  int,
  mysqlEnum,
  mysqlTable,
  smallint,
  uniqueIndex,
  varchar
} from 'drizzle-orm/mysql-core'
import { APPOINTMENT_STATES, TALKED_HOW } from '#shared/appointments/appointments'
import { id, instant } from './columns'
import { account, advisor, student } from './people'

/** Hours that an advisor offers, every week or once; minutes of the day on campus. */
export const offeredTime = mysqlTable(
  'offered_time',
  {
    id: id(),
    advisorId: int()
      .notNull()
      .references(() => advisor.id),
    /** 1 is Monday; null for what is offered once. */
    weekday: smallint(),
    onDate: date({ mode: 'string' }),
    startsMin: smallint().notNull(),
    endsMin: smallint().notNull(),
    /** Of one slot. */
    lengthMin: smallint().notNull(),
    place: varchar({ length: 160 }).notNull(),
    /** Of what is offered every week, the first and the last date. */
    fromDate: date({ mode: 'string' }),
    untilDate: date({ mode: 'string' })
  },
  (t) => [
    index('offered_time_advisor').on(t.advisorId),
    check('offered_time_when', sql`(${t.weekday} is null) <> (${t.onDate} is null)`),
    check('offered_time_hours', sql`${t.startsMin} + ${t.lengthMin} <= ${t.endsMin}`)
  ]
)

/** Dates on which an advisor is away and offers nothing, both included; and who stands in, if anybody. */
export const advisorAway = mysqlTable(
  'advisor_away',
  {
    id: id(),
    advisorId: int()
      .notNull()
      .references(() => advisor.id),
    fromDate: date({ mode: 'string' }).notNull(),
    toDate: date({ mode: 'string' }).notNull(),
    standInId: int().references(() => advisor.id)
  },
  (t) => [
    index('advisor_away_advisor').on(t.advisorId),
    check('advisor_away_other', sql`${t.standInId} is null or ${t.standInId} <> ${t.advisorId}`),
    check('advisor_away_order', sql`${t.fromDate} <= ${t.toDate}`)
  ]
)

export const appointment = mysqlTable(
  'appointment',
  {
    id: id(),
    studentId: int()
      .notNull()
      .references(() => student.id),
    advisorId: int()
      .notNull()
      .references(() => advisor.id),
    startsAt: instant().notNull(),
    endsAt: instant().notNull(),
    place: varchar({ length: 160 }).notNull(),
    about: varchar({ length: 400 }),
    /** What the student should bring. */
    bring: varchar({ length: 400 }),
    state: mysqlEnum(APPOINTMENT_STATES).notNull(),
    /** True while it takes its time, null once it does not: no two of an advisor begin together. */
    active: boolean(),
    /** How often it was changed, as calendars count it. */
    sequence: smallint().notNull().default(0),
    changedById: int()
      .notNull()
      .references(() => account.id),
    changedAt: instant().notNull(),
    /** What was said when it was declined or cancelled. */
    words: varchar({ length: 400 }),
    remindedAt: instant()
  },
  (t) => [
    uniqueIndex('appointment_once').on(t.advisorId, t.startsAt, t.active),
    index('appointment_student').on(t.studentId, t.startsAt),
    index('appointment_due').on(t.active, t.startsAt),
    check('appointment_order', sql`${t.startsAt} < ${t.endsAt}`),
    check(
      'appointment_active',
      sql`(${t.state} in ('invited', 'booked')) = (${t.active} is not null) and (${t.active} is null or ${t.active} = true)`
    )
  ]
)

/** The private address at which an advisor's appointments are read by a calendar program. */
export const advisorCalendar = mysqlTable(
  'advisor_calendar',
  {
    advisorId: int()
      .primaryKey()
      .references(() => advisor.id),
    key: varchar({ length: 40 }).notNull(),
    madeAt: instant().notNull()
  },
  (t) => [uniqueIndex('advisor_calendar_key').on(t.key)]
)

/** That student and advisor have spoken: when, how, and the advisor's summary, which the student reads too. */
export const talkRecord = mysqlTable(
  'talk_record',
  {
    id: id(),
    studentId: int()
      .notNull()
      .references(() => student.id),
    byId: int()
      .notNull()
      .references(() => account.id),
    onDate: date({ mode: 'string' }).notNull(),
    how: mysqlEnum(TALKED_HOW).notNull(),
    summary: varchar({ length: 2000 }).notNull(),
    writtenAt: instant().notNull()
  },
  (t) => [index('talk_record_student').on(t.studentId)]
)
