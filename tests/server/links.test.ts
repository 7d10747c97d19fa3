/** Links by which a password is set: mailed to who cannot sign in, made as they are sent, and used once. */
import { eq, inArray } from 'drizzle-orm'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import * as t from '#server/db/schema/index'
import { askForLink, mailLinks, readStudentSignIns } from '#server/features/accounts/links'
import { inviteAgain, join } from '#server/features/accounts/staff'
import { readMails, sendMails } from '#server/features/mail/mails'
import type { Mail } from '#server/gateways/post'
import { at, demoWorld, person, within, type World } from './world'

const ORIGIN = new URL('https://plan.harrowmere.example')
const STUDENTS = ['Imke Varga', 'Saoirse Lindqvist', 'Jonas Thackeray']
const NEXT = 'a long and winding lane'

let world: World
beforeAll(async () => {
  world = await demoWorld('links')
})
afterAll(() => world.close())
beforeEach(async () => {
  await world.db.delete(t.mail)
  await world.db.delete(t.invitation)
  await world.db.update(t.account).set({ passwordHash: '' }).where(inArray(t.account.name, STUDENTS))
})

/** What is sent by now. */
async function sent(): Promise<Mail[]> {
  const mails: Mail[] = []
  const post = { send: (mail: Mail) => Promise.resolve(void mails.push(mail)) }
  await sendMails(world.db, world.catalogContext, post, Date.now() + 1000, ORIGIN)
  return mails
}
const keyIn = ({ text }: Mail) => /\/welcome\/([0-9a-f]{32})$/.exec(text)?.[1]
const mailAll = async () => {
  const [who, { now }] = [await person(world.db, 'Edda Whitlock'), await at(world)]
  return within(world, (tx) => mailLinks(tx, { who, now }, { origin: ORIGIN }))
}
const ask = async (name: string, machine = Date.now()) => {
  const { now } = await at(world)
  return within(world, (tx) => askForLink(tx, { name, now }, { origin: ORIGIN, machine }))
}

describe('students who cannot sign in', () => {
  it('are each mailed a link, once, which sets the password', async () => {
    expect(await readStudentSignIns(world.db)).toMatchObject({ without: 3, unmailed: 3, mailless: 0 })
    expect(await mailAll()).toEqual({ mailed: 3, left: 0 })
    expect(await mailAll()).toEqual({ mailed: 0, left: 0 })
    const mails = await sent()
    expect(mails).toHaveLength(3)
    const imke = mails.find((one) => one.text.includes('imke.varga'))!
    expect(imke.text).toContain('https://plan.harrowmere.example/welcome/')
    const who = await join(world.db, keyIn(imke)!, NEXT)
    expect(who.name).toBe('Imke Varga')
    await expect(join(world.db, keyIn(imke)!, NEXT)).rejects.toMatchObject({ code: 'noLink' })
    expect(await readStudentSignIns(world.db)).toMatchObject({ without: 2, unmailed: 0 })
  })

  it('read of the link, and never the link itself', async () => {
    await mailAll()
    const [mail] = await sent()
    const rows = await world.db
      .select({ mail: t.mail, event: t.eventLog })
      .from(t.mail)
      .innerJoin(t.eventLog, eq(t.eventLog.id, t.mail.eventId))
    expect(JSON.stringify(rows)).not.toContain(keyIn(mail!))
    const imke = await person(world.db, 'Imke Varga')
    const [read] = await readMails(world.db, imke.id, world.catalogContext)
    expect(read?.text).toContain('imke.varga')
    expect(read?.text).not.toContain('/welcome/')
  })

  it('are told of a link that the office made by hand', async () => {
    const [edda, imke] = [await person(world.db, 'Edda Whitlock'), await person(world.db, 'Imke Varga')]
    const key = await within(world, (tx) => inviteAgain(tx, edda, imke.id))
    expect((await sent()).map((one) => one.subject)).toEqual(['A link to sign in was made for your account'])
    await expect(join(world.db, key, NEXT)).resolves.toMatchObject({ name: 'Imke Varga' })
  })

  it('are mailed nothing where nothing can be mailed', async () => {
    const [who, { now }] = [await person(world.db, 'Edda Whitlock'), await at(world)]
    const mailing = within(world, (tx) => mailLinks(tx, { who, now }, { origin: undefined }))
    await expect(mailing).rejects.toMatchObject({ code: 'noMail' })
  })
})

describe('a password that was lost', () => {
  it.each(['orla.denholt', ' Orla.Denholt '])('is set anew by a link that is mailed to %j', async (name) => {
    await ask(name)
    const [mail, ...more] = await sent()
    expect(more).toEqual([])
    expect(mail?.text).toContain('nothing changes')
    await expect(join(world.db, keyIn(mail!)!, NEXT)).resolves.toMatchObject({ name: 'Orla Denholt' })
  })
  it.each(['nobody.here', 'registrar'])('of nobody says nothing: %s', async (name) => {
    await expect(ask(name)).resolves.toBeUndefined()
    expect(await sent()).toEqual([])
  })
  it('is not mailed for again while a link is on its way, and later by another link', async () => {
    await ask('orla.denholt')
    await ask('orla.denholt')
    const [first, ...more] = await sent()
    expect(more).toEqual([])
    await ask('orla.denholt')
    expect(await sent()).toEqual([])
    await ask('orla.denholt', Date.now() + 15 * 60_000)
    const [second] = await sent()
    expect(keyIn(second!)).not.toBe(keyIn(first!))
    await expect(join(world.db, keyIn(first!)!, NEXT)).rejects.toMatchObject({ code: 'noLink' })
  })
  it('of an account that was ended stays so', async () => {
    await world.db
      .update(t.account)
      .set({ endedAt: new Date() })
      .where(eq(t.account.signIn, 'nell.fairweather'))
    await ask('nell.fairweather')
    expect(await sent()).toEqual([])
  })
})
