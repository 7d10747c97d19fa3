/** Suggestions: what an advisor proposes, on a route that moves on meanwhile, and the student's answer. */
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { RouteChange, SingleChange } from '#core/findings'
import type { PlannedCourse } from '#core/degree'
import { courseCode, termCode, type TermCode } from '#core/ids'
import { plan } from '#core/route'
import * as t from '#server/db/schema/index'
import {
  answerSuggestions,
  explainSuggestion,
  readSuggestions,
  suggest,
  withdrawSuggestion
} from '#server/features/advising/suggestions'
import { changeRoute, plannedOn, stepRoute } from '#server/features/route/route'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { readRoutes } from '#server/features/route/routes'
import type { Who } from '#shared/accounts/responses'
import { effectsOf } from '#shared/advising/effects'
import { placeSuggestions, type PlacedSuggestion } from '#shared/advising/suggestions'
import { readStudent } from '#shared/reading'
import { viewOf, at, demoWorld, idOf, person, within, type World } from './world'

type Person = Who & { id: number }
let world: World
let imke: Person
let orla: Person
let nell: Person
beforeAll(async () => {
  world = await demoWorld('suggestions')
  imke = await person(world.db, 'Imke Varga')
  orla = await person(world.db, 'Orla Denholt')
  nell = await person(world.db, 'Nell Fairweather')
})
afterAll(() => world.close())
beforeEach(async () => void (await world.db.delete(t.suggestion)))

const doing = async (who: Who) => ({ who, student: idOf(imke), ...(await at(world)) })
const chosen = async () => (await readRoutes(world.db, idOf(imke))).find((one) => one.chosen)!
const listed = (who: Person, relation: 'self' | 'programAdvisor' | 'supportAdvisor' | 'registrar' = 'self') =>
  readSuggestions(world.db, idOf(imke), { account: who.id, relation })
const plans = async () =>
  (await plannedOn(world.db, (await chosen()).id!)).map(({ course, term }) => `${course}@${term}`)

async function proposes(who: Who, change: RouteChange, why: string | null = null): Promise<number> {
  const { id, version } = await chosen()
  const now = await doing(who)
  const relation = who.role === 'supportAdvisor' ? 'supportAdvisor' : 'programAdvisor'
  return (await within(world, (tx) => suggest(tx, now, relation, { route: id, version, change, why })))
    .suggestion
}
async function answers(answer: 'accepted' | 'declined', ...suggestions: number[]) {
  const { id, version } = await chosen()
  const now = await doing(imke)
  const said = { route: id, version, suggestions, answer, words: null }
  return within(world, (tx) => answerSuggestions(tx, now, said))
}
async function changes(change: RouteChange) {
  const { id, version } = await chosen()
  const now = await doing(imke)
  return within(world, (tx) => changeRoute(tx, now, { route: id, version, change }))
}
const move = (course: string, from: string, to: string): SingleChange => ({
  kind: 'move',
  course: courseCode(course),
  from: termCode(from),
  to: termCode(to)
})
/** Some course of the route that stands in a term far enough ahead. */
async function aCourse(): Promise<{ course: string; term: string }> {
  const found = (await chosen()).courses.find((one) => one.term === 'SP28')!
  return { course: found.course, term: found.term }
}

/** A course that is neither done nor planned, in a term ahead. */
async function another() {
  const there = new Set((await chosen()).courses.map((one) => one.course))
  return plan(
    world.catalogContext.catalog.courses.find((one) => !there.has(one.code))!,
    termCode('SP29')
  )
}

