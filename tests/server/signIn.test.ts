import { eq } from 'drizzle-orm'
import { scryptSync } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Who } from '#shared/accounts/responses'
import { connect, type Connection } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { changePassword, signIn } from '#server/features/accounts/accounts'
import { SignInAttempts } from '#server/features/accounts/attempts'
import { checkPassword, hashPassword } from '#server/features/accounts/password'
import {
  endAll,
  endOthers,
  endSession,
  listSessions,
  openSession,
  sessionOf,
  whenEnded
} from '#server/features/accounts/sessions'
import { Turns } from '#server/features/accounts/turns'
import { demoWorld, person, type World } from './world'

const HOUR = 3_600_000
/** Nobody has to wait. */
const FREE = { begin: () => Promise.resolve(), wasRight: () => Promise.resolve() }

let world: World
let connection: Connection
let imke: Who
let orla: Who
beforeAll(async () => {
  world = await demoWorld('sign_in')
  connection = connect(world.url)
  ;[imke, orla] = [await person(world.db, 'Imke Varga'), await person(world.db, 'Orla Denholt')]
})
afterAll(async () => {
  await connection.close()
  await world.close()
})

const enter = (name: string, password = 'harrowmere') =>
  signIn(world.db, FREE, { name, password, address: '192.0.2.1' })

describe('signing in', () => {
  it('needs the right password and says nothing more', async () => {
    expect(await enter('imke.varga')).toMatchObject({ name: 'Imke Varga', role: 'student' })
    const wrong = await enter('imke.varga', 'wrong').catch((e: Error) => e.message)
    const unknown = await enter('nobody', 'wrong').catch((e: Error) => e.message)
    expect(wrong).toBe(unknown)
  })

  it.each(['Imke.varga', 'imke.varga ', 'ímke.varga', 'imKe.varga', '\u212Ake.varga'])(
    'takes %j for another name',
    async (name) => {
      await expect(enter(name)).rejects.toMatchObject({ status: 401, code: 'signIn' })
    }
  )

  it('keeps a hash of today’s parameters in place of a weaker one', async () => {
    const salt = Buffer.alloc(16, 7)
    const weak = scryptSync('harrowmere', salt, 32, { N: 1024, r: 8, p: 1 })
    const hash = ['scrypt', 1024, 8, 1, salt.toString('base64url'), weak.toString('base64url')].join('$')
    await world.db.update(t.account).set({ passwordHash: hash }).where(eq(t.account.id, imke.id))
    await enter('imke.varga')
    const [row] = await world.db.select().from(t.account).where(eq(t.account.id, imke.id))
    expect(row!.passwordHash).toMatch(/^scrypt\$32768\$8\$1\$/)
    expect(await enter('imke.varga')).toMatchObject({ id: imke.id })
  })

  it('is logged, made or refused, without the password', async () => {
    await enter('orla.denholt')
    await enter('orla.denholt', 'a guess nobody sees').catch(() => undefined)
    const rows = await world.db.select().from(t.eventLog).where(eq(t.eventLog.accountId, orla.id))
    expect(rows.map((row) => row.action)).toEqual(['signIn.made', 'signIn.refused'])
    expect(JSON.stringify(rows)).not.toContain('guess')
  })
})

describe('passwords', () => {
  const check = async (password: string, hash: string | undefined) =>
    (await checkPassword(password, hash, () => Promise.resolve())).isRight

  it('match their hash and nothing else, each with a salt of its own', async () => {
    const [one, two] = await Promise.all([hashPassword('slate 118'), hashPassword('slate 118')])
    expect(one).not.toBe(two)
    expect(await check('slate 118', one)).toBe(true)
    expect(await check('slate 119', one)).toBe(false)
    expect(await check('slate 118', 'plain')).toBe(false)
    expect(await check('', undefined)).toBe(false)
  })

  it('are changed by who knows the present one, for one that is not easy to guess', async () => {
    const change = (present: string, next: string) =>
      changePassword(world.db, FREE, imke, { present, next, address: '192.0.2.1' })
    await expect(change('wrong', 'seven slow barges')).rejects.toMatchObject({ code: 'wrongPassword' })
    for (const next of ['at Harrowmere 27', 'imke likes maps', 'my Password 12'])
      await expect(change('harrowmere', next)).rejects.toMatchObject({
        code: 'weakPassword',
        fields: [{ field: 'next' }]
      })
    await change('harrowmere', 'seven slow barges')
    await expect(enter('imke.varga')).rejects.toMatchObject({ status: 401 })
    expect(await enter('imke.varga', 'seven slow barges')).toMatchObject({ id: imke.id })
  })
})

describe('turns', () => {
  it('are taken by so many at once, in the order of coming; who comes to a full line is asked to come again', async () => {
    const turns = new Turns(2, 3)
    let running = 0
    let most = 0
    const done: number[] = []
    const work = (n: number) =>
      turns.take(async () => {
        most = Math.max(most, ++running)
        await new Promise((resolve) => setImmediate(resolve))
        running--
        done.push(n)
        if (n === 1) throw new Error('failed')
      })
    const outcomes = await Promise.allSettled([0, 1, 2, 3, 4, 5].map(work))
    expect(most).toBe(2)
    expect(done).toEqual([0, 1, 2, 3, 4])
    expect(outcomes[1]).toMatchObject({ status: 'rejected' })
    expect(outcomes[5]).toMatchObject({ reason: { status: 429, code: 'busy', retryAfter: 5 } })
    // Nobody is left waiting, and a turn is free again.
    await work(6)
    expect(done.at(-1)).toBe(6)
  })
})

