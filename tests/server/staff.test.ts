/** Accounts of the staff: invited by a link that holds once and for a week, and ended. */
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { invitationBody } from '#shared/accounts/requests'
import type { Who } from '#shared/accounts/responses'
import * as t from '#server/db/schema/index'
import { signIn } from '#server/features/accounts/accounts'
import { openSession, sessionOf } from '#server/features/accounts/sessions'
import {
  endAccount,
  invite,
  inviteAgain,
  inviteFirst,
  invited,
  join,
  readStaff
} from '#server/features/accounts/staff'
import { demoWorld, person, within, type World } from './world'

let world: World
let edda: Who & { id: number }
beforeAll(async () => {
  world = await demoWorld('staff')
  edda = await person(world.db, 'Edda Whitlock')
})
afterAll(() => world.close())

const ALLOWED = { begin: () => Promise.resolve(), wasRight: () => Promise.resolve() }
const enter = (name: string, password: string) =>
  signIn(world.db, ALLOWED, { name, password, address: '192.0.2.7' })
const ask = (over: object = {}) =>
  within(world, (tx) =>
    invite(
      tx,
      edda,
      invitationBody.parse({
        ...{ name: 'Vesna Aldous', signIn: 'vesna.aldous', role: 'registrar' },
        ...{ mail: 'vesna.aldous@harrowmere.example', ...over }
      })
    )
  )
const named = async (signIn: string) =>
  (await readStaff(world.db)).people.find((one) => one.signIn === signIn)!
const PASSWORD = 'a long and winding lane'

describe('an invitation', () => {
  it('makes an account that nobody signs in with until its link has set a password, once', async () => {
    const key = await ask()
    expect(await named('vesna.aldous')).toMatchObject({ state: 'invited', role: 'registrar', advises: 0 })
    await expect(enter('vesna.aldous', '')).rejects.toThrow('do not belong together')
    await expect(join(world.db, key, 'my aldous password')).rejects.toThrow('easy to guess')
    expect(await join(world.db, key, PASSWORD)).toMatchObject({ name: 'Vesna Aldous', role: 'registrar' })
    expect(await named('vesna.aldous')).toMatchObject({ state: 'active', linkUntil: null })
    expect(await enter('vesna.aldous', PASSWORD)).toMatchObject({ name: 'Vesna Aldous' })
    await expect(join(world.db, key, PASSWORD)).rejects.toThrow('was used')
  })
  it('is set by one of two who use its link at once', async () => {
    const key = await ask({ signIn: 'two.hands', name: 'Two Hands' })
    const both = await Promise.allSettled([
      join(world.db, key, PASSWORD),
      join(world.db, key, `${PASSWORD} more`)
    ])
    expect(both.map((one) => one.status).sort()).toEqual(['fulfilled', 'rejected'])
  })
  it('runs out after a week, and a new link takes the place of the one before', async () => {
    const key = await ask({ signIn: 'late.comer', name: 'Late Comer' })
    const week = 7 * 24 * 3_600_000
    await expect(invited(world.db, key, Date.now() + week + 1000)).rejects.toThrow('has run out')
    const { id } = await named('late.comer')
    const next = await within(world, (tx) => inviteAgain(tx, edda, id))
    await expect(invited(world.db, key)).rejects.toThrow('was used')
    expect((await invited(world.db, next)).id).toBe(id)
  })
  it('says for whom somebody acts where the role asks for it, and takes no name twice', async () => {
    await expect(ask({ signIn: 'a.dept', role: 'department' })).rejects.toThrow('for which department')
    const { departments } = await readStaff(world.db)
    await ask({ signIn: 'a.dept', role: 'department', department: departments[0]!.id })
    expect((await named('a.dept')).actsFor).toBe(departments[0]!.name)
    await expect(ask({ signIn: 'a.dept' })).rejects.toThrow('already')
    expect(invitationBody.safeParse({ role: 'student' }).error?.issues.map((one) => one.path[0])).toContain(
      'role'
    )
  })
  it('of an advisor can be given students', async () => {
    await ask({ signIn: 'new.advisor', name: 'New Advisor', role: 'programAdvisor' })
    const { id } = await named('new.advisor')
    const rows = await world.db.select().from(t.advisor).where(eq(t.advisor.accountId, id))
    expect(rows).toHaveLength(1)
  })
})

describe('the first of the registrar’s office', () => {
  it('comes in by a link that is told until it is used, and by none where somebody signs in', async () => {
    expect(await inviteFirst(world.db)).toBeUndefined()
    const other = await demoWorld('first')
    await other.db.update(t.account).set({ endedAt: new Date() }).where(eq(t.account.role, 'registrar'))
    const before = await inviteFirst(other.db)
    const key = await inviteFirst(other.db)
    await expect(invited(other.db, before!)).rejects.toThrow('was used')
    expect(await join(other.db, key!, PASSWORD)).toMatchObject({ role: 'registrar', student: null })
    expect(await inviteFirst(other.db)).toBeUndefined()
    const office = (await readStaff(other.db)).people.filter((one) => one.role === 'registrar')
    expect(office.filter((one) => one.state === 'active').map((one) => one.signIn)).toEqual(['registrar'])
    await other.close()
  })
})

describe('an account that is ended', () => {
  it('signs in no more, is signed out at once on other servers too, and can be invited again', async () => {
    const key = await ask({ signIn: 'gone.soon', name: 'Gone Soon' })
    const who = await join(world.db, key, PASSWORD)
    const session = await openSession(world.db, who.id, 'A program')
    await within(world, (tx) => endAccount(tx, edda, who.id))
    expect(await sessionOf(world.db, session, Date.now() + 3000)).toBeUndefined()
    await expect(enter('gone.soon', PASSWORD)).rejects.toThrow('do not belong together')
    const again = await within(world, (tx) => inviteAgain(tx, edda, who.id))
    await expect(enter('gone.soon', PASSWORD)).rejects.toThrow('do not belong together')
    await join(world.db, again, `${PASSWORD} again`)
    expect(await enter('gone.soon', `${PASSWORD} again`)).toMatchObject({ id: who.id })
  })
  it('is not one’s own, nor that of who advises, nor a student’s', async () => {
    await expect(within(world, (tx) => endAccount(tx, edda, edda.id))).rejects.toThrow('Somebody else')
    const orla = await person(world.db, 'Orla Denholt')
    await expect(within(world, (tx) => endAccount(tx, edda, orla.id))).rejects.toThrow('handed over first')
    const imke = await person(world.db, 'Imke Varga')
    await expect(within(world, (tx) => endAccount(tx, edda, imke.id))).rejects.toThrow('no such account')
  })
})
