/** Sets of files that are brought: nothing differs where nothing is other, and a college comes into being by files alone. */
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { connect, inTransaction, type Database } from '#server/db/connect'
import { migrateDatabase } from '#server/db/migrate'
import * as t from '#server/db/schema/index'
import { whoIs } from '#server/features/accounts/accounts'
import { inviteFirst } from '#server/features/accounts/staff'
import { readCatalogContext } from '#server/features/catalog/context'
import { applyImport, exportRoster, planImport, readImport, undoImport } from '#server/features/files/imports'
import { readStudentRecords } from '#server/features/record/studentRecords'
import type { RosterFile } from '#shared/oneRoster/read'
import type { Table } from '#shared/oneRoster/tables'
import { readStudent } from '#shared/reading'
import { at, demoWorld, freshDatabase, keepStudents, person, within, type World } from './world'

let world: World
beforeAll(async () => {
  world = await demoWorld('imports')
})
afterAll(() => world.close())

const context = async () => ({ who: await person(world.db, 'Edda Whitlock'), ...(await at(world)) })
async function bring(files: readonly RosterFile[]) {
  const { id } = await planImport(world.db, await context(), { name: 'a set', files })
  return readImport(world.db, id)
}
const apply = async (id: number, leaveOut: Table[] = []) =>
  within(world, async (tx) => applyImport(tx, await context(), id, { leaveOut, lines: [] }))
const undo = async (id: number) => within(world, async (tx) => undoImport(tx, await context(), id))
const refusal = (work: Promise<unknown>) =>
  work.then(
    () => 'went through',
    (error: { code?: string }) => error.code
  )
const file = (files: readonly RosterFile[], name: string) => files.find((one) => one.name === `${name}.csv`)!
const replaced = (files: readonly RosterFile[], name: string, change: (text: string) => string) =>
  files.map((one) => (one.name === `${name}.csv` ? { ...one, text: change(one.text) } : one))

