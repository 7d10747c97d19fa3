import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { anew, Failure, settled } from '../testing/nuxt'
import { persistently } from './persistently'

/** Readings that are under way, in the order in which they began. */
let underWay: { resolve: () => void; reject: (error: Error) => void }[]
const work = () => new Promise<void>((resolve, reject) => underWay.push({ resolve, reject }))
const failed = (status: number) => new Failure(status, { code: 'failed', message: 'No.' })

beforeEach(() => {
  underWay = []
  anew()
  vi.useFakeTimers()
})
afterEach(() => vi.useRealTimers())

it('reads once more after what is asked for while it reads, however often that is', async () => {
  const ask = persistently(work)
  ask()
  ask()
  ask()
  expect(underWay).toHaveLength(1)
  underWay[0]!.resolve()
  await settled()
  expect(underWay).toHaveLength(2)
  underWay[1]!.resolve()
  await settled()
  expect(underWay).toHaveLength(2)
})

it('tries again by itself where the server cannot be reached, and not where it says no', async () => {
  const ask = persistently(work)
  ask()
  underWay[0]!.reject(failed(0))
  await settled()
  await vi.advanceTimersByTimeAsync(2999)
  expect(underWay).toHaveLength(1)
  await vi.advanceTimersByTimeAsync(1)
  expect(underWay).toHaveLength(2)
  underWay[1]!.reject(failed(403))
  await settled()
  await vi.advanceTimersByTimeAsync(60_000)
  expect(underWay).toHaveLength(2)
})

it('waits no longer where it is asked again meanwhile', async () => {
  const ask = persistently(work)
  ask()
  underWay[0]!.reject(failed(503))
  await settled()
  ask()
  expect(underWay).toHaveLength(2)
  underWay[1]!.resolve()
  await settled()
  await vi.advanceTimersByTimeAsync(60_000)
  expect(underWay).toHaveLength(2)
})