describe('what suggestions change', () => {
  it('is told in the figures that differ, each on top of the ones before it', async () => {
    const studentRecord = viewOf((await readStudentRecords(world.db, [idOf(imke)], 'self'))[0]!)
    const { now } = await at(world)
    const read = (courses: readonly PlannedCourse[]) =>
      readStudent(
        { ...studentRecord, route: { ...studentRecord.route, courses: [...courses] } },
        world.catalogContext,
        now
      )
    const needsIt = world.catalogContext.catalog.course(courseCode('STAT 330'))
    await proposes(orla, { kind: 'add', planned: plan(needsIt, termCode('SP28')) })
    await proposes(orla, move('HERI 210', 'SP28', 'AU28'))
    await proposes(orla, move('ENDA 490', 'SP29', 'SP28'))
    const [first, second, third] = placeSuggestions(
      await listed(imke),
      studentRecord.route.courses,
      () => true
    )
    const told = ({ now: { is }, before, after }: PlacedSuggestion, ...terms: TermCode[]) => {
      expect(is).toBe('applies')
      const list = effectsOf(read(before), read(after), terms, (code) => code)
      return list.map(({ of, before: was, after: is, isWorse }) => `${of} ${was} ${is}${isWorse ? ' !' : ''}`)
    }
    const [spring, autumn] = [termCode('SP28'), termCode('AU28')]
    // 13 credits planned for the spring; ENDA 410 in the autumn waits for STAT 330.
    expect(told(first!, spring)).toEqual(['SP28 13 cr 17 cr', 'findings 1 0', 'needed 21 cr 13 cr'])
    expect(told(second!, spring, autumn)).toEqual(['SP28 17 cr 14 cr', 'AU28 7 cr 10 cr'])
    // ENDA 490 comes after ENDA 480, which stands in the autumn; six credits are too many for the spring.
    expect(told(third!, spring)).toEqual(['SP28 14 cr 20 cr !', 'busiest 17 cr 20 cr !', 'findings 0 2 !'])
  })
})

