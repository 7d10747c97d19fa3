import { sql } from 'drizzle-orm'
import { bigint, check, date, index, int, json, mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import { term } from './calendar'
import { id, instant, money } from './columns'
import { account, student } from './people'

export const charge = mysqlTable(
  'charge',
  {
    id: id(),
    studentId: int()
      .notNull()
      .references(() => student.id),
    termId: int()
      .notNull()
      .references(() => term.id),
    title: varchar({ length: 120 }).notNull(),
    amount: money().notNull(),
    dueOn: date({ mode: 'string' }).notNull()
  },
  (t) => [index('charge_student').on(t.studentId)]
)

export const payment = mysqlTable(
  'payment',
  {
    id: id(),
    studentId: int()
      .notNull()
      .references(() => student.id),
    termId: int()
      .notNull()
      .references(() => term.id),
    amount: money().notNull(),
    at: instant().notNull()
  },
  (t) => [index('payment_student').on(t.studentId), check('payment_amount', sql`${t.amount} > 0`)]
)

/** Who did what to whose record. Rows are added and never changed; the database refuses it. */
export const eventLog = mysqlTable(
  'event_log',
  {
    id: bigint({ mode: 'number' }).autoincrement().primaryKey(),
    at: instant().notNull(),
    accountId: int().references(() => account.id),
    studentId: int().references(() => student.id),
    action: varchar({ length: 40 }).notNull(),
    before: json(),
    after: json()
  },
  (t) => [index('event_student').on(t.studentId, t.id)]
)
