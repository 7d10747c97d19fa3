import { eq, max } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { studentId } from '#core/ids'
import type { News } from '#shared/news/responses'
import type { Who } from '#shared/accounts/responses'
import type { Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import { madeOnce } from '#server/db/madeChange'
import { comesFrom } from '#server/db/news'
import * as t from '#server/db/schema/index'
import { readAudience, withoutRepeats } from '#server/features/news/audience'
import { NewsTail, type Heard } from '#server/features/news/tail'
import { demoWorld, idOf, person, within, type World } from './world'

let world: World
let imke: Who
let orla: Who

beforeAll(async () => {
  world = await demoWorld('news')
  imke = await person(world.db, 'Imke Varga')
  orla = await person(world.db, 'Orla Denholt')
})
afterAll(() => world.close())

/** Logs, and so tells, that the limits of Imke were changed; `n` tells them apart. */
const change = (tx: Transaction, n: number) => {
  comesFrom(tx, `change-${n}`)
  return logEvent(tx, { at: 0, account: imke.id, student: idOf(imke), action: 'carry.changed' })
}
const changes = (heard: readonly Heard[] | undefined) => heard?.map((one) => one.news.change)

/** A transaction that stays open until it is let go. */
function heldOpen(work: (tx: Transaction) => Promise<unknown>) {
  let letGo!: (how: 'commit' | 'rollback') => void
  const how = new Promise<'commit' | 'rollback'>((resolve) => (letGo = resolve))
  let begun!: () => void
  const isBegun = new Promise<void>((resolve) => (begun = resolve))
  const done = within(world, async (tx) => {
    await work(tx)
    begun()
    if ((await how) === 'rollback') throw new Error('taken back')
  }).catch(() => undefined)
  const end = (as: 'commit' | 'rollback') => {
    letGo(as)
    return done
  }
  return { isBegun, end }
}

describe('news of what has no term', () => {
  it('is told without one, and keeps nobody from the rest', async () => {
    const tail = new NewsTail(world.db)
    await tail.head()
    const heard: Heard[] = []
    const leave = tail.listen((some) => void heard.push(...some))
    const of = { at: 0, account: imke.id, student: idOf(imke), action: 'request.asked' as const }
    await within(world, (tx) => logEvent(tx, { ...of, after: { kind: 'waiver', term: null } }))
    // As a row of another release may have it.
    await world.db.insert(t.news).values({ at: new Date(), kind: 'requests', about: { term: 'gone' } })
    await within(world, (tx) => change(tx, 50))
    await tail.head()
    leave()
    expect(heard.map((one) => [one.news.kind, one.news.term])).toEqual([
      ['record', undefined],
      ['requests', undefined],
      ['requests', undefined],
      ['record', undefined]
    ])
  })
})

describe('the tail of the news', () => {
  it('hears what is committed, once, and nothing that is taken back', async () => {
    const tail = new NewsTail(world.db)
    const heard: Heard[] = []
    await tail.head()
    const leave = tail.listen((some) => void heard.push(...some))
    await within(world, (tx) => change(tx, 1))
    const back = heldOpen((tx) => change(tx, 2))
    await back.isBegun
    await back.end('rollback')
    await tail.look()
    await tail.look()
    leave()
    expect(changes(heard)).toEqual(['change-1'])
    expect(heard[0]!.news).toMatchObject({ kind: 'record', student: idOf(imke), by: 'Imke Varga' })
  })

  it('hears what is committed after something of a higher number, and misses nothing by its mark', async () => {
    const tail = new NewsTail(world.db)
    const mark = await tail.head()
    const heard: Heard[] = []
    const leave = tail.listen((some) => void heard.push(...some))
    const slow = heldOpen((tx) => change(tx, 3))
    await slow.isBegun
    await within(world, (tx) => change(tx, 4))
    await tail.look()
    expect(changes(heard)).toEqual(['change-4'])
    // Whoever goes away now and comes back has to be told of the slow one too.
    expect(heard[0]!.mark).toBeLessThan(heard[0]!.id)
    const marked = await tail.head()
    await slow.end('commit')
    expect(changes(await tail.since(marked))).toEqual(['change-3', 'change-4'])
    expect(changes(await tail.since(mark))).toEqual(['change-3', 'change-4'])
    expect(changes(heard)).toEqual(['change-4', 'change-3'])
    leave()
  })

  it('gives up on a number that nobody commits, after a time', async () => {
    let now = Date.now()
    const tail = new NewsTail(world.db, () => now)
    const before = await tail.head()
    const back = heldOpen((tx) => change(tx, 5))
    await back.isBegun
    await back.end('rollback')
    await within(world, (tx) => change(tx, 6))
    expect(await tail.head()).toBe(before)
    now += 31_000
    const [last] = await world.db.select({ id: max(t.news.id) }).from(t.news)
    expect(await tail.head()).toBe(last!.id)
  })

  it('says that more was missed than is kept', async () => {
    const tail = new NewsTail(world.db)
    await within(world, (tx) => change(tx, 7))
    const head = await tail.head()
    await world.db.update(t.news).set({ at: new Date(Date.now() - 7_200_000) })
    await within(world, (tx) => change(tx, 8))
    // A tail that has just begun forgets what is old with its second look.
    const other = new NewsTail(world.db, () => Date.now() + 40_000)
    await other.head()
    await other.head()
    expect(await tail.since(0)).toBeUndefined()
    expect(changes(await tail.since(head))).toEqual(['change-8'])
  })

  it('goes on where another server left off', async () => {
    const later = () => Date.now() + 31_000
    const mark = await new NewsTail(world.db, later).head()
    await within(world, (tx) => change(tx, 9))
    expect(changes(await new NewsTail(world.db).since(mark))).toEqual(['change-9'])
  })
})

describe('who hears what', () => {
  const news = (kind: News['kind'], student: Who | null): News => ({
    kind,
    student: student && idOf(student),
    by: null,
    change: null
  })
  it('is who may see it', async () => {
    const everybody = {
      imke,
      orla,
      jonas: await person(world.db, 'Jonas Thackeray'),
      casimir: await person(world.db, 'Casimir Boyle'),
      edda: await person(world.db, 'Edda Whitlock')
    }
    const hear = async (what: News) => {
      const heard: string[] = []
      for (const [name, who] of Object.entries(everybody))
        if ((await readAudience(world.db, who))(what)) heard.push(name)
      return heard
    }
    expect(await hear(news('record', imke))).toEqual(['imke', 'orla', 'edda'])
    expect(await hear(news('own', imke))).toEqual(['imke'])
    expect(await hear(news('seats', null))).toEqual(Object.keys(everybody))
  })
  it('says of a term once that its seats have changed', () => {
    const jonas = { ...imke, student: studentId(2) }
    const some = [news('seats', null), news('record', imke), news('seats', null), news('record', jonas)]
    expect(withoutRepeats(some.map((one) => ({ news: one }))).map((one) => one.news)).toEqual(some.slice(1))
  })
})

describe('a change with a key', () => {
  const keyed = { account: 0, key: 'a-key-of-its-own', what: { carry: 12 } }
  let made = 0
  const work = () => Promise.resolve({ made: ++made })
  beforeAll(() => {
    keyed.account = imke.id
  })
  it('is made once, and answered the same every time', async () => {
    const answers = [
      await within(world, (tx) => madeOnce(tx, keyed, work)),
      await within(world, (tx) => madeOnce(tx, keyed, work))
    ]
    expect(answers).toEqual([{ made: 1 }, { made: 1 }])
    expect(made).toBe(1)
  })
  it('is made once when it is sent twice at the same time', async () => {
    const twice = { ...keyed, key: 'sent-twice-at-once' }
    const slowly = async () => {
      await new Promise((resolve) => setTimeout(resolve, 50))
      return work()
    }
    const answers = await Promise.all([1, 2, 3].map(() => within(world, (tx) => madeOnce(tx, twice, slowly))))
    expect(new Set(answers.map((one) => one.made)).size).toBe(1)
  })
  it('is tried again after it was refused', async () => {
    const again = { ...keyed, key: 'refused-at-first' }
    const refuse = () => Promise.reject(new Error('refused'))
    await expect(within(world, (tx) => madeOnce(tx, again, refuse))).rejects.toThrow('refused')
    expect(await within(world, (tx) => madeOnce(tx, again, () => Promise.resolve('made')))).toBe('made')
  })
  it('is refused where the key was given to another, and is of its account alone', async () => {
    const other = { ...keyed, what: { carry: 15 } }
    await expect(within(world, (tx) => madeOnce(tx, other, work))).rejects.toMatchObject({
      status: 422,
      code: 'keyUsed'
    })
    const ofOrla = { ...keyed, account: orla.id }
    expect(await within(world, (tx) => madeOnce(tx, ofOrla, () => Promise.resolve('of Orla')))).toBe(
      'of Orla'
    )
    const rows = await world.db.select().from(t.madeChange).where(eq(t.madeChange.changeKey, keyed.key))
    expect(rows).toHaveLength(2)
  })
})
