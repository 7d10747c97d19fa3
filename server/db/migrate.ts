/** Brings a database up to date. Two servers may start together: one migrates, the other waits. */
import { drizzle } from 'drizzle-orm/mysql2'
import { migrate } from 'drizzle-orm/mysql2/migrator'
import { fileURLToPath } from 'node:url'
import mysql from 'mysql2/promise'

const FOLDER = fileURLToPath(new URL('./migrations', import.meta.url))
const LOCK = 'ridgeway-migrate'
const WAIT_SECONDS = 60

export async function migrateDatabase(url: string): Promise<void> {
  const connection = await mysql.createConnection({ uri: url, timezone: 'Z' })
  try {
    const [rows] = await connection.query('select get_lock(?, ?) as held, database() as name', [
      LOCK,
      WAIT_SECONDS
    ])
    const { held, name } = (rows as { held: number; name: string }[])[0]!
    if (held !== 1)
      throw new Error(`another server has been changing the database for over ${WAIT_SECONDS} seconds`)
    await connection.query('alter database ?? character set utf8mb4 collate utf8mb4_uca1400_ai_ci', [name])
    await migrate(drizzle(connection), { migrationsFolder: FOLDER })
    await connection.query('select release_lock(?)', [LOCK])
  } finally {
    await connection.end()
  }
}
