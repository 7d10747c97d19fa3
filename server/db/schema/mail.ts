import {
  bigint,
  index,
  int,
  mysqlEnum,
  mysqlTable,
  primaryKey,
  smallint,
  uniqueIndex
} from 'drizzle-orm/mysql-core'
import { MAIL_CHOICES, MAIL_TOPICS } from '#shared/mail/choices'
import { MAIL_STATES } from '#shared/mail/responses'
import { id, instant } from './columns'
import { eventLog } from './ledger'
import { account } from './people'

/** Mails to be sent, written with what they tell of: an entry of the log, from which their words come. */
export const mail = mysqlTable(
  'mail',
  {
    id: id(),
    accountId: int()
      .notNull()
      .references(() => account.id),
    eventId: bigint({ mode: 'number' })
      .notNull()
      .references(() => eventLog.id),
    state: mysqlEnum(MAIL_STATES).notNull().default('waiting'),
    tries: smallint().notNull().default(0),
    /** By the machine's clock. */
    nextTryAt: instant().notNull(),
    sentAt: instant()
  },
  (t) => [
    uniqueIndex('mail_once').on(t.eventId, t.accountId),
    index('mail_due').on(t.state, t.nextTryAt),
    index('mail_account').on(t.accountId, t.id)
  ]
)

/** What somebody has chosen to be mailed; what is not named is mailed at once. */
export const mailChoice = mysqlTable(
  'mail_choice',
  {
    accountId: int()
      .notNull()
      .references(() => account.id),
    topic: mysqlEnum(MAIL_TOPICS).notNull(),
    choice: mysqlEnum(MAIL_CHOICES).notNull()
  },
  (t) => [primaryKey({ columns: [t.accountId, t.topic] })]
)
