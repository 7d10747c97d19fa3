/** How accounts sign in: links, the second step, where they are signed in, wrong passwords. */
import { bigint, char, index, int, json, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { id, instant } from './columns'
import { account } from './people'

/** A link by which somebody sets the password of an account, once; times are the machine's. */
export const invitation = mysqlTable(
  'invitation',
  {
    accountId: int()
      .primaryKey()
      .references(() => account.id),
    /** SHA-256 of the key in the link. */
    keyHash: char({ length: 64 }).notNull(),
    expiresAt: instant().notNull()
  },
  (t) => [uniqueIndex('invitation_key').on(t.keyHash)]
)

/** The second step of signing in: codes of an app (RFC 6238), and some that are written down. Times are the machine's. */
export const secondStep = mysqlTable('second_step', {
  accountId: int()
    .primaryKey()
    .references(() => account.id),
  /** Shared with the app, in base 32: codes are worked out from it on both sides. */
  secret: varchar({ length: 64 }).notNull(),
  /** Until a code of it was given it asks for nothing. */
  confirmedAt: instant(),
  /** The last half minute of which a code was taken: none is taken twice. */
  lastStep: bigint({ mode: 'number' }).notNull().default(0),
  /** SHA-256 of the codes that are written down and not used yet. */
  spareHashes: json().$type<string[]>().notNull()
})

/** Where an account is signed in; times are the machine's. */
export const signedIn = mysqlTable(
  'signed_in',
  {
    id: id(),
    accountId: int()
      .notNull()
      .references(() => account.id),
    /** SHA-256 of the key that the browser holds. */
    keyHash: char({ length: 64 }).notNull(),
    signedInAt: instant().notNull(),
    /** The last request, to the minute. */
    seenAt: instant().notNull(),
    browser: varchar({ length: 80 }).notNull()
  },
  (t) => [
    uniqueIndex('signed_in_key').on(t.keyHash),
    index('signed_in_account').on(t.accountId),
    index('signed_in_at').on(t.signedInAt)
  ]
)

/** Wrong passwords, counted by hashes of name and address; written by the rate limiter's package in its own form. */
export const signInAttempt = mysqlTable('sign_in_attempt', {
  key: varchar({ length: 255 }).primaryKey(),
  points: int().notNull().default(0),
  expire: bigint({ mode: 'number', unsigned: true })
})
