import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { anew, answering, settled } from '../testing/nuxt'
import { useClock } from './clock'

const NOON = Date.parse('2027-04-09T12:00:20Z')
let server: ReturnType<typeof answering>
let tell: (news: { kind: string }) => void
const followed = vi.fn()

beforeEach(() => {
  vi.useFakeTimers()
  server = answering()
  followed.mockClear()
  anew({
    api: server.api,
    persistently: () => followed,
    useNews: () => ({ onNews: (hear: typeof tell) => (tell = hear), onMissed: () => undefined })
  })
})
afterEach(() => vi.useRealTimers())

it('ticks on between two answers, and stands where the campus clock stands', async () => {
  const clock = useClock()
  const stop = clock.start()
  void clock.sync()
  await server.asked[0]!.answer({ mode: 'running', now: NOON })
  await vi.advanceTimersByTimeAsync(5000)
  expect(clock.now - NOON).toBe(5000)
  expect(clock.minute).toBe(Date.parse('2027-04-09T12:00:00Z'))
  void clock.sync()
  await server.asked[1]!.answer({ mode: 'standing', now: NOON })
  await vi.advanceTimersByTimeAsync(5000)
  expect(clock.now).toBe(NOON)
  stop()
})

it('asks once for all that want to know at once, and again afterwards', async () => {
  const clock = useClock()
  const both = Promise.all([clock.sync(), clock.sync()])
  expect(server.asked).toHaveLength(1)
  await server.asked[0]!.answer({ mode: 'real', now: NOON })
  await both
  void clock.sync()
  expect(server.asked).toHaveLength(2)
})

it('asks now and then by itself; an answer that is missed does no harm', async () => {
  const clock = useClock()
  const stop = clock.start()
  await vi.advanceTimersByTimeAsync(30_000)
  await server.asked[0]!.refuse(503)
  await vi.advanceTimersByTimeAsync(30_000)
  await server.asked[1]!.answer({ mode: 'running', now: NOON })
  expect(clock.now).toBe(NOON)
  stop()
  await vi.advanceTimersByTimeAsync(120_000)
  expect(server.asked).toHaveLength(2)
})

it('is as it was set, and asks anew when somebody else has set it', async () => {
  const clock = useClock()
  const set = clock.set({ mode: 'standing', at: '2027-04-12T11:00:00Z' })
  expect(server.asked[0]!.options).toEqual({
    method: 'POST',
    body: { mode: 'standing', at: '2027-04-12T11:00:00Z' }
  })
  await server.asked[0]!.answer({ mode: 'standing', now: NOON })
  await set
  expect(clock.now).toBe(NOON)
  tell({ kind: 'seats' })
  expect(followed).not.toHaveBeenCalled()
  tell({ kind: 'clock' })
  expect(followed).toHaveBeenCalledOnce()
  await settled()
})