describe('the whole of a college as files', () => {
  it('is brought again without a difference, all 300 students with all that they took', async () => {
    const files = await exportRoster(world.db)
    const { faults, counts, all } = await bring(files)
    expect(faults).toEqual([])
    expect(all).toBe(0)
    for (const [table, of] of Object.entries(counts))
      expect([table, Object.keys(of)]).toEqual([table, ['same']])
    expect(counts.enrollments!.same).toBeGreaterThan(3000)
    expect(counts.users!.same).toBeGreaterThan(300)
    await keepStudents(world, 40)
  })

  it('with three bad lines takes over the others, tells the three, and is taken back', async () => {
    const files = await exportRoster(world.db)
    const rows = [
      'n1,,,,Peatland Restoration,PEAT 310,,institution,Peat,,4,,,,,',
      'n2,,,,No Such Code,peat,,institution,Peat,,4,,,,,',
      'n3,,,,Nobody’s Course,PEAT 311,,org-9,Peat,,4,,,,,',
      'n4,,,,Without Credits,PEAT 312,,institution,Peat,,,,,,,,'
    ]
    const header = file(files, 'courses').text.split('\r\n')[0]!
    const cells = header.split(',').length
    const text = [header, ...rows.map((row) => row.split(',').slice(0, cells).join(','))].join('\n')
    const lines = replaced(
      files,
      'courses',
      (before) => `${before}${text.split('\n').slice(1).join('\r\n')}\r\n`
    )
    const brought = await bring(lines)
    expect(brought.faults.map((one) => one.message)).toEqual([
      'courseCode has to be a course code such as ENVI 310.',
      'orgSourcedId names org-9: there is no such line that can be read.',
      'metadata.credits is needed of a course that is not here yet.'
    ])
    expect(brought.items).toMatchObject([{ id: 'course-PEAT-310', change: 'new' }])
    await apply(brought.id)
    const [made] = await world.db.select().from(t.course).where(eq(t.course.code, 'PEAT 310'))
    expect(made).toMatchObject({ title: 'Peatland Restoration', credits: 4, yearLevel: 3 })
    expect(await refusal(apply(brought.id))).toBe('ended')
    await undo(brought.id)
    expect(await world.db.select().from(t.course).where(eq(t.course.code, 'PEAT 310'))).toEqual([])
    expect(await exportRoster(world.db)).toEqual(files)
  })

  it('changes what differs, and gives back what was before; not over what was changed since', async () => {
    const files = await exportRoster(world.db)
    const renamed = replaced(files, 'courses', (text) =>
      text.replace('The Living Landscape', 'The Living Land')
    )
    const brought = await bring(renamed)
    expect(brought.items).toMatchObject([
      {
        id: 'course-ENVI-101',
        change: 'changed',
        fields: [{ before: 'The Living Landscape', after: 'The Living Land' }]
      }
    ])
    await apply(brought.id)
    const title = async () =>
      (await world.db.select().from(t.course).where(eq(t.course.code, 'ENVI 101')))[0]!.title
    expect(await title()).toBe('The Living Land')
    await world.db.update(t.course).set({ title: 'Other' }).where(eq(t.course.code, 'ENVI 101'))
    expect(await refusal(undo(brought.id))).toBe('changedSince')
    await world.db.update(t.course).set({ title: 'The Living Land' }).where(eq(t.course.code, 'ENVI 101'))
    await undo(brought.id)
    expect(await title()).toBe('The Living Landscape')
  })

  it('is not written over what has changed since it was looked at', async () => {
    const files = await exportRoster(world.db)
    const renamed = replaced(files, 'courses', (text) =>
      text.replace('The Living Landscape', 'The Living Land')
    )
    const { id } = await bring(renamed)
    await world.db.update(t.course).set({ title: 'Other' }).where(eq(t.course.code, 'ENVI 101'))
    expect(await refusal(apply(id))).toBe('movedOn')
    await world.db
      .update(t.course)
      .set({ title: 'The Living Landscape' })
      .where(eq(t.course.code, 'ENVI 101'))
  })

  it('posts the grades of a term under way, and tells whose record is another', async () => {
    const files = await exportRoster(world.db)
    const open = file(files, 'enrollments')
      .text.split('\r\n')
      .filter((line) => line.startsWith('taken-SP27-') && line.includes('student-H204007'))
    const [first] = open
    const [, about] = /^taken-SP27-([A-Z]+-\d+)-/.exec(first!)!
    const result = `g1,,,final-SP27-${about!},student-H204007,fully graded,,2027-05-14,,A-,,,,,`
    const graded = replaced(files, 'results', (text) => `${text}${result}\r\n`)
    const brought = await bring(graded)
    expect(brought.faults).toEqual([])
    expect(brought.items).toMatchObject([{ id: `grade-SP27-${about!}-student-H204007`, change: 'new' }])
    await apply(brought.id)
    const [record] = await readStudentRecords(world.db, [1], 'registrar')
    const course = about!.replace('-', ' ')
    expect(record!.record.find((one) => one.course === course && one.term === 'SP27')!.grade).toBe('A-')
    const told = await world.db.select().from(t.eventLog).where(eq(t.eventLog.action, 'record.brought'))
    expect(told.map((one) => one.studentId)).toEqual([1])
    await undo(brought.id)
  })

  it('brings no seats of a term to come, and no grade that the scale does not have', async () => {
    const files = await exportRoster(world.db)
    const odd = file(files, 'results')
      .text.split('\r\n')
      .find((line) => line.includes(',A,'))!
    const spoilt = replaced(
      replaced(files, 'results', (text) => text.replace(odd, odd.replace(',A,', ',AAA,'))),
      'enrollments',
      (text) => `${text}e1,,,class-AU27-ENDA-410-01,institution,student-H204007,student,,,,\r\n`
    )
    const { faults, items } = await bring(spoilt)
    expect(faults.map((one) => one.message)).toEqual([
      'textScore is needed, a grade of the scale, which has no AAA.'
    ])
    expect(items).toMatchObject([
      { change: 'left', reason: 'Seats of a term to come are registered, not brought.' }
    ])
  })

  it('is not taken over in part where the rest would hang in the air', async () => {
    const files = await exportRoster(world.db)
    const header = file(files, 'academicSessions').text
    const more = `${header}n1,,,Autumn 2031,term,2031-08-25,2031-12-19,,2032,,\r\nn2,,,First part,gradingPeriod,2031-08-25,2031-10-10,n1,2032,,\r\n`
    const line = (text: string) =>
      `${text}k1,,,Landscape,,course-ENVI-101,01,scheduled,,campus-HILL,n2,,,,20,MW 09:30-10:45,,,\r\n`
    const brought = await bring(
      replaced(
        replaced(files, 'academicSessions', () => more),
        'classes',
        line
      )
    )
    expect(brought.faults).toEqual([])
    expect(await refusal(apply(brought.id, ['academicSessions']))).toBe('restsOn')
    await apply(brought.id)
    const [section] = await world.db
      .select({
        capacity: t.section.capacity,
        session: t.session.name,
        from: t.meeting.fromOn,
        days: t.meeting.days
      })
      .from(t.section)
      .innerJoin(t.term, eq(t.term.id, t.section.termId))
      .innerJoin(t.session, eq(t.session.id, t.section.sessionId))
      .innerJoin(t.meeting, eq(t.meeting.sectionId, t.section.id))
      .where(eq(t.term.code, 'AU31'))
    expect(section).toEqual({ capacity: 20, session: 'First part', from: '2031-08-25', days: 'MW' })
    await undo(brought.id)
  })
})

