/** What waits for a student, on the days on which it was passed over. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { totalOf } from '#core/charges'
import type { Section } from '#core/week'
import type { StudentRecord } from '#shared/record/responses'
import { readStudent, termAtWork } from '#shared/reading'
import type { TodoQuestion } from '#shared/today/task'
import { nothingToDo, thingsToDo } from '#shared/today/todo'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { demoWorld, idOf, OPENS, person, type World } from './world'

const NOW = Date.parse('2027-04-09T13:00:00Z')
let world: World
beforeAll(async () => {
  world = await demoWorld('todo')
})
afterAll(() => world.close())

async function studentRecord(name: string): Promise<StudentRecord> {
  const [found] = await readStudentRecords(world.db, [idOf(await person(world.db, name))], 'self')
  return found!
}
const things = (of: TodoQuestion['studentRecord'], now = NOW, catalogContext = world.catalogContext) => {
  const reading = readStudent(of, catalogContext, now)
  return thingsToDo({ studentRecord: of, reading, catalogContext, work: termAtWork(reading, undefined), now })
}
const said = (of: TodoQuestion['studentRecord'], now?: number) => things(of, now).map((one) => one.title)

describe('what is to do', () => {
  it('begins with what stops, whatever else there is', () => {
    return Promise.all(
      ['Imke Varga', 'Bram Ostrander', 'Tamsin Roe', 'Felix Abara', 'Mira Sandoval'].map(async (name) => {
        const order = ['runsOut', 'stops', 'attention', 'plain', 'later']
        const urgent = things(await studentRecord(name)).map((one) => order.indexOf(one.urgency))
        expect(urgent).toEqual(urgent.toSorted((a, b) => a - b))
      })
    )
  })
  it('is to find another part where one that was held is cancelled', async () => {
    const imke = await studentRecord('Imke Varga')
    const offer = world.catalogContext.offers.get('AU27')!.sections
    const main = offer.find((one) => one.course === 'SOIL 220' && one.parent === null)!
    const lab = offer.find((one) => one.parent === main.code)!
    const holding = (parts: Section[]): StudentRecord => ({
      ...imke,
      sections: [...imke.sections, main, ...parts],
      held: [
        ...imke.held,
        {
          ...{ course: main.course, term: main.term, credits: 4, placedByOffice: false, section: main.code },
          components: parts.map((one) => one.code)
        } as unknown as StudentRecord['held'][number]
      ]
    })
    const told = (parts: Section[]) => said(holding(parts)).filter((title) => title.includes('without its'))
    expect(told([lab])).toEqual([])
    expect(told([])).toEqual(['You hold SOIL 220 without its lab'])
  })
  it('is to apply to graduate in the weeks before that closes, where the route is complete, and once', async () => {
    const ingrid = await studentRecord('Ingrid Solheim')
    const DAY = 86_400_000
    const told = (of: TodoQuestion['studentRecord'], left: number) => {
      const terms = world.catalogContext.terms.map((term) =>
        term.code === 'SP28' ? { ...term, graduateBy: NOW + left } : term
      )
      return things(of, NOW, { ...world.catalogContext, terms })
        .map((one) => one.title)
        .filter((title) => title.includes('graduate'))
    }
    expect(told(ingrid, 46 * DAY)).toEqual([])
    expect(told(ingrid, 45 * DAY)).toEqual(['Apply to graduate in Spring 2028'])
    expect(told(ingrid, 0)).toEqual([])
    const applied = {
      ...{ id: 1, program: 'Certificate', catalogYear: '2026-27', term: 'SP28' as never },
      ...{ state: 'asked' as const, askedAt: NOW, awarded: null }
    }
    expect(told({ ...ingrid, graduations: [applied] }, DAY)).toEqual([])
    expect(told(await studentRecord('Saoirse Lindqvist'), DAY)).toEqual([])
    const awarded = { ...applied, state: 'awarded' as const, awarded: { at: NOW, by: 'Edda Whitlock' } }
    const closed = { ...(await studentRecord('Imke Varga')), graduations: [awarded] }
    expect(said(closed)).toEqual([])
    expect(nothingToDo({ studentRecord: closed, work: undefined })).toContain('your record closed')
  })
  it('begins with an offered seat as long as it stands, and then says nothing of the place in line', async () => {
    const mira = await studentRecord('Mira Sandoval')
    const { section, sections, course, term } = mira.waiting[0]!
    expect(said(mira)).toContain(`In line for ${course}`)
    const until = NOW + 3_600_000
    const offered = { ...mira, offers: [{ id: 1, course, term, sections, offeredAt: NOW, until }] }
    expect(things(offered)[0]).toMatchObject({
      title: `A seat in ${course} is held for you`,
      when: '1 h 0 m left',
      urgency: 'runsOut'
    })
    expect(said(offered)).not.toContain(`In line for ${course}`)
    expect(said(offered, until)).not.toContain(`A seat in ${course} is held for you`)
    expect(sections).toContain(section)
    // It is neither to be registered nor to be picked anew.
    const titles = said({ ...offered, offers: [] }).join()
    expect(titles).not.toContain(`${course} cannot be registered`)
    expect(titles).not.toMatch(/has filled since/)
  })
  it('tells of what an advisor wrote until it is read, and of what was agreed from a week before its day', async () => {
    const imke = await studentRecord('Imke Varga')
    const remark = { id: 3, by: 'Orla Denholt', own: false, text: 'Try SOIL 220 first.', at: NOW, to: [] }
    const thread = {
      id: 2,
      number: 1,
      about: { is: 'route' as const, key: null },
      advisorsOnly: false,
      settled: null
    }
    const talk = (unread: number) => [{ ...thread, remarks: [remark], unread }]
    expect(said({ ...imke, talk: talk(1) })).toContain('Orla Denholt wrote to you')
    expect(said({ ...imke, talk: talk(0) })).not.toContain('Orla Denholt wrote to you')
    const seen = { ...imke, relation: 'programAdvisor' as const, talk: talk(1) }
    expect(said(seen)).not.toContain('Orla Denholt wrote to you')
    const line = {
      id: 9,
      what: 'Send the hours',
      who: 'student' as const,
      madeBy: 'Orla Denholt',
      madeAt: 0,
      done: null
    }
    const due = (day: string, over: object = {}) =>
      things({ ...imke, agreed: [{ ...line, due: day, ...over }] }).find(
        (one) => one.title === 'Send the hours'
      )
    expect(due('2027-04-16')).toMatchObject({ urgency: 'plain', when: 'by 16 Apr' })
    expect(due('2027-04-08')).toMatchObject({ urgency: 'attention', when: 'was due 8 Apr' })
    expect(due('2027-04-17')).toBeUndefined()
    expect(due('2027-04-08', { who: 'programAdvisor' })).toBeUndefined()
    expect(due('2027-04-08', { done: { by: 'Imke Varga', at: 0 } })).toBeUndefined()
  })
  it('answers a review of a term with what is missing', async () => {
    const imke = await studentRecord('Imke Varga')
    const [review] = imke.reviews
    const answer = { by: 'Orla Denholt', at: NOW, missing: 'A course less.' }
    const found = things({ ...imke, reviews: [{ ...review!, answer }] })
    expect(found.find((one) => one.id === 'not yet AU27')).toMatchObject({
      text: 'Orla Denholt: “A course less.”'
    })
  })
  it('tells of seats in which an office placed the student', async () => {
    expect(said(await studentRecord('Tamsin Roe'))).toContain('An office placed you in HERI 210, LANG 201')
  })
  it('tells that a program reported as wrong waits for the registrar', async () => {
    const felix = await studentRecord('Felix Abara')
    const [first, ...others] = felix.programs
    const reported = { ...first!, confirmed: 'wrong' as const, saidInstead: 'Environmental data' }
    const wrong = things({ ...felix, programs: [reported, ...others] }).find((one) =>
      one.id.startsWith('program')
    )
    expect(wrong).toMatchObject({ when: 'waits for the registrar', urgency: 'attention' })
    expect(wrong!.text).toContain('“Environmental data”')
  })
  it('tells of payment that is due, on the day, and once the day is past, where it is not known here', async () => {
    const tamsin = await studentRecord('Tamsin Roe')
    const term = world.catalogContext.terms.find((one) => one.code === 'AU27')!
    const unknown = {
      ...world.catalogContext,
      terms: world.catalogContext.terms.map((one) => ({ ...one, prices: null }))
    }
    const noon = Date.parse(`${term.paymentDueOn}T16:00:00Z`)
    const of = (days: number) =>
      things(tamsin, noon + days * 86_400_000, unknown).find((one) => one.id === 'payment AU27')
    expect(of(-20)).toBeUndefined()
    expect(of(0)).toMatchObject({ title: 'Payment for Autumn 2027 is due', when: 'today' })
    expect(of(1)).toMatchObject({ title: 'Payment for Autumn 2027 was due', urgency: 'attention' })
  })
  it('tells what is owed, the louder the nearer the day on which seats are lost, and nothing that is paid', async () => {
    const mira = await studentRecord('Mira Sandoval')
    const account = { ...mira.accounts[0]!, paid: 0, notices: [] }
    const owing = { ...mira, accounts: [account] }
    const of = (day: string, notices: string[] = []) =>
      things(
        { ...owing, accounts: [{ ...account, notices: notices.map((at) => Date.parse(`${at}T16:00:00Z`)) }] },
        Date.parse(`${day}T16:00:00Z`)
      ).find((one) => one.id === 'payment AU27')
    expect(of('2027-05-03')).toMatchObject({ urgency: 'later', when: 'by 2 Aug' })
    expect(of('2027-07-20')).toMatchObject({
      urgency: 'attention',
      text: 'Seats that are not paid for by then are given back on Tue 3 Aug 2027.'
    })
    expect(of('2027-08-02', ['2027-07-19', '2027-07-30'])).toMatchObject({
      urgency: 'runsOut',
      when: 'today'
    })
    expect(of('2027-08-30')).toMatchObject({
      urgency: 'runsOut',
      text: 'Seats that are not paid for by then are given back on Fri 3 Sep 2027.'
    })
    expect(of('2027-09-20')).toMatchObject({ urgency: 'attention', text: 'It was due on Mon 2 Aug 2027.' })
    const paid = { ...mira, accounts: [{ ...account, paid: totalOf(account.charges) }] }
    expect(things(paid, Date.parse('2027-08-01T16:00:00Z')).map((one) => one.id)).not.toContain(
      'payment AU27'
    )
    // What an office placed stays, so nothing is said of losing it.
    const placed = { ...owing, held: owing.held.map((seat) => ({ ...seat, placedByOffice: true })) }
    const told = things(placed, Date.parse('2027-08-02T16:00:00Z')).find((one) => one.id === 'payment AU27')
    expect(told).toMatchObject({ urgency: 'attention', text: 'It is due on Mon 2 Aug 2027.' })
  })
  it('tells of a pick that the run would refuse as of the opening', async () => {
    const imke = await studentRecord('Imke Varga')
    const draft = imke.drafts.find((one) => one.term === 'AU27' && one.goingWith)!
    const picked = new Set<string>(draft.sections)
    const closed: Section[] = imke.sections.map((one) =>
      picked.has(one.code) && one.parent === null ? { ...one, permissionNeeded: true } : one
    )
    const before = things(imke, OPENS).filter((one) => one.id.startsWith('impossible'))
    const after = things({ ...imke, sections: closed }, OPENS).filter((one) =>
      one.id.startsWith('impossible')
    )
    expect(after.length).toBeGreaterThan(before.length)
    expect(after.map((one) => one.text)).toContain(
      'It needs the permission of the instructor or the department.'
    )
  })
})
