/** Mails: of what others did, sent once, over SMTP (RFC 5321, RFC 5322) to a server that keeps them. */
import type { AddressInfo } from 'node:net'
import { eq } from 'drizzle-orm'
import { SMTPServer } from 'smtp-server'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { NEWS_OF } from '#server/db/news'
import { gatherMails, readChoices, writeChoices } from '#server/features/mail/digests'
import { readMails, sendMails } from '#server/features/mail/mails'
import type { Who } from '#shared/accounts/responses'
import { topicOf, USUAL_CHOICES, type MailChoices } from '#shared/mail/choices'
import { postAt, type Post } from '#server/gateways/post'
import { isMailed, mailOf } from '#shared/mail/mails'
import { at, AUTUMN, demoWorld, idOf, person, setTime, signOff, within, type World } from './world'

let world: World
beforeAll(async () => {
  world = await demoWorld('mail')
  const imke = await person(world.db, 'Imke Varga')
  await signOff(world, await person(world.db, 'Orla Denholt'), idOf(imke))
})
afterAll(() => world.close())

interface Received {
  from: string
  to: string[]
  text: string
}

/** A server that keeps what it gets; each connection may be refused. */
async function mailbox() {
  const received: Received[] = []
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS', 'AUTH'],
    onData(stream, { envelope }, done) {
      let text = ''
      stream.on('data', (chunk: Buffer) => (text += chunk.toString()))
      stream.on('end', () => {
        received.push({
          from: envelope.mailFrom ? envelope.mailFrom.address : '',
          to: envelope.rcptTo.map((one) => one.address),
          text
        })
        done()
      })
    }
  })
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  const { port } = server.server.address() as AddressInfo
  const post = postAt(new URL(`smtp://127.0.0.1:${port}`), 'ridgeway@harrowmere.example')
  return { received, post, close: () => new Promise<void>((resolve) => server.close(resolve)) }
}
const states = async () =>
  (await world.db.select().from(t.mail)).map(({ state, tries }) => ({ state, tries }))

describe('a mail', () => {
  it('tells a student what others did, and not what they did themselves', async () => {
    const imke = await person(world.db, 'Imke Varga')
    const { now } = await at(world)
    const own = { at: now, account: imke.id, student: idOf(imke), action: 'signOff.given' as const }
    await within(world, (tx) => logEvent(tx, { ...own, after: { term: AUTUMN } }))
    expect(await readMails(world.db, imke.id, world.catalogContext)).toMatchObject([
      { subject: 'Autumn 2027 is signed off', state: 'waiting' }
    ])
    const orla = await person(world.db, 'Orla Denholt')
    expect(await readMails(world.db, orla.id, world.catalogContext)).toEqual([])
  })
  it('that cannot be handed over waits, longer each time, and stays to be read', async () => {
    const down: Post = { send: () => Promise.reject(new Error('no connection')) }
    const now = Date.now()
    await sendMails(world.db, world.catalogContext, down, now)
    expect(await states()).toEqual([{ state: 'waiting', tries: 1 }])
    await sendMails(world.db, world.catalogContext, down, now + 59_000)
    expect(await states()).toEqual([{ state: 'waiting', tries: 1 }])
    await sendMails(world.db, world.catalogContext, down, now + 60_000)
    expect(await states()).toEqual([{ state: 'waiting', tries: 2 }])
  })
  it('is handed over once, whoever sends at the same time', async () => {
    const { received, post, close } = await mailbox()
    const later = Date.now() + 3_600_000
    await Promise.all([1, 2, 3].map(() => sendMails(world.db, world.catalogContext, post, later)))
    await close()
    expect(received).toHaveLength(1)
    const [{ from, to, text }] = received as [Received]
    expect({ from, to }).toEqual({
      from: 'ridgeway@harrowmere.example',
      to: ['imke.varga@harrowmere.example']
    })
    expect(text).toMatch(/^Subject: Autumn 2027 is signed off\r$/m)
    expect(text).toMatch(/^Message-ID: <ridgeway-mail-\d+@harrowmere\.example>\r$/m)
    expect(text).toContain('Your advisor has signed off your courses for Autumn 2027.')
    expect(await states()).toEqual([{ state: 'sent', tries: 3 }])
  })
  it('to nobody known is given up', async () => {
    const imke = await person(world.db, 'Imke Varga')
    await world.db.update(t.account).set({ mail: null }).where(eq(t.account.id, imke.id))
    await world.db.update(t.mail).set({ state: 'waiting', nextTryAt: new Date(0) })
    const sends: Post = { send: () => Promise.resolve() }
    await sendMails(world.db, world.catalogContext, sends)
    expect(await states()).toEqual([{ state: 'failed', tries: 4 }])
  })
})

