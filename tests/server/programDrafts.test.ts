import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { all } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { readPrograms } from '#server/features/catalog/programs'
import { dropDraft, makeDraft, readDraft, readPlans, saveDraft } from '#server/features/degree/programDrafts'
import { effectOfDraft, publishDraft } from '#server/features/degree/programPublishing'
import { verdictOf } from '#shared/degree/drafts'
import { at, demoWorld, person, within, type World } from './world'

let world: World
beforeAll(async () => {
  world = await demoWorld('program_drafts')
})
afterAll(() => world.close())

const edda = () => person(world.db, 'Edda Whitlock')
const context = async () => ({
  who: await edda(),
  catalogContext: world.catalogContext,
  ...(await at(world))
})
/** The newest version of the degree that most students follow. */
const newest = async () =>
  (await readPlans(world.db)).programs.find((one) => one.code === 'ENVD')!.versions[0]!
async function begun(catalogYear: string): Promise<number> {
  const asked = { of: 'version' as const, version: (await newest()).id, catalogYear }
  const made = await within(world, async (tx) => makeDraft(tx, await context(), asked))
  return made.id
}
const save = async (id: number, text: string, version: number) =>
  within(world, async (tx) => saveDraft(tx, await context(), id, { text, version }))
const publish = async (id: number, version: number) =>
  within(world, async (tx) => publishDraft(tx, await context(), id, version))
const drop = async (id: number) => within(world, async (tx) => dropDraft(tx, await context(), id))
const refusal = (work: Promise<unknown>) =>
  work.then(
    () => 'went through',
    (error: { code?: string }) => error.code
  )

describe('a draft of a program', () => {
  it('begins as the version before was, and says who follows the program', async () => {
    const id = await begun('2031-32')
    const draft = await readDraft(world.db, id)
    expect(draft.text).toContain('title: All of five foundations')
    expect(draft).toMatchObject({ code: 'ENVD', catalogYear: '2031-32', version: 1, by: 'Edda Whitlock' })
    expect(draft.expects).toMatchObject({ kind: 'degree', title: 'BSc Environmental Data' })
    const versions = (await readPlans(world.db)).programs.find((one) => one.code === 'ENVD')!.versions
    expect(draft.followers).toHaveLength(versions.reduce((sum, one) => sum + one.students, 0))
    await drop(id)
    expect(await refusal(readDraft(world.db, id))).toBe('noDraft')
  })

  it('is kept wrong as well as right, and published only right', async () => {
    const id = await begun('2032-33')
    const { text } = await readDraft(world.db, id)
    const wrong = text.replace('from: ENVI 101', 'from: ENVI 999')
    expect(await save(id, wrong, 1)).toEqual({ version: 2 })
    expect(await refusal(publish(id, 2))).toBe('faults')
    expect((await readDraft(world.db, id)).text).toBe(wrong)
    await drop(id)
  })

  it('is not written over by somebody who has not seen the last change', async () => {
    const id = await begun('2032-33')
    const { text } = await readDraft(world.db, id)
    await save(id, `${text}\n`, 1)
    expect(await refusal(save(id, 'lost', 1))).toBe('changedMeanwhile')
    expect(await refusal(publish(id, 1))).toBe('changedMeanwhile')
    await drop(id)
  })

  it('comes after what is published, once a year', async () => {
    expect(await refusal(begun((await newest()).catalogYear))).toBe('published')
    const id = await begun('2032-33')
    expect(await refusal(begun('2032-33'))).toBe('drafted')
    await drop(id)
  })

  it('says who would gain and who would lose by it, and changes nobody', async () => {
    const id = await begun('2033-34')
    const plans = await readPlans(world.db)
    const draft = await readDraft(world.db, id)
    const { text, followers } = draft
    const students = followers.slice(0, 12).map((one) => one.id)
    const about = { catalogContext: world.catalogContext, ...(await at(world)) }
    const effect = (of: string) => effectOfDraft(world.db, id, { text: of, against: 'from', students }, about)
    expect((await effect(text)).map((one) => verdictOf(one.effects))).toEqual(students.map(() => 'same'))
    const harder = text
      .replace(/(id: speaking[\s\S]*?)amount: 1\n(\s+)credits: 3/, '$1amount: 2\n$2credits: 6')
      .replace('amount: 10\n        credits: 10', 'amount: 7\n        credits: 7')
    const found = await effect(harder)
    expect(found).toHaveLength(students.length)
    expect(found.map((one) => verdictOf(one.effects))).toContain('loses')
    expect(await readPlans(world.db)).toEqual(plans)
    expect(await readDraft(world.db, id)).toEqual(draft)
    expect(await refusal(effect('code: ENVD'))).toBe('unreadable')
    await drop(id)
  })

  it('becomes a version that new students get, with what a review asks for, and those of before stay', async () => {
    const before = await newest()
    const id = await begun('2034-35')
    const { text } = await readDraft(world.db, id)
    const changed = text.replace(
      'amount: 12\n        credits: 12\n        from: ENDA 300-479',
      'amount: 12\n        credits: 12\n        note: From 2034 on.\n        from: ENDA 300-479'
    )
    await save(id, changed, 1)
    const { version } = await publish(id, 2)
    const [row] = await world.db.select().from(t.programVersion).where(eq(t.programVersion.id, version))
    const [old] = await world.db.select().from(t.programVersion).where(eq(t.programVersion.id, before.id))
    expect(row!.review).toEqual(old!.review)
    expect({ ...row!.rules, note: undefined }).toEqual({ ...old!.rules, note: undefined })
    const spec = (await readPrograms(world.db)).find((one) => one.code === 'ENVD')!
    expect(spec.catalogYear).toBe('2034-35')
    expect(JSON.stringify(spec.areas)).toContain('From 2034 on.')
    expect(JSON.stringify(old!.areas)).not.toContain('From 2034 on.')
    expect(await refusal(readDraft(world.db, id))).toBe('noDraft')
    const told = await world.db.select().from(t.eventLog).where(eq(t.eventLog.action, 'program.published'))
    expect(told).toHaveLength(1)
  })

  it('may be of a program that there was not before', async () => {
    const asked = { of: 'new' as const, code: 'WRIN', title: 'Minor in Writing', kind: 'minor' as const }
    const made = (code: string) =>
      within(world, async (tx) => makeDraft(tx, await context(), { ...asked, code, catalogYear: '2027-28' }))
    expect(await refusal(made('ENVD'))).toBe('known')
    const { id } = await made('WRIN')
    await publish(id, 1)
    const [row] = await world.db
      .select({ kind: t.program.kind })
      .from(t.program)
      .where(all(eq(t.program.code, 'WRIN')))
    expect(row).toEqual({ kind: 'minor' })
  })
})
