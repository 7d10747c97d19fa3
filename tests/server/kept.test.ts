/** What somebody is handed of all that is kept of them: complete, without keys, and without what is said among advisors. */
import { eq, getTableColumns } from 'drizzle-orm'
import { getTableConfig, MySqlTable } from 'drizzle-orm/mysql-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { remarkBody } from '#shared/advising/requests'
import * as t from '#server/db/schema/index'
import { keptOf, LEFT_OUT, PARTS } from '#server/features/accounts/kept'
import { addRemark } from '#server/features/advising/talk'
import { at, demoWorld, idOf, person, within, type World } from './world'

let world: World
beforeAll(async () => {
  world = await demoWorld('kept')
})
afterAll(() => world.close())

const TABLES = (Object.values(t) as unknown[]).filter((one): one is MySqlTable => one instanceof MySqlTable)
const nameOf = (table: MySqlTable) => getTableConfig(table).name

it('forgets no table: whatever is of a person, or part of such a thing, is handed over or left out by name', () => {
  const own = TABLES.filter((table) => {
    const { studentId, accountId } = getTableColumns(table)
    return studentId !== undefined || accountId !== undefined
  })
  const handed = new Set([...own, ...PARTS.map(([part]) => part), ...LEFT_OUT])
  const forgotten = TABLES.filter((table) => !handed.has(table)).flatMap((table) =>
    getTableConfig(table)
      .foreignKeys.map((key) => key.reference().foreignTable as MySqlTable)
      .filter((whole) => handed.has(whole) && whole !== t.student && whole !== t.advisor)
      .map((whole) => `${nameOf(table)} of ${nameOf(whole)}`)
  )
  // Who opened a class session to a group; the group's members are handed over.
  expect(forgotten).toEqual([])
})

describe('what a student is handed', () => {
  it('is their record, what they did and what was done with it, with names for numbers', async () => {
    const imke = await person(world.db, 'Imke Varga')
    const tables = await keptOf(world.db, imke)
    expect(tables.student).toMatchObject([{ number: 'H204007' }])
    expect(tables.record_course).toContainEqual(
      expect.objectContaining({ course: 'ENDA 110', grade: 'B+', term: expect.stringMatching(/^AU2\d$/) })
    )
    expect(tables.advising).toContainEqual(expect.objectContaining({ advisor: 'Orla Denholt' }))
    expect(tables.planned_course!.length).toBeGreaterThan(5)
    expect(tables.student_program).toContainEqual(expect.objectContaining({ programVersion: 'ENVD 2025-26' }))
    const rows = Object.values(tables).flat()
    expect(rows.filter((row) => 'studentId' in row && row.studentId !== imke.student)).toEqual([])
  })

  it('holds no key or hash, and nothing that advisors say among each other', async () => {
    const [imke, nell] = [await person(world.db, 'Imke Varga'), await person(world.db, 'Nell Fairweather')]
    const { now } = await at(world)
    const said = remarkBody.parse({
      ...{ to: 'matter', about: { is: 'route', key: null }, advisorsOnly: true, text: 'the lantern is lit' }
    })
    await within(world, (tx) =>
      addRemark(tx, { who: nell, student: idOf(imke), now, relation: 'supportAdvisor' }, said)
    )
    const tables = await keptOf(world.db, imke)
    const text = JSON.stringify(tables)
    expect(text).not.toContain('the lantern is lit')
    expect(text).not.toContain('amongAdvisors')
    const [account] = await world.db.select().from(t.account).where(eq(t.account.id, imke.id))
    expect(text).not.toContain(account!.passwordHash)
    const names = new Set(Object.values(tables).flatMap((rows) => rows.flatMap((row) => Object.keys(row))))
    expect([...names].filter((name) => /hash|secret|key$/i.test(name) && name !== 'aboutKey')).toEqual([])
  })
})

it('of somebody of the staff is their account and what they did', async () => {
  const tables = await keptOf(world.db, await person(world.db, 'Orla Denholt'))
  expect(tables.account).toMatchObject([{ name: 'Orla Denholt' }])
  expect(Object.keys(tables)).not.toContain('record_course')
})