describe('what a mail says', () => {
  const about = { terms: [{ code: AUTUMN, name: 'Autumn 2027' }], zone: 'America/New_York' }
  const says = (action: string, after: object, before: object = {}) =>
    mailOf({ action, before: before as never, after: { term: AUTUMN, ...after } }, about)
  it('names the instant on campus until which a seat is held', () => {
    const until = Date.parse('2027-04-18T13:14:00Z')
    expect(says('offer.made', { sections: ['FAWXR', 'FBP24'], until })!.text).toContain(
      'A seat in FAWXR + FBP24 is held for you until Sun 18 Apr 2027, 9:14 am.'
    )
  })
  it('does not ask for an answer where the term lets the first move in', () => {
    const offer = { sections: ['FAWXR'], until: Date.parse('2027-04-18T13:14:00Z') }
    expect(says('offer.made', { ...offer, serves: 'offer' })!.text).toContain('Take or decline it')
    expect(says('offer.made', { ...offer, serves: 'automatic' })!.text).toMatch(/^(?!.*decline).*by itself/)
  })
  it('names the seat that was given back', () => {
    expect(says('registration.released', { course: 'SOIL 220' }, { sections: ['FAWXR'] })!.text).toMatch(
      /^Autumn 2027 was not paid for .* your seat in SOIL 220 \(FAWXR\) was given back\./
    )
  })
  it('names what a remark is about, by the names that people know', () => {
    const subject = (matter: string, key: string | null) =>
      says('remark.made', { by: 'Orla Denholt', about: matter, key })!.subject
    expect(subject('route', null)).toBe('Orla Denholt wrote to you about your route')
    expect(subject('course', 'SOIL 220')).toBe('Orla Denholt wrote to you about SOIL 220')
    expect(subject('term', AUTUMN)).toBe('Orla Denholt wrote to you about Autumn 2027')
    expect(subject('need', 'writing-upper')).toBe('Orla Denholt wrote to you about a requirement')
    expect(subject('finding', 'ENDA 410 in Autumn 27')).toBe('Orla Denholt wrote to you about a finding')
  })
  it('says of a permission until when it holds, and what was said with it', () => {
    const told = { course: 'ENDA 310', section: 'F5NAB', answer: 'given', words: 'This once.' }
    const until = Date.parse('2027-04-21T04:00:00Z')
    expect(says('permission.answered', { ...told, until })!.text).toBe(
      'The permission you asked for (ENDA 310, section F5NAB) was given, and holds until the end of Tue 20 Apr 2027. This once.'
    )
    expect(
      says('permission.answered', { ...told, until: null, words: null, answer: 'declined' })!.text
    ).toMatch(/was declined\.$/)
  })
  it('is nothing for what is not mailed', () => {
    expect(says('route.changed', {})).toBeUndefined()
  })
})

describe('what somebody has chosen to be mailed', () => {
  const choose = async (who: Who, advising: MailChoices['advising']) => {
    const { now } = await at(world)
    return within(world, (tx) => writeChoices(tx, { who, now }, { advising, appointments: 'atOnce' }))
  }
  const mine = async () =>
    (await readMails(world.db, (await person(world.db, 'Imke Varga')).id, world.catalogContext)).map(
      (one) => one.state
    )
  const tell = async (action: 'signOff.given' | 'offer.lapsed') => {
    const [imke, orla] = [await person(world.db, 'Imke Varga'), await person(world.db, 'Orla Denholt')]
    const event = { at: (await at(world)).now, account: orla.id, student: idOf(imke), action }
    await within(world, (tx) => logEvent(tx, { ...event, after: { term: AUTUMN, course: 'ENDA 310' } }))
  }
  it('is kept, and read', async () => {
    const imke = await person(world.db, 'Imke Varga')
    expect(await readChoices(world.db, imke.id)).toEqual(USUAL_CHOICES)
    await choose(imke, 'daily')
    expect(await readChoices(world.db, imke.id)).toEqual({ advising: 'daily', appointments: 'atOnce' })
  })
  it('comes together in the morning, once, and what runs out comes at once', async () => {
    await world.db.delete(t.mail)
    await world.db.update(t.account).set({ mail: 'imke@harrowmere.example' })
    const start = (await at(world)).now
    await tell('signOff.given')
    await tell('signOff.given')
    await tell('offer.lapsed')
    expect((await mine()).toSorted()).toEqual(['gathered', 'gathered', 'waiting'])
    await gatherMails(world.db, world.catalogContext.zone)
    expect(await mine()).toContain('gathered')
    // Six in the morning on campus is ten in UTC.
    const morning = Date.parse('2027-04-10T10:00:00Z')
    await setTime(world, morning - 1)
    await gatherMails(world.db, world.catalogContext.zone)
    expect(await mine()).toContain('gathered')
    await setTime(world, morning)
    await Promise.all(Array.from({ length: 3 }, () => gatherMails(world.db, world.catalogContext.zone)))
    expect((await mine()).toSorted()).toEqual(['told', 'told', 'waiting'])
    const { received, post, close } = await mailbox()
    await sendMails(world.db, world.catalogContext, post)
    await close()
    const together = received.filter(({ text }) => text.includes('2 things since the last mail of the day'))
    expect(together).toHaveLength(1)
    expect(together[0]!.text.match(/is signed off/g)!.length).toBeGreaterThanOrEqual(2)
    expect(received).toHaveLength(2)
    await setTime(world, start)
  })
  it('is nothing where none is wanted', async () => {
    await world.db.delete(t.mail)
    await choose(await person(world.db, 'Imke Varga'), 'never')
    await tell('signOff.given')
    await tell('offer.lapsed')
    expect(await mine()).toEqual(['waiting'])
  })
  it('can be chosen of everything that is mailed but what decides over seats, and what an office does in one’s place', () => {
    const always = /^(offer|payment|registration|line|rehearsal|sheet|hold|opening|term|run|record)\./
    const mailed = Object.keys(NEWS_OF).filter(isMailed)
    for (const action of mailed)
      expect([action, topicOf(action) === undefined]).toEqual([action, always.test(action)])
  })
})