describe('lines that no database would keep', () => {
  it('are told, with all that rests on them, and nothing of them is written', async () => {
    const files = await exportRoster(world.db)
    const add = (name: string, ...lines: string[]) => ({
      name: `${name}.csv`,
      text: [file(files, name).text.split('\r\n')[0]!, ...lines].join('\n')
    })
    const brought = await bring([
      add(
        'academicSessions',
        't2,,,Autumn 2032,term,2032-08-23,2032-12-17,,2033,,',
        't3,,,Part one,gradingPeriod,2032-08-23,2032-10-01,t2,2033,,',
        't4,,,Part two,gradingPeriod,2032-10-04,2032-12-17,t2,2033,,',
        't1,,,Long Summer,term,2032-07-01,2032-09-10,,2032,,'
      ),
      add(
        'courses',
        'c1,,,,No Rule,PEAT 401,,institution,Peat,,4,,MATH 125 nor 126,,,',
        'c2,,,,A Rule,PEAT 402,,institution,Peat,,4,,MATH 125 (C),,,'
      ),
      add(
        'classes',
        'k1,,,Early,,c2,01,scheduled,,campus-HILL,t1,,,,20,,,,',
        'k2,,,Late,,c2,1a,scheduled,,campus-HILL,t3,,,,20,,,,',
        'k3,,,Late too,,c2,1A,scheduled,,campus-HILL,t4,,,,20,,,,'
      ),
      add(
        'users',
        'u1,,,true,Ímke.Varga,,Other,Imke,,H999001,,,,,,,,,,,,,,,',
        'u2,,,true,new.one,,New,One,,h999002,,,,,,,,,,,,,,,'
      ),
      add('roles', 'r1,,,u1,primary,student,,,institution,', 'r2,,,u2,primary,student,,,institution,')
    ])
    expect(brought.faults.map(({ file: name, message }) => `${name}: ${message}`)).toEqual([
      expect.stringMatching(/^courses.csv: metadata.prerequisite has to be a rule such as/) as string,
      expect.stringMatching(/^academicSessions.csv: .* has some of these days/) as string,
      'users.csv: username Ímke.Varga is somebody else’s.'
    ])
    expect(brought.items.filter((one) => one.change === 'left').map((one) => one.reason)).toEqual([
      'It rests on term-SU32, which is not brought.',
      'Line 3 is about the same.'
    ])
    await apply(brought.id)
    const made = await world.db
      .select({ number: t.section.number, session: t.session.name, code: t.session.code })
      .from(t.section)
      .innerJoin(t.session, eq(t.session.id, t.section.sessionId))
      .innerJoin(t.course, eq(t.course.id, t.section.courseId))
      .where(eq(t.course.code, 'PEAT 402'))
    expect(made).toEqual([{ number: '1A', session: 'Part one', code: 'P2' }])
    const [student] = await world.db.select().from(t.student).where(eq(t.student.number, 'H999002'))
    expect(student!.number).toBe('H999002')
    await undo(brought.id)
  })
})