describe('a suggestion', () => {
  it('changes nothing until it is accepted, and is then a step of the student that can be undone', async () => {
    const { course, term } = await aCourse()
    const before = await plans()
    const id = await proposes(orla, move(course, term, 'AU28'), 'Spring is full.')
    expect(await plans()).toEqual(before)
    expect(await listed(imke)).toMatchObject([
      { id, by: 'Orla Denholt', own: false, why: 'Spring is full.', state: 'waiting', answer: null }
    ])
    expect(await listed(orla, 'programAdvisor')).toMatchObject([{ own: true }])
    const { made } = await answers('accepted', id)
    expect(made).toMatchObject({ changedBy: 'Imke Varga' })
    expect(await plans()).toContain(`${course}@AU28`)
    expect(await listed(imke)).toMatchObject([{ state: 'accepted', answer: { by: 'Imke Varga' } }])
    const { id: routeId, version } = await chosen()
    const now = await doing(imke)
    await within(world, (tx) => stepRoute(tx, now, { route: routeId, version, step: 'undo' }))
    expect(new Set(await plans())).toEqual(new Set(before))
  })

  it('declined or taken back, leaves the route as it is and waits no more', async () => {
    const { course, term } = await aCourse()
    const before = await plans()
    await answers('declined', await proposes(orla, move(course, term, 'AU28')))
    const other = await proposes(orla, move(course, term, 'AU28'))
    const advisor = await doing(orla)
    await within(world, (tx) => withdrawSuggestion(tx, advisor, other))
    expect(await plans()).toEqual(before)
    expect(await listed(imke)).toMatchObject([{ state: 'declined' }])
    await expect(answers('accepted', other)).rejects.toMatchObject({ status: 409, code: 'notWaiting' })
    await expect(within(world, (tx) => withdrawSuggestion(tx, advisor, other))).rejects.toMatchObject({
      status: 409
    })
  })

  it('follows a course that the student has moved meanwhile', async () => {
    const { course, term } = await aCourse()
    const id = await proposes(orla, move(course, term, 'AU28'))
    await changes(move(course, term, 'SP29'))
    await answers('accepted', id)
    expect((await plans()).filter((one) => one.startsWith(course))).toEqual([`${course}@AU28`])
    await changes(move(course, 'AU28', term))
  })

  it('that cannot be made any more says why, waits on, and keeps none of the others from being made', async () => {
    const { course, term } = await aCourse()
    const other = (await chosen()).courses.find((one) => one.term === term && one.course !== course)!
    const id = await proposes(orla, move(course, term, 'AU28'))
    const second = await proposes(orla, move(other.course, term, 'AU28'))
    const planned = (await chosen()).courses.find((one) => one.course === course)!
    await changes({ kind: 'remove', planned })
    const why = `${course} is not on the route any more`
    await expect(answers('accepted', id)).rejects.toMatchObject({
      status: 409,
      code: 'suggestionGone',
      message: `It cannot be made: ${why}.`
    })
    expect(await answers('accepted', id, second)).toMatchObject({ gone: [{ suggestion: id, why }] })
    expect(await listed(imke)).toMatchObject([{ state: 'waiting' }, { state: 'accepted' }])
    await changes({ kind: 'add', planned })
    await changes(move(other.course, 'AU28', term))
  })

  it('several are accepted in their order, a step each; the later may rest on the earlier', async () => {
    const { course, term } = await aCourse()
    const first = await proposes(orla, move(course, term, 'AU28'))
    const extra = await another()
    const second = await proposes(nell, { kind: 'add', planned: extra })
    const { version } = await chosen()
    const answer = await answers('accepted', second, first)
    expect(answer).toMatchObject({ version: version + 2, made: { version: version + 2 } })
    expect(await plans()).toEqual(expect.arrayContaining([`${course}@AU28`, `${extra.course}@SP29`]))
    await changes({
      kind: 'several',
      changes: [move(course, 'AU28', term), { kind: 'remove', planned: extra }]
    })
  })

  it('gives way to the next one of the same advisor about the same course, and to no other', async () => {
    const { course, term } = await aCourse()
    await proposes(orla, move(course, term, 'AU28'))
    const fromNell = await proposes(nell, move(course, term, 'AU28'))
    const again = await proposes(orla, move(course, term, 'SP29'))
    expect((await listed(imke)).map((one) => [one.id, one.number])).toEqual([
      [fromNell, 4],
      [again, 3]
    ])
  })

  it('has to be one that can be made, on the route that was seen', async () => {
    const { course, term } = await aCourse()
    await expect(proposes(orla, move(course, 'SP29', term))).rejects.toMatchObject({ code: 'notInTerm' })
    await expect(proposes(orla, move(course, term, 'AU26'))).rejects.toMatchObject({ code: 'termClosed' })
    const { id, version } = await chosen()
    const now = await doing(orla)
    const late = { route: id, version: version - 1, change: move(course, term, 'AU28'), why: null }
    await expect(within(world, (tx) => suggest(tx, now, 'programAdvisor', late))).rejects.toMatchObject({
      code: 'routeMovedOn'
    })
  })

  it('is explained by whoever made it only, and read by none beside student and advisors', async () => {
    const { course, term } = await aCourse()
    const id = await proposes(orla, move(course, term, 'AU28'))
    const [advisor, support] = [await doing(orla), await doing(nell)]
    await within(world, (tx) => explainSuggestion(tx, advisor, id, 'It makes room.'))
    await expect(within(world, (tx) => explainSuggestion(tx, support, id, 'No.'))).rejects.toMatchObject({
      status: 404
    })
    expect(await listed(nell, 'supportAdvisor')).toMatchObject([{ why: 'It makes room.', own: false }])
    expect(await listed(orla, 'registrar')).toEqual([])
  })

  it('of several that wait the first is mailed', async () => {
    const mails = async () =>
      (await world.db.select().from(t.mail).where(eq(t.mail.accountId, imke.id))).length
    const { course, term } = await aCourse()
    const before = await mails()
    const first = await proposes(orla, move(course, term, 'AU28'))
    expect(await mails()).toBe(before + 1)
    const extra = await another()
    const second = await proposes(orla, { kind: 'add', planned: extra })
    expect(await mails()).toBe(before + 1)
    await answers('declined', first, second)
    await proposes(orla, move(course, term, 'AU28'))
    expect(await mails()).toBe(before + 2)
  })
})
