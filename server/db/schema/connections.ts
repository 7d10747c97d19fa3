import {
  bigint,
  char,
  index,
  int,
  json,
  mysqlEnum,
  mysqlTable,
  text,
  uniqueIndex,
  varchar
} from 'drizzle-orm/mysql-core'
import type { ChosenType, EventType } from '#shared/connections/events'
import type { Scope } from '#shared/connections/scopes'
import { id, instant } from './columns'
import { account } from './people'

/** A key by which a program of an office asks in a name of its own; times are the machine's. */
export const serviceToken = mysqlTable(
  'service_token',
  {
    id: id(),
    /** As whom it asks: nobody signs in with that account. */
    accountId: int()
      .notNull()
      .references(() => account.id),
    /** SHA-256 of the key. */
    keyHash: char({ length: 64 }).notNull(),
    scopes: json().$type<Scope[]>().notNull(),
    madeById: int()
      .notNull()
      .references(() => account.id),
    madeAt: instant().notNull(),
    expiresAt: instant().notNull(),
    usedAt: instant()
  },
  (t) => [
    uniqueIndex('service_token_key').on(t.keyHash),
    uniqueIndex('service_token_account').on(t.accountId)
  ]
)

/** An address of another system that is told what has changed. */
export const webhook = mysqlTable('webhook', {
  id: id(),
  name: varchar({ length: 80 }).notNull(),
  address: varchar({ length: 300 }).notNull(),
  /** What signs: the other system holds the same. */
  secret: varchar({ length: 80 }).notNull(),
  types: json().$type<ChosenType[]>().notNull(),
  madeById: int()
    .notNull()
    .references(() => account.id),
  madeAt: instant().notNull(),
  endedAt: instant(),
  /** The number of the news up to which there is a delivery of everything. */
  heardUpTo: bigint({ mode: 'number' }).notNull()
})

/** Something that a webhook is told, until it is known to have arrived. */
export const delivery = mysqlTable(
  'delivery',
  {
    id: id(),
    webhookId: int()
      .notNull()
      .references(() => webhook.id),
    /** By which the other system knows it when it comes twice. */
    reference: varchar({ length: 40 }).notNull(),
    type: varchar({ length: 24 }).$type<EventType>().notNull(),
    /** As it is signed and sent. */
    body: text().notNull(),
    state: mysqlEnum(['waiting', 'delivered', 'givenUp']).notNull(),
    madeAt: instant().notNull(),
    tries: int().notNull(),
    nextAt: instant().notNull(),
    answer: varchar({ length: 160 })
  },
  (t) => [
    uniqueIndex('delivery_reference').on(t.reference),
    index('delivery_due').on(t.state, t.nextAt),
    index('delivery_of').on(t.webhookId, t.id)
  ]
)