describe('wrong passwords', () => {
  it('make wait for that name from that address, and for nothing else', async () => {
    const attempts = new SignInAttempts(connection)
    const guess = (name: string, address: string) => attempts.begin(name, address)
    for (let i = 0; i < 5; i++) await guess('bram', '192.0.2.7')
    await expect(guess('bram', '192.0.2.7')).rejects.toMatchObject({ status: 429, code: 'wait' })
    await guess('bram', '192.0.2.8')
    await guess('wren', '192.0.2.7')
    // Another server counts the same.
    await expect(new SignInAttempts(connection).begin('bram', '192.0.2.7')).rejects.toMatchObject({
      code: 'wait'
    })
  })

  it('are forgotten by the right one, which costs nothing', async () => {
    const attempts = new SignInAttempts(connection)
    for (let i = 0; i < 120; i++) {
      await attempts.begin(`student ${i}`, '192.0.2.9')
      await attempts.wasRight(`student ${i}`, '192.0.2.9')
    }
    for (let i = 0; i < 4; i++) await attempts.begin('tamsin', '192.0.2.9')
    await attempts.wasRight('tamsin', '192.0.2.9')
    for (let i = 0; i < 5; i++) await attempts.begin('tamsin', '192.0.2.9')
    await expect(attempts.begin('tamsin', '192.0.2.9')).rejects.toMatchObject({ status: 429 })
  })

  it('keep neither name nor address', async () => {
    const rows = await world.db.select().from(t.signInAttempt)
    expect(rows.length).toBeGreaterThan(3)
    expect(JSON.stringify(rows)).not.toMatch(/bram|tamsin|192\.0/)
  })
})

describe('a session', () => {
  it('is known by its key, which the database does not hold', async () => {
    const key = await openSession(world.db, imke.id, 'Firefox on Linux')
    expect(await sessionOf(world.db, key)).toMatchObject({ who: { name: 'Imke Varga' } })
    expect(await sessionOf(world.db, `${key}x`)).toBeUndefined()
    const rows = await world.db.select().from(t.signedIn)
    expect(JSON.stringify(rows)).not.toContain(key)
  })

  it('is over for a copied key at the moment it is ended, and for a stream that it opened', async () => {
    const key = await openSession(world.db, imke.id, 'Firefox on Linux')
    const { id } = (await sessionOf(world.db, key))!
    let closed = false
    const unhear = whenEnded(id, () => (closed = true))
    expect(await endSession(world.db, orla.id, id)).toBe(0)
    expect(await sessionOf(world.db, key)).toBeDefined()
    expect(await endSession(world.db, imke.id, id)).toBe(1)
    expect(await sessionOf(world.db, key)).toBeUndefined()
    expect(closed).toBe(true)
    unhear()
  })

  it('does not come back by a read that was under way when it ended', async () => {
    const key = await openSession(world.db, imke.id, 'Firefox on Linux')
    const { id } = (await sessionOf(world.db, key))!
    const later = Date.now() + 3000
    await Promise.all([sessionOf(world.db, key, later), endSession(world.db, imke.id, id)])
    expect(await sessionOf(world.db, key, later)).toBeUndefined()
  })

  it('ends by itself: unused, and after so long in all; staff sooner than students', async () => {
    const start = Date.now()
    const student = await openSession(world.db, imke.id, 'A', start)
    const advisor = await openSession(world.db, orla.id, 'A', start)
    expect(await sessionOf(world.db, student, start + 15 * HOUR)).toBeDefined()
    expect(await sessionOf(world.db, advisor, start + HOUR)).toBeDefined()
    // Used an hour ago, and two hours ago.
    expect(await sessionOf(world.db, advisor, start + 2.9 * HOUR)).toBeDefined()
    expect(await sessionOf(world.db, advisor, start + 5 * HOUR)).toBeUndefined()
    // A stream that stays open does not keep anybody signed in.
    const idle = await openSession(world.db, orla.id, 'A', start)
    for (let at = 0.5; at < 2; at += 0.5)
      expect(await sessionOf(world.db, idle, start + at * HOUR, false)).toBeDefined()
    expect(await sessionOf(world.db, idle, start + 2.1 * HOUR, false)).toBeUndefined()
    let last = start + 15 * HOUR
    for (; last < start + 7 * 24 * HOUR; last += 15 * HOUR)
      expect(await sessionOf(world.db, student, last)).toBeDefined()
    expect(await sessionOf(world.db, student, last)).toBeUndefined()
  })

  it('is listed by its owner, who ends the others or all', async () => {
    await endAll(world.db, imke.id)
    const keys = [
      await openSession(world.db, imke.id, 'Firefox on Linux', Date.now() - 5000),
      await openSession(world.db, imke.id, 'Chrome on Android')
    ]
    const here = (await sessionOf(world.db, keys[0]!))!
    expect(await listSessions(world.db, here)).toMatchObject([
      { browser: 'Chrome on Android', here: false },
      { browser: 'Firefox on Linux', here: true }
    ])
    expect(await endOthers(world.db, imke.id, here.id)).toBe(1)
    expect(await sessionOf(world.db, keys[1]!)).toBeUndefined()
    expect(await sessionOf(world.db, keys[0]!)).toBeDefined()
    expect(await endAll(world.db, imke.id)).toBe(1)
    expect(await sessionOf(world.db, keys[0]!)).toBeUndefined()
  })
})
