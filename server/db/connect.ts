/** Connections to MariaDB, and the two guards that every query goes through. */
import { and, DrizzleQueryError, type SQL } from 'drizzle-orm'
import { drizzle, type MySql2Database } from 'drizzle-orm/mysql2'
import type { Pool as CorePool } from 'mysql2'
import mysql from 'mysql2/promise'
import * as schema from './schema'

export type Database = MySql2Database<typeof schema>
export type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0]
/** Reads may run in or outside a transaction. */
export type Reader = Database | Transaction

export interface Connection {
  db: Database
  /** The pool itself and the database's name, for packages that write their own statements. */
  pool: CorePool
  name: string
  close: () => Promise<void>
}

/** Seconds for which a statement waits for a lock, and who is told of each statement. */
interface ConnectionWishes {
  connections?: number
  lockWait?: number
  logQuery?: (statement: string) => void
}

export function connect(
  url: string,
  { connections = 12, lockWait = 10, logQuery }: ConnectionWishes = {}
): Connection {
  const pool = mysql.createPool({
    uri: url,
    connectionLimit: connections,
    timezone: 'Z',
    supportBigNumbers: true
  })
  pool.pool.on('connection', (connection) => {
    // Locking reads see what others committed; strict mode refuses what does not fit.
    connection.query(
      "set session sql_mode = 'STRICT_ALL_TABLES,NO_ZERO_DATE,NO_ZERO_IN_DATE,ERROR_FOR_DIVISION_BY_ZERO', " +
        "session time_zone = '+00:00', session tx_isolation = 'READ-COMMITTED', " +
        `session innodb_lock_wait_timeout = ${lockWait}`
    )
  })
  const db = drizzle(pool, {
    schema,
    mode: 'default',
    casing: 'snake_case',
    logger: logQuery && { logQuery }
  })
  return { db, pool: pool.pool, name: new URL(url).pathname.slice(1), close: () => pool.end() }
}

/** A failed query, without its parameters: they are personal data. */
export class DatabaseError extends Error {
  constructor(
    readonly code: string,
    message: string
  ) {
    super(message)
    this.name = 'DatabaseError'
  }
}

const DEADLOCK = 'ER_LOCK_DEADLOCK'
const ATTEMPTS = 8

/** Runs a service's work in one transaction. */
export function inTransaction<T>(db: Database, work: (tx: Transaction) => Promise<T>): Promise<T> {
  return untilThrough(() => db.transaction(work))
}

/**
 * Runs one transaction, or one statement by itself. A deadlock victim has changed nothing and is run again,
 * a bounded number of times; other failures come out as DatabaseError.
 */
export async function untilThrough<T>(work: () => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await work()
    } catch (error) {
      const known = withoutParameters(error)
      if (known instanceof DatabaseError && known.code === DEADLOCK && attempt < ATTEMPTS) continue
      throw known
    }
  }
}

/** MariaDB's number for a broken CHECK; the driver knows it by the name another server gave it. */
const CHECK_FAILED = 4025

/** The error as it may be logged and shown. */
export function withoutParameters(error: unknown): unknown {
  if (!(error instanceof DrizzleQueryError)) return error
  const cause = error.cause as { code?: string; errno?: number } | undefined
  const code = cause?.errno === CHECK_FAILED ? 'ER_CONSTRAINT_FAILED' : (cause?.code ?? 'UNKNOWN')
  return new DatabaseError(code, `the database refused a statement (${code})`)
}

/** All conditions together. Refuses a missing one: a lost condition would write to every row. */
export function all(...conditions: (SQL | undefined)[]): SQL {
  if (!conditions.length || conditions.some((condition) => condition === undefined)) {
    throw new TypeError('expected every condition to be given')
  }
  return and(...conditions)!
}