describe('a college that there was not', () => {
  const csv = (header: string, ...rows: string[]) => `${[header, ...rows].join('\n')}\n`
  const FILES: RosterFile[] = [
    {
      name: 'orgs.csv',
      text: csv(
        'sourcedId,name,type,identifier,parentSourcedId,metadata.timeZone',
        'q,Quillmoor School of Peat,district,,,Europe/Oslo',
        'm,Old Mill,school,MILL,q,'
      )
    },
    {
      name: 'academicSessions.csv',
      text: csv(
        'sourcedId,title,type,startDate,endDate,parentSourcedId,schoolYear',
        't1,Høst 2026,term,2026-08-24,2026-12-18,,2027',
        't2,Høst 2027,term,2027-08-23,2027-12-17,,2028'
      )
    },
    {
      name: 'courses.csv',
      text: csv(
        'sourcedId,title,courseCode,orgSourcedId,subjects,metadata.credits,metadata.prerequisite',
        'c1,Torv og myr,TORV 101,q,Torv,10,',
        'c2,Myras vann,TORV 201,q,Torv,10,TORV 101'
      )
    },
    {
      name: 'classes.csv',
      text: csv(
        'sourcedId,title,courseSourcedId,classCode,classType,schoolSourcedId,termSourcedIds,metadata.seats,metadata.meetings',
        'k1,Torv,c1,01,scheduled,m,t1,20,MW 09:30-10:45',
        'k2,Vann,c2,01,scheduled,m,t2,20,MW 09:30-10:45'
      )
    },
    {
      name: 'users.csv',
      text: csv(
        'sourcedId,enabledUser,username,givenName,familyName,identifier,email',
        'u1,true,runa,Rúna,Óskarsdóttir,Q000001,runa@quillmoor.example',
        'u2,true,odd,Odd,Fen,,odd@quillmoor.example'
      )
    },
    {
      name: 'roles.csv',
      text: csv(
        'sourcedId,userSourcedId,roleType,role,orgSourcedId',
        'r1,u1,primary,student,q',
        'r2,u2,primary,teacher,q'
      )
    },
    {
      name: 'enrollments.csv',
      text: csv(
        'sourcedId,classSourcedId,schoolSourcedId,userSourcedId,role',
        'e1,k1,m,u1,student',
        'e2,k2,m,u2,teacher'
      )
    },
    { name: 'lineItems.csv', text: csv('sourcedId,title,classSourcedId', 'l1,Final grade,k1') },
    {
      name: 'results.csv',
      text: csv(
        'sourcedId,lineItemSourcedId,studentSourcedId,scoreStatus,scoreDate,textScore',
        'x1,l1,u1,fully graded,2026-12-18,B+'
      )
    }
  ]

  async function empty(name: string): Promise<{ db: Database; close: () => Promise<void> }> {
    const url = await freshDatabase(name)
    await migrateDatabase(url)
    return connect(url, { connections: 4 })
  }

  it('comes into being by files alone: its courses, its sections, and what was taken', async () => {
    const { db, close } = await empty('second')
    await inviteFirst(db)
    const who = await whoIs(db, 1)
    const office = { who, now: Date.parse('2027-04-09T13:40:00Z') }
    const { id } = await planImport(db, office, { name: 'Quillmoor', files: FILES })
    const brought = await readImport(db, id)
    expect(brought.faults).toEqual([])
    await inTransaction(db, (tx) => applyImport(tx, office, id, { leaveOut: [], lines: [] }))
    const catalogContext = await readCatalogContext(db)
    expect(catalogContext.catalog.courses.map((one) => [one.code, one.credits])).toEqual([
      ['TORV 101', 10],
      ['TORV 201', 10]
    ])
    expect(catalogContext.terms.map((one) => one.name)).toEqual(['Høst 2026', 'Høst 2027'])
    const [record] = await readStudentRecords(db, [1], 'registrar')
    expect(record!.student).toMatchObject({ name: 'Rúna Óskarsdóttir', number: 'Q000001', campus: 'MILL' })
    expect(record!.record).toMatchObject([{ course: 'TORV 101', term: 'AU26', grade: 'B+', credits: 10 }])
    expect(readStudent(record!, catalogContext, office.now).attempts.counted).toMatchObject([
      { course: 'TORV 101' }
    ])
    const sections = await db.select().from(t.section)
    expect(sections.map((one) => [one.number, one.capacity])).toEqual([['01', 20]])
    expect(await db.select().from(t.sectionInstructor)).toHaveLength(1)

    // Taken away, it is the same set; brought again, nothing differs.
    const again = await planImport(db, office, { name: 'again', files: await exportRoster(db) })
    expect(await readImport(db, again.id)).toMatchObject({ faults: [], all: 0 })
    const same = await planImport(db, office, { name: 'same', files: FILES })
    expect((await readImport(db, same.id)).items.map((one) => [one.change, one.reason])).toEqual([
      ['left', 'Of a term that has begun only what is taken in it is brought.']
    ])
    await inTransaction(db, (tx) => undoImport(tx, office, id))
    for (const table of [t.institution, t.course, t.student, t.section, t.recordCourse])
      expect(await db.select().from(table)).toEqual([])
    await close()
  })

  it('is taken over without single lines that are left out, and without what is new and rests on them', async () => {
    const { db, close } = await empty('left_lines')
    await inviteFirst(db)
    const office = { who: await whoIs(db, 1), now: Date.parse('2027-04-09T13:40:00Z') }
    const { id } = await planImport(db, office, { name: 'Quillmoor', files: FILES })
    const { items } = await readImport(db, id)
    const line = (about: string) => {
      const found = items.find((one) => JSON.stringify(one.row).includes(about))!
      return { table: found.table, line: found.line }
    }
    // The course goes with its section, what was taken of it and the grade; the other one asks for it by name alone.
    const lines = [line('Torv og myr')]
    const { lines: written } = await inTransaction(db, (tx) =>
      applyImport(tx, office, id, { leaveOut: [], lines })
    )
    expect((await db.select().from(t.course)).map((one) => one.code)).toEqual(['TORV 201'])
    expect(await db.select().from(t.section)).toHaveLength(1)
    expect(await db.select().from(t.recordCourse)).toEqual([])
    expect(written).toBeLessThan(items.length - 1)
    expect(await db.select().from(t.student)).toHaveLength(1)
    await inTransaction(db, (tx) => undoImport(tx, office, id))
    expect(await db.select().from(t.course)).toEqual([])
    await close()
  })

  it('takes nothing over that rests on grades which are left out', async () => {
    const { db, close } = await empty('grades')
    await inviteFirst(db)
    const office = { who: await whoIs(db, 1), now: Date.parse('2027-04-09T13:40:00Z') }
    const own = ['g1,MVG,3,earned,3', 'g2,G,2,earned,2', 'g3,IG,0,failed,0', 'g4,UT,,withdrawn,0']
    const set = [
      ...replaced(
        replaced(FILES, 'results', (text) => text.replace('B+', 'MVG')),
        'courses',
        (text) => text.replace('10,TORV 101', '10,TORV 101 (G)')
      ),
      { name: 'grades.csv', text: csv('sourcedId,grade,points,result,rank', ...own) }
    ]
    const { id } = await planImport(db, office, { name: 'Quillmoor', files: set })
    expect((await readImport(db, id)).faults).toEqual([])
    const without = (...tables: Table[]) =>
      inTransaction(db, (tx) => applyImport(tx, office, id, { leaveOut: tables, lines: [] }))
    for (const [tables, field] of [
      [['grades'], 'courses'],
      [['grades', 'courses', 'classes', 'enrollments', 'lineItems'], 'results']
    ] as const)
      await expect(without(...tables)).rejects.toMatchObject({
        ...{ status: 422, code: 'restsOn' },
        fields: [{ field: 'leaveOut', message: expect.stringContaining(field) as string }]
      })
    expect(await db.select().from(t.course)).toEqual([])
    await without()
    expect(await db.select().from(t.course)).toHaveLength(2)
    await close()
  })
})
