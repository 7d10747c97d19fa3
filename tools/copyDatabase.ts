/** A database copied within one server: what takes seconds to load is loaded once and copied for each test file. */
import mysql, { type RowDataPacket } from 'mysql2/promise'

/** Copies tables with their constraints and triggers, and all rows, into a new database; `server` is its address without one. */
export async function copyDatabase(server: string, from: string, to: string): Promise<void> {
  const connection = await mysql.createConnection({ uri: server })
  const first = async (sql: string, values: unknown[]) =>
    (await connection.query<RowDataPacket[]>(sql, values))[0].map((row) => Object.values(row) as string[])
  try {
    await connection.query('drop database if exists ??', [to])
    await connection.query('create database ?? character set utf8mb4 collate utf8mb4_uca1400_ai_ci', [to])
    await connection.query('use ??', [to])
    await connection.query('set foreign_key_checks = 0, unique_checks = 0')
    const names = (sql: string) => first(sql, [from]).then((rows) => rows.map(([name]) => name!))
    for (const table of await names('show tables from ??')) {
      const [shown] = await first('show create table ??.??', [from, table])
      await connection.query(shown![1]!)
      await connection.query('insert into ?? select * from ??.??', [table, from, table])
    }
    for (const trigger of await names('show triggers from ??')) {
      const [shown] = await first('show create trigger ??.??', [from, trigger])
      // The definition says who made it; whoever copies it makes it anew.
      await connection.query(shown![2]!.replace(/^CREATE DEFINER=\S+ /, 'CREATE '))
    }
  } finally {
    await connection.end()
  }
}
