import { beforeEach, expect, it, vi } from 'vitest'
import { reactive } from 'vue'
import { courseCode, termCode } from '#core/ids'
import type { PreparedSheet } from '#shared/registration/prepared'
import type { RunSheet, SheetLine } from '#shared/registration/responses'
import { anew, answering, settled } from '../../testing/nuxt'
import { useRunSheet } from './useRunSheet'

const AU27 = termCode('AU27')
const OPENS = 1000
const CLOSES = 9000
const [ENVI, SOIL, MATH] = ['ENVI 310', 'SOIL 220', 'MATH 231'].map(courseCode) as [
  SheetLine['course'],
  SheetLine['course'],
  SheetLine['course']
]
const line = (course: SheetLine['course'], over: Partial<SheetLine> = {}): SheetLine =>
  ({
    ...{ course, title: course, credits: 4, sections: [], state: 'ready', givesBack: [], givesUp: null },
    ...{ refusals: [], assumed: [], setAside: [], line: null, drop: null, fallbacks: [], waiting: null },
    ...over
  }) as SheetLine
const sheetOf = (...lines: SheetLine[]) =>
  ({ term: AU27, opens: OPENS, closes: CLOSES, general: [], lines }) as unknown as RunSheet

let server: ReturnType<typeof answering>
let clock: { now: number }
let student: { view: { student: { id: number }; prepared: PreparedSheet[] }; onTheWay: unknown }
const prepare = vi.fn()
/** Sections held in the term. */
let held: { course: string; code: string; credits: number }[]

beforeEach(() => {
  server = answering()
  clock = reactive({ now: 0 })
  held = []
  prepare.mockClear()
  student = reactive({ view: { student: { id: 1 }, prepared: [] }, onTheWay: undefined })
  anew({
    api: server.api,
    useClock: () => clock,
    useStudent: () => student,
    useSheetChanges: () => ({ prepare }),
    useOffers: () => ({ byTerm: new Map() }),
    useStanding: () => ({ term: { code: AU27 }, heldSections: held })
  })
})

it('lets neither an answer nor a failure follow a later one', async () => {
  const { sheet, failure, load } = useRunSheet()
  void load()
  await server.asked[1]!.answer(sheetOf(line(ENVI)))
  await server.asked[0]!.refuse(503, 'The server cannot be reached.')
  expect(sheet.value?.lines).toHaveLength(1)
  expect(failure.value).toBeUndefined()
})

it('is read anew at the opening, and once what was changed has been sent', async () => {
  const { opened } = useRunSheet()
  await server.asked[0]!.answer(sheetOf())
  expect(opened.value).toBe(false)
  clock.now = OPENS
  await settled()
  expect([opened.value, server.asked.length]).toEqual([true, 2])
  student.onTheWay = { pending: [{}], state: 'sending' }
  await settled()
  student.onTheWay = { pending: [], state: 'idle' }
  await settled()
  expect(server.asked).toHaveLength(4)
})

it('chooses every line that is ready, but for those left out', async () => {
  const { chosen, left, toggle } = useRunSheet()
  await server.asked[0]!.answer(
    sheetOf(line(ENVI), line(SOIL), line(MATH, { state: 'unsettled', sections: null }))
  )
  expect(chosen.value.map((one) => one.course)).toEqual([ENVI, SOIL])
  toggle(SOIL)
  expect(prepare).toHaveBeenCalledWith(expect.objectContaining({ leftOut: [SOIL] }))
  student.view = {
    student: { id: 1 },
    prepared: [{ ...prepare.mock.calls[0]![0], term: AU27 } as PreparedSheet]
  }
  expect([...left.value]).toEqual([SOIL])
  expect(chosen.value.map((one) => one.course)).toEqual([ENVI])
})

it('counts the credits that are held after it: what is dropped and given up goes, what waits in line comes later', async () => {
  held = [
    { course: SOIL, code: 'SOIL01', credits: 4 },
    { course: MATH, code: 'MATH01', credits: 3 }
  ]
  const waits = line(courseCode('GEOS 210'), {
    credits: 2,
    refusals: [{ code: 'full' } as SheetLine['refusals'][number]],
    line: { refusals: [] } as unknown as SheetLine['line'],
    fallbacks: [{ fallback: { kind: 'line' }, refusals: [] }] as unknown as SheetLine['fallbacks']
  })
  const { credits, inLine } = useRunSheet()
  await server.asked[0]!.answer(
    sheetOf(line(SOIL, { state: 'registered' }), line(MATH, { state: 'registered' }), waits)
  )
  expect(credits.value).toBe(7)
  expect(inLine.value).toHaveLength(1)
  student.view = {
    student: { id: 1 },
    prepared: [{ term: AU27, order: [], leftOut: [], drops: [SOIL], whole: false, armed: false }] as never
  }
  await settled()
  expect(credits.value).toBe(3)
})

it('chooses nothing once adding has ended, but for what a permission lets in still', async () => {
  clock.now = CLOSES
  const { chosen, closed } = useRunSheet()
  await server.asked[0]!.answer(sheetOf(line(ENVI), line(SOIL, { setAside: ['late'] })))
  expect(closed.value).toBe(true)
  expect(chosen.value.map((one) => one.course)).toEqual([SOIL])
})
