/** Sections that an advisor suggests: drawn for the student, picked when accepted, and refused where they are no choice. */
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { courseCode, type SectionCode } from '#core/ids'
import type { Who } from '#shared/accounts/responses'
import * as t from '#server/db/schema/index'
import {
  answerSections,
  readSectionSuggestions,
  suggestSections,
  withdrawSections
} from '#server/features/advising/sectionSuggestions'
import { addRemark } from '#server/features/advising/talk'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { at, AUTUMN, demoWorld, idOf, person, sectionsNumbered, within, type World } from './world'

let world: World
let imke: Who & { id: number }
let orla: Who & { id: number }
let nell: Who & { id: number }
const ENDA = courseCode('ENDA 310')
beforeAll(async () => {
  world = await demoWorld('section_suggestions')
  imke = await person(world.db, 'Imke Varga')
  orla = await person(world.db, 'Orla Denholt')
  nell = await person(world.db, 'Nell Fairweather')
})
afterAll(() => world.close())

const doing = async (who: Who) => ({ who, student: idOf(imke), ...(await at(world)) })
const codesOf = async (...numbers: string[]) =>
  (await sectionsNumbered(world, 'ENDA 310', ...numbers)).map((row) => row.code as SectionCode)
async function suggest(who: Who, ...numbers: string[]) {
  const by = await doing(who)
  const sections = await codesOf(...numbers)
  return within(world, (tx) => suggestSections(tx, by, { term: AUTUMN, course: ENDA, sections }))
}
async function answer(id: number, how: 'accepted' | 'declined') {
  const by = await doing(imke)
  return within(world, (tx) => answerSections(tx, by, id, how))
}
const list = () => readSectionSuggestions(world.db, idOf(imke), { account: imke.id, relation: 'self' })
const picked = async () => {
  const [record] = await readStudentRecords(world.db, [idOf(imke)], 'self')
  const draft = record!.drafts.find((one) => one.term === AUTUMN && one.goingWith)!
  const own = new Set((await codesOf('01', '02')) as string[])
  return draft.sections.filter((code) => own.has(code))
}

describe('suggested sections', () => {
  it('wait, one of an advisor for a course, with a number of the talk that stays', async () => {
    const first = await suggest(orla, '01')
    const [one] = await list()
    expect(one).toMatchObject({ id: first.suggestion, by: 'Orla Denholt', own: false, state: 'waiting' })
    const second = await suggest(orla, '02')
    expect(await list()).toMatchObject([{ id: second.suggestion, number: one!.number }])
    const other = await suggest(nell, '01')
    expect((await list()).map((row) => row.number)).toEqual([one!.number, one!.number + 1])
    const by = { ...(await doing(nell)), relation: 'supportAdvisor' as const }
    const about = { is: 'route' as const, key: null }
    await within(world, (tx) =>
      addRemark(tx, by, { to: 'matter', about, advisorsOnly: false, text: 'And so on.', named: [] })
    )
    const [last] = await world.db
      .select()
      .from(t.thread)
      .orderBy(t.thread.id)
      .then((rows) => rows.slice(-1))
    expect(last!.number).toBe(one!.number + 2)
    const notTheirs = await doing(orla)
    await expect(
      within(world, (tx) => withdrawSections(tx, notTheirs, other.suggestion))
    ).rejects.toMatchObject({ status: 404 })
    const theirs = await doing(nell)
    await within(world, (tx) => withdrawSections(tx, theirs, other.suggestion))
    expect(await list()).toHaveLength(1)
  })
  it('are picked when they are accepted, once', async () => {
    const before = await picked()
    const [code] = await codesOf('02')
    expect(before).not.toEqual([code])
    const [waiting] = await list()
    await answer(waiting!.id, 'accepted')
    expect(await picked()).toEqual([code])
    expect(await list()).toMatchObject([{ state: 'accepted', answer: { by: 'Imke Varga' } }])
    await expect(answer(waiting!.id, 'declined')).rejects.toMatchObject({ status: 409, code: 'notWaiting' })
  })
  it('stay where they cannot be picked any more, and pick nothing when they are declined', async () => {
    const { suggestion } = await suggest(orla, '01')
    const [code] = await codesOf('01')
    await world.db.update(t.section).set({ cancelled: true }).where(eq(t.section.code, code!))
    await expect(answer(suggestion, 'accepted')).rejects.toMatchObject({ status: 422 })
    expect((await list()).at(-1)).toMatchObject({ id: suggestion, state: 'waiting' })
    const before = await picked()
    await answer(suggestion, 'declined')
    expect(await picked()).toEqual(before)
    await expect(suggest(orla, '01')).rejects.toMatchObject({ status: 422, code: 'noOption' })
  })
  it('are shown to nobody without a part in the talk', async () => {
    const registrar = { account: 1, relation: 'registrar' as const }
    expect(await readSectionSuggestions(world.db, idOf(imke), registrar)).toEqual([])
  })
})
