/** Courses and lists that the registrar writes: right or refused by field, with what they do to degrees told before. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { eq } from 'drizzle-orm'
import { courseCode, type CourseCode } from '#core/ids'
import * as t from '#server/db/schema/index'
import { readCatalog, readCoursePage } from '#server/features/catalog/catalog'
import { makeList } from '#server/features/catalog/lists'
import { readCatalogContext } from '#server/features/catalog/context'
import { changeCourse, effectOfCourse, makeCourse, readWrittenCourse } from '#server/features/catalog/writing'
import { EFFECT_LOT, type WrittenCourse, type WrittenList } from '#shared/catalog/writing'
import { at, demoWorld, person, within, type World } from './world'

let world: World
beforeAll(async () => {
  world = await demoWorld('catalog_writing')
})
afterAll(() => world.close())

const edda = async () => ({ who: await person(world.db, 'Edda Whitlock'), now: (await at(world)).now })
const written = (code: string) => readWrittenCourse(world.db, courseCode(code))
const courseIn = async (code: CourseCode) =>
  (await readCatalog(world.db)).courses.find((one) => one.code === code)
async function change(code: string, over: Partial<WrittenCourse>, version?: number) {
  const [{ course, version: known }, who] = [await written(code), await edda()]
  return within(world, (tx) =>
    changeCourse(tx, who, course.code, { ...course, ...over, version: version ?? known })
  )
}
async function make(over: Partial<WrittenCourse>) {
  const [{ course }, who] = [await written('ENVI 101'), await edda()]
  return within(world, (tx) => makeCourse(tx, who, { ...course, equivalents: [], exclusive: [], ...over }))
}

describe('a course that is written anew', () => {
  it('is another for everybody, and is known by its version', async () => {
    const before = await written('ENDA 310')
    const over = {
      title: 'Reading Field Data',
      credits: 4,
      creditsMost: 4,
      prerequisite: 'ENVI 101 (C)',
      fee: 12.5
    }
    expect(await change('ENDA 310', over)).toEqual({ version: before.version + 1 })
    expect(await courseIn(courseCode('ENDA 310'))).toMatchObject({
      ...{ title: 'Reading Field Data', credits: 4, prerequisite: 'ENVI 101 (C)' }
    })
    expect((await readCoursePage(world.db, courseCode('ENDA 310'))).fee).toBe(12.5)
    await expect(change('ENDA 310', { title: 'Again' }, before.version)).rejects.toMatchObject({
      code: 'changedMeanwhile'
    })
    await change('ENDA 310', before.course)
    expect((await written('ENDA 310')).course).toEqual(before.course)
  })

  it('keeps what is told of other courses by them', async () => {
    const before = await written('SOIL 220')
    await change('SOIL 220', { exclusive: [courseCode('ENVI 101')], categories: ['lab'] })
    expect(await courseIn(courseCode('SOIL 220'))).toMatchObject({
      exclusive: ['ENVI 101'],
      categories: ['lab']
    })
    await change('SOIL 220', before.course)
    expect((await written('SOIL 220')).course).toEqual(before.course)
  })

  it.each<[string, Partial<WrittenCourse>]>([
    ['prerequisite', { prerequisite: 'ENVI 101 and' }],
    ['prerequisite', { prerequisite: 'ENVI 101 (Q)' }],
    ['prerequisite', { prerequisite: 'ENVI 999' }],
    ['equivalents', { equivalents: [courseCode('ENVI 999')] }],
    ['exclusive', { exclusive: [courseCode('ENVI 999')] }],
    ['exclusive', { exclusive: [courseCode('ENDA 310')] }],
    ['creditsMost', { credits: 4, creditsMost: 3 }],
    ['categories', { categories: ['no-such'] }],
    ['code', { code: courseCode('ENDA 311') }]
  ])('is refused at %s', async (field, over) => {
    const before = await written('ENDA 310')
    await expect(change('ENDA 310', over)).rejects.toMatchObject({
      fields: [expect.objectContaining({ field })]
    })
    expect(await written('ENDA 310')).toEqual(before)
  })

  it('is refused where courses would ask for each other in a circle', async () => {
    const { courses } = await readCatalog(world.db)
    const asking = courses.find((one) => /^[A-Z]+ \d+$/.test(one.prerequisite))!
    await expect(change(asking.prerequisite, { prerequisite: asking.code })).rejects.toMatchObject({
      fields: [expect.objectContaining({ field: 'prerequisite' })]
    })
  })
})

describe('a course that is new', () => {
  it('stands in the catalog, of a subject that may be new as well', async () => {
    await make({ code: courseCode('TIDE 240'), title: 'Tides', prerequisite: 'ENVI 101' })
    expect(await courseIn(courseCode('TIDE 240'))).toMatchObject({ title: 'Tides', prerequisite: 'ENVI 101' })
    expect((await readCatalog(world.db)).subjects.map((one) => one.code)).toContain('TIDE')
    const [logged] = await world.db
      .select({ after: t.eventLog.after })
      .from(t.eventLog)
      .where(eq(t.eventLog.action, 'course.written'))
      .orderBy(t.eventLog.id)
      .limit(1)
    expect(logged?.after).toHaveProperty('code')
  })
  it('is refused where there is one of that code', async () => {
    await expect(make({ code: courseCode('ENVI 101') })).rejects.toMatchObject({ code: 'known' })
  })
})

describe('what a course would do', () => {
  const effect = async (course: WrittenCourse, from = 0) =>
    effectOfCourse(
      world.db,
      { ...course, from },
      { catalogContext: await readCatalogContext(world.db), now: (await at(world)).now }
    )
  /** A course that many have. */
  const common = async () => {
    const [row] = await world.db
      .select({ code: t.course.code })
      .from(t.course)
      .innerJoin(t.plannedCourse, eq(t.plannedCourse.courseId, t.course.id))
      .limit(1)
    return (await written(row!.code)).course
  }

  it('is nothing where nothing is changed, of those who have it lot by lot', async () => {
    const course = await common()
    const first = await effect(course)
    expect(first.of).toBe((await written(course.code)).students)
    expect(first.students.length).toBe(Math.min(first.of, EFFECT_LOT))
    expect(first.students.flatMap((one) => one.effects)).toEqual([])
    const next = await effect(course, EFFECT_LOT)
    expect(next.students.map((one) => one.id)).not.toContain(first.students[0]!.id)
  })
  it('is told where a rule is set that its students do not meet', async () => {
    const course = await common()
    const { students } = await effect({
      ...course,
      prerequisite: 'standing graduate',
      level: 'undergraduate'
    })
    const told = students.flatMap((one) => one.effects)
    expect(told.some((one) => one.of === 'findings' && one.isWorse)).toBe(true)
    expect((await courseIn(course.code))?.prerequisite).toBe(course.prerequisite)
  })
  it('is not told of a course that cannot be so', async () => {
    await expect(effect({ ...(await common()), prerequisite: 'and' })).rejects.toMatchObject({
      fields: [expect.objectContaining({ field: 'prerequisite' })]
    })
  })
})

