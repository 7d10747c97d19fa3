import { appendFileSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gunzipSync } from 'node:zlib'
import mysql from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest'
import { disagreements } from '#server/features/registration/reconcile'
import { connect } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { accountOf, backUp, readAccount, restore } from '../../tools/backup/archive'
import { client } from '../../tools/backup/database'
import { demoWorld, freshDatabase, type World } from './world'

const AT = new Date('2027-04-10T02:00:00Z')
const quiet = { say: () => undefined }
let world: World
let folder: string
let file: string

beforeAll(async () => {
  world = await demoWorld('backup')
  folder = mkdtempSync(join(tmpdir(), 'ridgeway-backup-'))
  file = join(folder, 'whole.sql.gz')
})
afterAll(async () => {
  await world.close()
  rmSync(folder, { recursive: true, force: true })
})

async function ask(url: string, sql: string): Promise<Record<string, unknown>[]> {
  const connection = await mysql.createConnection({ uri: url })
  const [rows] = await connection.query(sql)
  await connection.end()
  return rows as Record<string, unknown>[]
}

describe('a backup', () => {
  it('is written while somebody writes, read back, and told table by table', async () => {
    const said: string[] = []
    const open = await mysql.createConnection({ uri: world.url })
    await open.beginTransaction()
    await open.query("update campus set name = 'Half written' where id = 1")
    const account = await backUp(world.url, file, { at: AT, check: true, say: (line) => said.push(line) })
    await open.rollback()
    await open.end()
    expect(said.at(-1)).toBe('What is in it agrees')
    expect(account.tables!.student!.rows).toBe((await world.db.select().from(t.student)).length)
    expect(readAccount(file)).toEqual(account)
    expect(gunzipSync(readFileSync(file)).includes('Half written')).toBe(false)
    // It holds everybody's record.
    for (const path of [file, accountOf(file)]) expect(statSync(path).mode & 0o077).toBe(0)
    expect(await ask(inject('server'), "show databases like '%\\_check'")).toEqual([])
  })

  it('is not written over another one', async () => {
    await expect(backUp(world.url, file, { at: AT, check: false, ...quiet })).rejects.toThrow(
      'is there already'
    )
  })

  it('gives a database that was lost back: rows, rules and triggers; over another only when asked for', async () => {
    const url = await freshDatabase('backup_lost')
    await ask(url, 'create table kept (id int)')
    await expect(restore(url, file, { replace: false, ...quiet })).rejects.toThrow(
      'holds 1 tables; nothing was changed'
    )
    expect(await ask(url, 'show tables')).toHaveLength(1)
    await restore(url, file, { replace: true, ...quiet })
    expect(await ask(url, "show tables like 'kept'")).toEqual([])
    const sums = async (of: string) =>
      (await ask(of, 'checksum table student, registration, event_log, ledger_entry, planned_course')).map(
        (row) => row.Checksum
      )
    expect(await sums(url)).toEqual(await sums(world.url))
    const triggers = async (of: string) => (await ask(of, 'show triggers')).map((row) => row.Trigger).sort()
    expect(await triggers(url)).toEqual(await triggers(world.url))
    const { db, close } = connect(url, { connections: 1 })
    expect(await disagreements(db)).toEqual([])
    await expect(db.update(t.eventLog).set({ action: 'hold.lifted' })).rejects.toThrow()
    await close()
  })

  it('that was damaged, or is told of wrongly, changes nothing', async () => {
    const url = await freshDatabase('backup_damaged')
    const damaged = join(folder, 'damaged.sql.gz')
    writeFileSync(damaged, readFileSync(file))
    writeFileSync(accountOf(damaged), readFileSync(accountOf(file)))
    appendFileSync(damaged, '\0')
    await expect(restore(url, damaged, { replace: true, ...quiet })).rejects.toThrow('is not what it was')
    writeFileSync(accountOf(damaged), '{ "format": "another" }')
    await expect(restore(url, damaged, { replace: true, ...quiet })).rejects.toThrow('format is wrong')
    rmSync(accountOf(damaged))
    await expect(restore(url, damaged, { replace: true, ...quiet })).rejects.toThrow('There is no')
    expect(await ask(url, 'show tables')).toEqual([])
  })

  it('is kept of a database that does not agree, and says so', async () => {
    const { id } = (await world.db.select({ id: t.section.id }).from(t.section).limit(1))[0]!
    await ask(
      world.url,
      `update section set taken_formerly = taken_formerly, waiting = waiting + 1 where id = ${id}`
    )
    const said: string[] = []
    await backUp(world.url, join(folder, 'torn.sql.gz'), {
      at: AT,
      check: true,
      say: (line) => said.push(line)
    })
    expect(said.at(-1)).toBe('What is in it does not agree: 1 of these')
  })

  it('is none where the program that writes it fails without a word', async () => {
    const talk = () => Promise.resolve()
    await expect(client('false', world.url, [], talk)).rejects.toThrow(
      'false failed: it ended without a word'
    )
    await expect(client('not-there', world.url, [], talk)).rejects.toThrow('not-there failed')
  })

  it('that cannot be read back says what is missing, and is not kept', async () => {
    const server = inject('server')
    const { pathname, host } = new URL(world.url)
    await ask(server, "create or replace user 'narrow' identified by 'narrow'")
    await ask(server, `grant all on \`${pathname.slice(1)}\`.* to 'narrow'`)
    const url = `mysql://narrow:narrow@${host}${pathname}`
    const narrow = join(folder, 'narrow.sql.gz')
    await expect(backUp(url, narrow, { at: AT, check: true, ...quiet })).rejects.toThrow(
      'with --unchecked; nothing was kept'
    )
    expect(() => statSync(narrow)).toThrow()
    expect((await backUp(url, narrow, { at: AT, check: false, ...quiet })).tables).toBeNull()
  })
})
