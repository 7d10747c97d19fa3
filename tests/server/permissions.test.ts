/** Permissions: asked for from what stands in the way, decided by whoever may, used, ended, withdrawn. */
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { courseCode } from '#core/ids'
import type { PermissionKind } from '#core/week'
import type { Who } from '#shared/accounts/responses'
import { permissionAnswerBody } from '#shared/advising/requests'
import * as t from '#server/db/schema/index'
import {
  answerPermission,
  askPermission,
  forwardPermission,
  readWaitingRequests,
  withdrawPermission
} from '#server/features/advising/permissions'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { run } from '#server/features/registration/run'
import {
  at,
  AUTUMN,
  idOf,
  LANGUAGE,
  openWorld,
  OPENS,
  person,
  pickFor,
  sectionsNumbered,
  setTime,
  within,
  type World
} from './world'

let world: World
let imke: Who & { id: number }
let orla: Who & { id: number }
let edda: Who & { id: number }
let section: { id: number; code: string }
beforeAll(async () => {
  world = await openWorld('permissions')
  imke = await person(world.db, 'Imke Varga')
  orla = await person(world.db, 'Orla Denholt')
  edda = await person(world.db, 'Edda Whitlock')
  const [found] = await sectionsNumbered(world, LANGUAGE, '01')
  section = { id: found!.id, code: found!.code }
  await world.db.update(t.section).set({ capacity: 2, taken: 2 }).where(eq(t.section.id, section.id))
  await pickFor(world, imke, LANGUAGE, '01')
})
afterAll(() => world.close())

const doing = async (who: Who) => ({ who, student: idOf(imke), ...(await at(world)) })
const ask = async (kind: PermissionKind, code = section.code) => {
  const now = await doing(imke)
  return within(world, (tx) =>
    askPermission(tx, now, { section: code, kind, reason: 'It is the last I need.' }, world.shelf)
  )
}
const answer = async (who: Who, relation: string, id: number, said: object) => {
  const now = await doing(who)
  return within(world, (tx) =>
    answerPermission(tx, { ...now, relation }, id, permissionAnswerBody.parse(said))
  )
}
const requests = async () => (await readStudentRecords(world.db, [idOf(imke)], 'self'))[0]!.requests
const register = async () =>
  (await run(world.db, imke, idOf(imke), { term: AUTUMN, courses: [courseCode(LANGUAGE)] }, world.shelf))
    .lines[0]!

describe('a request', () => {
  it('is for what stands in the way, once, and for nothing else', async () => {
    await expect(ask('prerequisite')).rejects.toMatchObject({ status: 422, code: 'nothingToSettle' })
    await expect(ask('full', 'NONE9')).rejects.toMatchObject({ fields: [{ field: 'section' }] })
    await ask('full')
    await expect(ask('full')).rejects.toMatchObject({ status: 409, code: 'askedAlready' })
    expect(await requests()).toMatchObject([
      { section: section.code, kind: 'full', state: 'asked', answer: null }
    ])
  })
  it('waits for whoever may decide it, and is handed on by whoever may not', async () => {
    const [own] = await readWaitingRequests(world.db, orla)
    expect(own).toMatchObject({
      kind: 'full',
      mayDecide: false,
      against: { code: 'full' },
      student: { name: 'Imke Varga' }
    })
    await expect(answer(orla, 'programAdvisor', own!.id, { answer: 'given' })).rejects.toMatchObject({
      code: 'registrarDecides'
    })
    const hand = async () => {
      const now = await doing(orla)
      return within(world, (tx) => forwardPermission(tx, now, own!.id))
    }
    await hand()
    await expect(hand()).rejects.toMatchObject({ code: 'notWaiting' })
    expect(await readWaitingRequests(world.db, orla)).toEqual([])
    expect(await readWaitingRequests(world.db, edda)).toMatchObject([
      { id: own!.id, mayDecide: true, forwarded: { by: 'Orla Denholt' } }
    ])
  })
  it('that is granted adds a seat when it is used, and only until its end', async () => {
    const { id } = (await requests())[0]!
    await expect(
      answer(edda, 'registrar', id, { answer: 'given', until: '2027-01-01' })
    ).rejects.toMatchObject({
      fields: [{ field: 'until' }]
    })
    await answer(edda, 'registrar', id, { answer: 'given', until: '2027-04-12', words: 'This once.' })
    expect(await requests()).toMatchObject([
      {
        state: 'given',
        answer: { by: 'Edda Whitlock', words: 'This once.', until: Date.parse('2027-04-13T04:00:00Z') }
      }
    ])
    await setTime(world, Date.parse('2027-04-13T04:00:00Z'))
    expect((await register()).refusals.map((one) => one.code)).toEqual(['full'])
    await setTime(world, OPENS)
    expect(await register()).toMatchObject({ outcome: 'registered' })
    const [row] = await world.db.select().from(t.section).where(eq(t.section.id, section.id))
    expect(row).toMatchObject({ capacity: 3, taken: 3 })
  })
  it('is withdrawn by the student, and then answered by nobody', async () => {
    const { id } = (await requests())[0]!
    const mine = await doing(imke)
    await within(world, (tx) => withdrawPermission(tx, mine, id))
    expect(await requests()).toEqual([])
    await expect(answer(edda, 'registrar', id, { answer: 'given' })).rejects.toMatchObject({
      code: 'withdrawn'
    })
    await expect(within(world, (tx) => withdrawPermission(tx, mine, id))).rejects.toMatchObject({
      code: 'notWaiting'
    })
  })
})
