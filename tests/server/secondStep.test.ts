/** The second step of signing in: codes by the standard, each good once; spare ones; what takes it off. */
import { eq } from 'drizzle-orm'
import { Secret, TOTP } from 'otpauth'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/db/schema/index'
import { signIn } from '#server/features/accounts/accounts'
import { keptOf } from '#server/features/accounts/kept'
import {
  beginSecondStep,
  confirmSecondStep,
  dropSecondStep,
  needsSecondStep,
  readSecondStep,
  stepOf
} from '#server/features/accounts/secondStep'
import { inviteAgain } from '#server/features/accounts/staff'
import { settingsIn } from '#server/settings'
import type { Who } from '#shared/accounts/responses'
import { demoWorld, person, within, type World } from './world'

const FREE = { begin: () => Promise.resolve(), wasRight: () => Promise.resolve() }
let world: World
let orla: Who
beforeAll(async () => {
  world = await demoWorld('second_step')
  orla = await person(world.db, 'Orla Denholt')
})
afterAll(() => world.close())

const enter = (code?: string, password = 'harrowmere') =>
  signIn(world.db, FREE, { name: 'orla.denholt', password, code, address: '192.0.2.1' })
const codeAt = (secret: string, at: number) =>
  new TOTP({ secret: Secret.fromBase32(secret), digits: 6, period: 30 }).generate({ timestamp: at })

describe('a code', () => {
  // RFC 6238, appendix B: SHA-1, the key "12345678901234567890"; the last six of its eight digits.
  it.each([
    [59, '287082'],
    [1_111_111_109, '081804'],
    [1_111_111_111, '050471'],
    [1_234_567_890, '005924'],
    [2_000_000_000, '279037'],
    [20_000_000_000, '353130']
  ])('at second %i is that of the standard', (second, code) => {
    const secret = Secret.fromLatin1('12345678901234567890').base32
    expect(stepOf(secret, code, second * 1000)).toBe(Math.floor(second / 30))
    // Half a minute off on either side is taken, a minute is not.
    expect(stepOf(secret, code, (second + 30) * 1000)).toBe(Math.floor(second / 30))
    expect(stepOf(secret, code, (second + 90) * 1000)).toBeUndefined()
    expect(
      stepOf(
        secret,
        code.replace(/.$/, (digit) => String((Number(digit) + 1) % 10)),
        second * 1000
      )
    ).toBeUndefined()
  })
})

describe('the second step', () => {
  const setUp = async () => {
    const { secret, address } = await within(world, (tx) => beginSecondStep(tx, orla.id))
    const now = Date.now()
    const spare = await within(world, (tx) => confirmSecondStep(tx, orla.id, codeAt(secret, now), now))
    return { secret, address, spare, now }
  }
  const off = () => within(world, (tx) => dropSecondStep(tx, orla.id, orla.id))

  it('asks for nothing until a code of the app was given', async () => {
    const { secret, address } = await within(world, (tx) => beginSecondStep(tx, orla.id))
    expect(address).toMatch(/^otpauth:\/\/totp\/Ridgeway%20Harrowmere%20College:orla\.denholt\?/)
    expect(await enter()).toMatchObject({ name: 'Orla Denholt' })
    const wrong = within(world, (tx) => confirmSecondStep(tx, orla.id, '000000', 0))
    await expect(wrong).rejects.toMatchObject({ code: 'wrongCode', fields: [{ field: 'code' }] })
    expect(await readSecondStep(world.db, orla.id)).toEqual({ since: null, spareLeft: 0 })
    expect(secret).toMatch(/^[A-Z2-7]{32}$/)
  })

  it('takes a code once, says nothing of it before the password is right, and stays off the record handed out', async () => {
    const { secret, now } = await setUp()
    await expect(enter()).rejects.toMatchObject({ status: 401, code: 'secondStep' })
    await expect(enter('123456', 'wrong')).rejects.toMatchObject({ code: 'signIn' })
    await expect(enter(codeAt(secret, now))).rejects.toMatchObject({ code: 'codeTaken' })
    const next = codeAt(secret, now + 30_000)
    expect(await enter(`${next.slice(0, 3)} ${next.slice(3)}`)).toMatchObject({ name: 'Orla Denholt' })
    await expect(enter(next)).rejects.toMatchObject({ code: 'codeTaken' })
    const told = JSON.stringify(await keptOf(world.db, orla))
    expect(told).toContain('second_step')
    expect(told).not.toContain(secret)
    expect(told).not.toContain('Hashes')
    await off()
    expect(await enter()).toMatchObject({ name: 'Orla Denholt' })
  })

  it('takes each of the written codes once, however they are written', async () => {
    const { spare } = await setUp()
    expect(new Set(spare).size).toBe(8)
    for (const one of spare) expect(one).toMatch(/^[a-z2-9]{5}-[a-z2-9]{5}$/)
    expect(await enter(spare[0]!.toUpperCase().replace('-', ' '))).toMatchObject({ name: 'Orla Denholt' })
    await expect(enter(spare[0])).rejects.toMatchObject({ code: 'wrongCode' })
    const both = await Promise.allSettled([enter(spare[1]), enter(spare[1])])
    expect(both.filter((one) => one.status === 'fulfilled')).toHaveLength(1)
    expect(await readSecondStep(world.db, orla.id)).toMatchObject({ spareLeft: 6 })
    await off()
  })

  it('is asked of the staff where that is set, of those with a password', async () => {
    const staff = settingsIn({ RIDGEWAY_SECOND_STEP: 'staff' })
    const asked = (who: Who, of = staff) => needsSecondStep(world.db, who, of)
    const imke = await person(world.db, 'Imke Varga')
    expect([await asked(orla), await asked(imke), await asked(orla, settingsIn({}))]).toEqual([
      true,
      false,
      false
    ])
    await setUp()
    expect(await asked(orla)).toBe(false)
    await off()
    const [before] = await world.db.select().from(t.account).where(eq(t.account.id, orla.id))
    await world.db.update(t.account).set({ passwordHash: '' }).where(eq(t.account.id, orla.id))
    expect(await asked(orla)).toBe(false)
    await world.db.update(t.account).set(before!).where(eq(t.account.id, orla.id))
  })

  it('is set up once, and taken off by the office with a new link', async () => {
    await setUp()
    const again = within(world, (tx) => beginSecondStep(tx, orla.id))
    await expect(again).rejects.toMatchObject({ code: 'secondStepStands' })
    const edda = await person(world.db, 'Edda Whitlock')
    await within(world, (tx) => inviteAgain(tx, edda, orla.id))
    expect(await enter()).toMatchObject({ name: 'Orla Denholt' })
    const logged = await world.db
      .select({ by: t.eventLog.accountId, after: t.eventLog.after })
      .from(t.eventLog)
      .where(eq(t.eventLog.action, 'secondStep.turnedOff'))
    expect(logged.at(-1)).toEqual({ by: edda.id, after: { account: orla.id } })
  })
})
