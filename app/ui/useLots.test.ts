import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { effectScope, ref, shallowRef } from 'vue'
import { useLots } from './useLots'

class Failure extends Error {}
/** What a page would do once it is there. */
let mounted: () => unknown
beforeEach(() => {
  vi.useFakeTimers()
  const onMounted = (work: () => unknown) => (mounted = work)
  const stubs = { ref, shallowRef, Failure, onMounted, onScopeDispose: () => undefined }
  for (const [name, one] of Object.entries(stubs)) vi.stubGlobal(name, one)
})
afterEach(() => {
  vi.unstubAllGlobals()
  vi.useRealTimers()
})

function working() {
  const about = { text: 'a', isReady: true }
  /** Lots that are asked for, to be given in any order. */
  const open: { give: (lot: string[]) => void; refuse: (error: Error) => void }[] = []
  async function* lots() {
    const { text } = about
    for (let n = 0; n < 2; n++)
      yield await new Promise<string[]>((resolve, reject) => {
        open.push({ give: (lot) => resolve(lot.map((one) => `${text} ${one}`)), refuse: reject })
      })
  }
  const made = effectScope().run(() => useLots(() => about.isReady, lots))!
  return { about, open, ...made }
}
const settle = () => vi.advanceTimersByTimeAsync(0)

it('shows what has come so far, and says when it is done', async () => {
  const { open, found, isBusy } = working()
  mounted()
  expect(isBusy.value).toBe(true)
  open[0]!.give(['1', '2'])
  await settle()
  expect([found.value, isBusy.value]).toEqual([['a 1', 'a 2'], true])
  open[1]!.give(['3'])
  await settle()
  expect([found.value, isBusy.value]).toEqual([['a 1', 'a 2', 'a 3'], false])
})

it('begins anew a moment after the last change, and takes nothing of before', async () => {
  const { about, open, found, isBusy, changed } = working()
  mounted()
  about.text = 'b'
  changed()
  await vi.advanceTimersByTimeAsync(500)
  about.text = 'c'
  changed()
  open[0]!.give(['late'])
  await vi.advanceTimersByTimeAsync(899)
  expect([open.length, found.value]).toEqual([1, []])
  await vi.advanceTimersByTimeAsync(1)
  open[1]!.give(['1'])
  await settle()
  open[2]!.give([])
  await settle()
  expect([found.value, isBusy.value]).toEqual([['c 1'], false])
})

it('waits while there is nothing to work on, and tells what was refused', async () => {
  const { about, open, problem, isBusy, changed, work } = working()
  about.isReady = false
  mounted()
  expect([open.length, isBusy.value]).toEqual([0, false])
  about.isReady = true
  changed()
  expect(isBusy.value).toBe(true)
  await vi.advanceTimersByTimeAsync(900)
  open[0]!.refuse(new Failure('Not so.'))
  await settle()
  expect([problem.value, isBusy.value]).toEqual(['Not so.', false])
  void work()
  expect(problem.value).toBe('')
})
