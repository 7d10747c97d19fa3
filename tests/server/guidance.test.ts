/** The institution's own texts: written by the registrar, about what there is, and come along with the catalog. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { changeGuidance, dropGuidance, makeGuidance } from '#server/features/catalog/guidance'
import { readCatalog } from '#server/features/catalog/catalog'
import * as t from '#server/db/schema/index'
import { guidanceOn } from '#shared/catalog/guidance'
import { guidanceBody } from '#shared/catalog/guidanceRequests'
import { eq, inArray } from 'drizzle-orm'
import { coursePage } from '#server/features/publicPages/courses'
import { offerPage } from '#server/features/publicPages/offer'
import { writtenPage } from '#server/features/publicPages/parts'
import { forgetKept } from '#server/http/kept'
import { at, demoWorld, person, within, type World } from './world'

let world: World
beforeAll(async () => {
  world = await demoWorld('guidance')
})
afterAll(() => world.close())

const said = (over: object) =>
  guidanceBody.parse({
    about: 'course',
    key: 'ENDA 310',
    title: 'Bring boots',
    text: 'It is wet there.',
    ...over
  })
const make = async (over: object = {}) => {
  const [edda, { now }] = [await person(world.db, 'Edda Whitlock'), await at(world)]
  return within(world, (tx) => makeGuidance(tx, edda, said(over), now))
}
const texts = async () => (await readCatalog(world.db)).guidance

describe('guidance', () => {
  it('is read on public pages too, on those about it, and as text', async () => {
    await make({ text: 'It is <b>wet</b> there.', link: 'https://boots.example/' })
    await make({ about: 'term', key: 'AU27', title: 'Autumn', text: 'Come early.' })
    forgetKept(world.db)
    const course = await writtenPage(await coursePage(world.db, 'ENDA 310'))
    expect(course).toContain('<strong>Bring boots.</strong> It is &lt;b&gt;wet&lt;/b&gt; there.')
    expect(course).toContain('href="https://boots.example/"')
    expect(await writtenPage(await coursePage(world.db, 'ENDA 410'))).not.toContain('Bring boots')
    const offer = await writtenPage(await offerPage(world.db, { term: 'AU27', q: '', subject: undefined }))
    expect(offer).toContain('Come early.')
    expect(offer).not.toContain('Bring boots')
    await world.db.delete(t.guidance).where(inArray(t.guidance.title, ['Bring boots', 'Autumn']))
  })

  it('is read about what it is about, is changed, and is gone when it is taken away', async () => {
    const before = await texts()
    const loggedBefore = await world.db.$count(t.eventLog, eq(t.eventLog.action, 'guidance.changed'))
    const { guidance } = await make()
    expect(guidanceOn(await texts(), 'course', ['ENDA 310'])).toMatchObject([{ title: 'Bring boots' }])
    expect(guidanceOn(await texts(), 'course', ['ENDA 410'])).toEqual([])
    expect(guidanceOn(await texts(), 'term', ['ENDA 310'])).toEqual([])
    const [edda, { now }] = [await person(world.db, 'Edda Whitlock'), await at(world)]
    await within(world, (tx) =>
      changeGuidance(tx, edda, guidance, said({ about: 'everybody', key: '', title: 'First year' }), now)
    )
    expect(guidanceOn(await texts(), 'everybody')).toMatchObject([{ id: guidance, title: 'First year' }])
    await within(world, (tx) => dropGuidance(tx, edda, guidance, now))
    expect(await texts()).toEqual(before)
    const logged = await world.db
      .select({ before: t.eventLog.before, after: t.eventLog.after })
      .from(t.eventLog)
      .where(eq(t.eventLog.action, 'guidance.changed'))
    expect(logged.slice(loggedBefore).map((one) => [one.before !== null, one.after !== null])).toEqual([
      [false, true],
      [true, true],
      [true, false]
    ])
  })

  it.each([
    ['program', 'NONE'],
    ['term', 'AU99'],
    ['course', 'ENDA 999'],
    ['finding', 'gloom'],
    ['finding', 'toString']
  ])('about a %s that there is not is refused with its field', async (about, key) => {
    await expect(make({ about, key })).rejects.toMatchObject({ status: 400, fields: [{ field: 'key' }] })
  })

  it.each([
    [{ key: '' }, 'key'],
    [{ about: 'everybody' }, 'key'],
    [{ title: ' ' }, 'title'],
    [{ link: 'javascript:alert(1)' }, 'link'],
    [{ link: 'http://plain.example' }, 'link'],
    [{ text: 'x'.repeat(601) }, 'text']
  ])('with %j is refused with the field %s', (over, field) => {
    const raw = { about: 'course', key: 'ENDA 310', title: 'T', text: 'x', ...over }
    expect(guidanceBody.safeParse(raw).error?.issues.map((one) => one.path[0])).toEqual([field])
  })
})