describe('a course list', () => {
  const list = (over: Partial<WrittenList> = {}): WrittenList => ({
    ...{ name: 'tidal', catalogYear: '2040-41', title: 'Tidal courses', from: 'ENVI 300-499' },
    ...over
  })
  const makeOne = async (over: Partial<WrittenList> = {}) => {
    const who = await edda()
    return within(world, (tx) => makeList(tx, who, list(over)))
  }

  it('is there from its year on, and is followed by later years only', async () => {
    const { courses } = await makeOne()
    expect(courses).toBeGreaterThan(0)
    await expect(makeOne()).rejects.toMatchObject({ fields: [{ field: 'catalogYear' }] })
    await makeOne({ catalogYear: '2041-42', from: 'ENVI 300+' })
    expect((await readCatalog(world.db)).lists.filter((one) => one.name === 'tidal')).toHaveLength(2)
  })
  it('stays as it is for programs that are published', async () => {
    const { lists } = await readCatalog(world.db)
    const versions = await world.db.select().from(t.programVersion)
    const asksFor = (name: string) =>
      versions.find((one) => JSON.stringify(one.areas).includes(`list ${name}`))
    const { name } = lists.find((one) => asksFor(one.name))!
    const { id: _, ...asking } = asksFor(name)!
    await world.db.insert(t.programVersion).values({ ...asking, catalogYear: '2045-46' })
    await expect(makeOne({ name, catalogYear: '2044-45' })).rejects.toMatchObject({
      fields: [{ field: 'catalogYear', message: expect.stringContaining('published') as string }]
    })
    await expect(makeOne({ name, catalogYear: '2050-51' })).resolves.toBeDefined()
  })
  it.each([
    ['ENVI', 'from'],
    ['list no-such', 'from'],
    ['list tidal-loop', 'from'],
    ['ENVI 999', 'from'],
    ['ZZZZ *', 'from']
  ])('of "%s" is refused', async (from, field) => {
    await expect(makeOne({ name: 'tidal-loop', from })).rejects.toMatchObject({
      fields: [expect.objectContaining({ field })]
    })
  })
})
