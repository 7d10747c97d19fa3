import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { computed, ref, shallowRef } from 'vue'
import { termCode } from '#core/ids'
import type { PlacingPiece, ProposedPlacing } from '#shared/offices/placing'
import { newestAnswer } from '../../../ui/newestAnswer'
import { useAttempt } from '../../../ui/useAttempt'
import { useRead } from '../../../ui/useRead'
import { isThrough, usePlacingStudents } from './usePlacingStudents'

class Failure extends Error {
  constructor(
    readonly status: number,
    readonly problem: { message: string }
  ) {
    super(problem.message)
  }
}

interface Sent {
  path: string
  body: Record<string, unknown>
  key?: string
}
let sent: Sent[]
/** Where the decision lets nobody in. */
let refusing: ReadonlySet<string>
/** What the server does next; none left: it answers as it should. */
let next: (Error | undefined)[]

const student = (id: number, ground: ProposedPlacing['ground'] = 'handedIn'): ProposedPlacing =>
  ({
    ...{ student: id, name: `Student ${id}`, number: `H20400${id}`, ground, left: [] },
    placed: [{ course: 'ENVI 310', credits: 4, sections: [{ code: `SEC0${id}`, number: '01' }] }]
  }) as unknown as ProposedPlacing
const PIECES: PlacingPiece[] = [
  { of: 3, next: 2, students: [student(1), student(2)], sections: [], taken: { SEC01: 1, SEC02: 1 } },
  {
    of: 3,
    next: null,
    students: [student(3, 'planned')],
    sections: [],
    taken: { SEC01: 1, SEC02: 1, SEC03: 1 }
  }
]
async function api(path: string, { body = {}, key }: { body?: object; key?: string } = {}): Promise<unknown> {
  sent.push({ path, body: body as Sent['body'], ...(key && { key }) })
  const wrong = next.shift()
  if (wrong) throw wrong
  if (path.endsWith('/placing')) return PIECES[(body as { from: number }).from ? 1 : 0]
  return { lines: [{ course: 'ENVI 310', outcome: refusing.has(path) ? 'refused' : 'registered' }] }
}

beforeEach(() => {
  sent = []
  next = []
  refusing = new Set()
  let keys = 0
  const globals = { computed, ref, shallowRef, newestAnswer, useAttempt, useRead, Failure, api }
  for (const [name, one] of Object.entries(globals)) vi.stubGlobal(name, one)
  vi.stubGlobal('newKey', () => `key-${++keys}`)
})
afterEach(() => vi.unstubAllGlobals())

const SAID = { group: { kind: 'handedIn' as const }, setAside: ['notOpen' as const], consent: 'by telephone' }
async function proposed() {
  const placing = usePlacingStudents(termCode('AU27'))
  await placing.propose(SAID)
  return placing
}

it('asks for one piece after the other, each with the seats that those before would have', async () => {
  const { proposed: all, toPlace, progress } = await proposed()
  expect(sent.map(({ body }) => [body.from, body.taken])).toEqual([
    [0, {}],
    [2, { SEC01: 1, SEC02: 1 }]
  ])
  expect(all.value).toHaveLength(3)
  expect(toPlace.value).toHaveLength(3)
  expect(progress.value).toBeUndefined()
})

it('places each who is not left out, on the word that the ground asks for', async () => {
  const { place, leftOut, outcomes, toPlace } = await proposed()
  leftOut.value = new Set([student(2).student])
  sent = []
  await place()
  expect(sent.map(({ path }) => path)).toEqual(['/api/students/1/placements', '/api/students/3/placements'])
  expect(sent.map(({ body }) => body.consent)).toEqual([undefined, 'by telephone'])
  expect(sent.every(({ body }) => (body.setAside as string[]).includes('notOpen'))).toBe(true)
  expect(outcomes.value.size).toBe(2)
  expect(toPlace.value).toEqual([])
})

it('goes on after a refusal, and tells it of its student', async () => {
  const { place, outcomes, toPlace, problem } = await proposed()
  next = [new Failure(422, { message: 'Say how the student agreed to it.' })]
  await place()
  expect(outcomes.value.get(student(1).student)).toEqual({ failure: 'Say how the student agreed to it.' })
  expect(outcomes.value.size).toBe(3)
  expect(toPlace.value.map((one) => one.student)).toEqual([1])
  expect(problem.value).toBe('')
})

it('ends where the server is not reached, and asks for the same placing again under the same key', async () => {
  const { place, outcomes, problem, toPlace } = await proposed()
  next = [undefined, new Failure(0, { message: 'The server cannot be reached.' })]
  await place()
  expect(problem.value).toBe('The server cannot be reached.')
  expect(outcomes.value.size).toBe(1)
  expect(toPlace.value.map((one) => one.student)).toEqual([2, 3])
  await place()
  const keys = sent.filter(({ path }) => path.includes('/students/2/')).map(({ key }) => key)
  expect(keys).toHaveLength(2)
  expect(new Set(keys).size).toBe(1)
  expect(new Set(sent.flatMap(({ key }) => key ?? [])).size).toBe(3)
})

it('does not ask again for what a run has refused: that is proposed anew', async () => {
  const { place, outcomes, toPlace } = await proposed()
  refusing = new Set(['/api/students/1/placements'])
  await place()
  expect(isThrough(outcomes.value.get(student(1).student))).toBe(false)
  expect(toPlace.value).toEqual([])
})

it('says how many were not looked at where it is stopped', async () => {
  const { propose, stop, unseen, proposed: all } = usePlacingStudents(termCode('AU27'))
  const asked = propose(SAID)
  stop()
  await asked
  expect([all.value.length, unseen.value]).toEqual([2, 1])
})

it('stops when it is told to, and knows what was done by then', async () => {
  const { place, stop, outcomes, toPlace } = await proposed()
  const placed = place()
  stop()
  await placed
  expect(outcomes.value.size).toBe(1)
  expect(toPlace.value).toHaveLength(2)
})
