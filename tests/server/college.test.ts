/** What the college itself is: written part by part, from nothing on; what something rests on stays. */
import { sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { whoIs } from '#server/features/accounts/accounts'
import { collegeBody, type CollegePage, type CollegeSaid } from '#shared/offices/college'
import { connect, inTransaction, type Connection } from '#server/db/connect'
import { migrateDatabase } from '#server/db/migrate'
import { readCatalog } from '#server/features/catalog/catalog'
import { readCollege, writeCollege } from '#server/features/offices/college'
import { makeTerm } from '#server/features/terms/newTerm'
import { newTermBody } from '#shared/offices/terms'
import * as t from '#server/db/schema/index'
import { at, demoWorld, freshDatabase, person, within, type World } from './world'

const said = (over: object) => collegeBody.parse(over)
type Part = CollegeSaid['part']

describe('the college of the demo', () => {
  let world: World
  beforeAll(async () => {
    world = await demoWorld('college')
  })
  afterAll(() => world.close())

  async function write(part: Part, over: (page: CollegePage) => object): Promise<CollegePage> {
    const page = await readCollege(world.db)
    const [who, { now }] = [await person(world.db, 'Edda Whitlock'), await at(world)]
    await within(world, (tx) =>
      writeCollege(tx, { who, now }, said({ ...page, ...over(page), part, version: page.version }))
    )
    return readCollege(world.db)
  }

  it.each<Part>(['frame', 'rooms', 'subjects', 'categories', 'grades'])(
    'is the same where its %s is written as it is',
    async (part) => {
      const before = await readCollege(world.db)
      const after = await write(part, () => ({}))
      expect({ ...after, version: 0 }).toEqual({ ...before, version: 0 })
      expect(after.version).toBe(before.version + 1)
    }
  )

  it('takes what is new, and what is changed, and lets go what nothing rests on', async () => {
    const rooms = await write('rooms', ({ buildings, campuses }) => ({
      buildings: [
        ...buildings,
        {
          id: null,
          campus: campuses[0]!.code,
          name: 'Tide Mill',
          rooms: [{ id: null, name: '1', seats: 12 }]
        }
      ]
    }))
    const mill = rooms.buildings.find((one) => one.name === 'Tide Mill')!
    expect(mill.rooms).toEqual([{ id: expect.any(Number) as number, name: '1', seats: 12 }])
    const gone = await write('rooms', ({ buildings }) => ({
      buildings: buildings.filter((one) => one.name !== 'Tide Mill')
    }))
    expect(gone.buildings.map((one) => one.name)).not.toContain('Tide Mill')

    const subjects = await write('subjects', (page) => ({
      departments: [...page.departments, { id: null, name: 'Tides' }],
      subjects: [...page.subjects, { code: 'TIDE', name: 'Tides', college: '', department: 'Tides' }]
    }))
    expect(subjects.subjects).toContainEqual({
      code: 'TIDE',
      name: 'Tides',
      college: '',
      department: 'Tides'
    })
    const categories = await write('categories', (page) => ({
      categories: [...page.categories, { id: null, family: 'More', code: 'tidal', title: 'Tidal' }]
    }))
    expect((await readCatalog(world.db)).categories).toContainEqual({
      ...{ family: 'More', code: 'tidal', title: 'Tidal' }
    })
    expect(categories.categories.at(-1)).toMatchObject({ code: 'tidal' })
    const grades = await write('grades', (page) => ({
      grades: [...page.grades, { grade: 'AA', points: 4.3, result: 'earned', rank: 4.3 }]
    }))
    expect(grades.grades.at(-1)).toEqual({ grade: 'AA', points: 4.3, result: 'earned', rank: 4.3 })
  })

  it.each<[string, Part, string, (page: CollegePage) => object]>([
    ['its zone, once there are terms', 'frame', 'timeZone', () => ({ timeZone: 'America/Halifax' })],
    [
      'the code of a campus',
      'frame',
      'campuses',
      ({ campuses }) => ({
        campuses: campuses.map((one, i) => (i ? one : { ...one, code: 'ELSE' })),
        travel: []
      })
    ],
    [
      'a campus of which there are sections',
      'frame',
      'campuses',
      ({ campuses }) => ({
        campuses: campuses.slice(1),
        travel: []
      })
    ],
    [
      'ways between campuses that there are',
      'frame',
      'travel',
      () => ({
        travel: [{ from: 'HILL', to: 'NOWHERE', minutes: 5 }]
      })
    ],
    ['a building with rooms in which classes are held', 'rooms', 'buildings', () => ({ buildings: [] })],
    [
      'rooms by the numbers that there are',
      'rooms',
      'buildings',
      ({ buildings }) => ({
        buildings: buildings.map((one, i) => (i ? one : { ...one, id: 99_999 }))
      })
    ],
    [
      'buildings on campuses that there are',
      'rooms',
      'buildings',
      ({ buildings }) => ({
        buildings: [...buildings, { id: null, campus: 'NOWHERE', name: 'Mill', rooms: [] }]
      })
    ],
    ['a subject of courses', 'subjects', 'subjects', ({ subjects }) => ({ subjects: subjects.slice(1) })],
    [
      'departments that there are',
      'subjects',
      'subjects',
      ({ subjects }) => ({
        subjects: subjects.map((one) => ({ ...one, department: 'Elsewhere' }))
      })
    ],
    ['a category that a published program asks for', 'categories', 'categories', () => ({ categories: [] })],
    [
      'a grade that somebody has',
      'grades',
      'grades',
      ({ grades, given }) => ({
        grades: grades.filter((one) => one.grade !== given[0])
      })
    ],
    [
      'what such a grade means',
      'grades',
      'grades',
      ({ grades, given }) => ({
        grades: grades.map((one) => (one.grade === given[0] ? { ...one, rank: 1.1 } : one))
      })
    ]
  ])('keeps %s', async (_, part, field, over) => {
    const before = await readCollege(world.db)
    await expect(write(part, over)).rejects.toMatchObject({ fields: [{ field }] })
    expect(await readCollege(world.db)).toEqual(before)
  })

  it('keeps a campus that a published program asks for', async () => {
    const quay = { id: null, code: 'QUAY', name: 'Old Quay' }
    const { campuses } = await write('frame', (page) => ({ campuses: [...page.campuses, quay] }))
    await world.db.execute(
      sql`update program_version set rules = replace(rules, 'campus HARBOUR', 'campus QUAY')`
    )
    const without = () => ({ campuses: campuses.filter((one) => one.code !== 'QUAY') })
    await expect(write('frame', without)).rejects.toMatchObject({
      fields: [{ field: 'campuses', message: 'has to keep Old Quay: a published program asks for it' }]
    })
    await world.db.execute(
      sql`update program_version set rules = replace(rules, 'campus QUAY', 'campus HARBOUR')`
    )
    expect((await write('frame', without)).campuses.map((one) => one.code)).not.toContain('QUAY')
  })

  it('is not written over by who has not read it as it is', async () => {
    const { version, categories } = await readCollege(world.db)
    const [who, { now }] = [await person(world.db, 'Edda Whitlock'), await at(world)]
    await expect(
      within(world, (tx) =>
        writeCollege(tx, { who, now }, said({ part: 'categories', version: version - 1, categories }))
      )
    ).rejects.toMatchObject({ code: 'changedMeanwhile' })
  })
})

describe('a college that is new', () => {
  let connection: Connection
  beforeAll(async () => {
    const url = await freshDatabase('college_new')
    await migrateDatabase(url)
    connection = connect(url)
  })
  afterAll(() => connection.close())

  it('begins with its name, its time and a campus; then its first term can be made', async () => {
    const { db } = connection
    const now = Date.parse('2027-04-09T13:40:00Z')
    const [made] = await db
      .insert(t.account)
      .values({ signIn: 'first', name: 'First Registrar', role: 'registrar', passwordHash: '' })
      .$returningId()
    const who = await whoIs(db, made!.id)
    const write = (body: object) => inTransaction(db, (tx) => writeCollege(tx, { who, now }, said(body)))
    const empty = await readCollege(db)
    expect(empty).toMatchObject({ version: 0, name: '', campuses: [], hasTerms: false })
    await expect(write({ part: 'categories', version: 0, categories: [] })).rejects.toMatchObject({
      code: 'notSetUp'
    })
    await write({
      ...{ part: 'frame', version: 0, name: 'Saltmarsh College', timeZone: 'America/Halifax', travel: [] },
      campuses: [{ id: null, code: 'QUAY', name: 'Quay' }]
    })
    expect(await readCollege(db)).toMatchObject({ version: 1, name: 'Saltmarsh College' })
    const term = newTermBody.parse({
      ...{ code: 'AU27', name: 'Autumn 2027', season: 'autumn', start: '2027-08-30', end: '2027-12-17' }
    })
    await inTransaction(db, (tx) => makeTerm(tx, who, term, { now, zone: 'America/Halifax' }))
    expect((await readCatalog(db)).terms.map((one) => one.code)).toEqual(['AU27'])
    expect((await readCollege(db)).hasTerms).toBe(true)
  })
})
