import { sql } from 'drizzle-orm'
import {
  bigint,
  check,
  index,
  int,
  json,
  mysqlEnum,
  mysqlTable,
  uniqueIndex,
  varchar
} from 'drizzle-orm/mysql-core'
import { ENTRY_KINDS, LEDGER_ACCOUNTS, type Posting } from '#core/charges'
import { PAYMENT_STATES } from '#shared/charges/responses'
import { term } from './calendar'
import { id, instant } from './columns'
import { account, student } from './people'

/** Money asked of the cashier for a student's term; once for its key. What was taken stands in the ledger. */
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
    /** In cents. */
    amount: int().notNull(),
    payKey: varchar({ length: 64 }).notNull(),
    at: instant().notNull(),
    /** `asked` as long as the cashier has not answered. */
    state: mysqlEnum(PAYMENT_STATES).notNull(),
    answeredAt: instant(),
    byId: int()
      .notNull()
      .references(() => account.id)
  },
  (t) => [
    uniqueIndex('payment_key').on(t.studentId, t.payKey),
    index('payment_state').on(t.state),
    check('payment_amount', sql`${t.amount} > 0`)
  ]
)

/**
 * What moved from one account to another for a student's term, in cents: see `core/charges`. Rows are added and never
 * changed; the database refuses it.
 */
export const ledgerEntry = mysqlTable(
  'ledger_entry',
  {
    id: bigint({ mode: 'number' }).autoincrement().primaryKey(),
    studentId: int()
      .notNull()
      .references(() => student.id),
    termId: int()
      .notNull()
      .references(() => term.id),
    at: instant().notNull(),
    kind: mysqlEnum(ENTRY_KINDS).notNull(),
    item: varchar({ length: 120 }).$type<Posting['item']>().notNull(),
    assessed: int().notNull(),
    amount: int().notNull(),
    debit: mysqlEnum(LEDGER_ACCOUNTS).notNull(),
    credit: mysqlEnum(LEDGER_ACCOUNTS).notNull(),
    paymentId: int().references(() => payment.id),
    /** Null where a rule of the term did it. */
    byId: int().references(() => account.id)
  },
  (t) => [
    index('ledger_entry_term').on(t.studentId, t.termId, t.item),
    uniqueIndex('ledger_entry_payment').on(t.paymentId),
    check('ledger_entry_amount', sql`${t.amount} >= 0 and ${t.debit} <> ${t.credit}`),
    check(
      'ledger_entry_kind',
      sql`case ${t.kind}
        when 'payment' then ${t.paymentId} is not null and ${t.assessed} = 0 and ${t.credit} = 'student'
        when 'charge' then ${t.assessed} = ${t.amount} and ${t.debit} = 'student'
        else ${t.assessed} < 0 and ${t.amount} <= -${t.assessed} and ${t.credit} = 'student' end`
    )
  ]
)

/** A student was told that something is unpaid. Settled once it is paid, or the seats are given back. */
export const paymentNotice = mysqlTable(
  'payment_notice',
  {
    id: id(),
    studentId: int()
      .notNull()
      .references(() => student.id),
    termId: int()
      .notNull()
      .references(() => term.id),
    at: instant().notNull(),
    settledAt: instant()
  },
  (t) => [index('payment_notice_student').on(t.studentId, t.termId, t.settledAt)]
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
