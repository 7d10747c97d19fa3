import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import type { News } from '#shared/news/responses'
import { followed } from './followed'

const news = (kind: News['kind']): News => ({ kind, student: null, by: null, change: null })

let tell: (told: News) => void
let miss: () => void
/** Readings that are under way, in the order in which they began. */
let underWay: (() => void)[]
const begun = vi.fn()
const read = () => {
  begun()
  return new Promise<void>((resolve) => underWay.push(resolve))
}
const settle = async () => {
  for (let i = 0; i < 5; i++) await Promise.resolve()
}

beforeEach(() => {
  underWay = []
  begun.mockClear()
  vi.stubGlobal('useNews', () => ({
    onNews: (hear: typeof tell) => (tell = hear),
    onMissed: (hear: typeof miss) => (miss = hear)
  }))
})
afterEach(() => vi.unstubAllGlobals())

it('reads nothing until it is asked', () => {
  followed(read, () => true)
  tell(news('seats'))
  miss()
  expect(begun).not.toHaveBeenCalled()
})

it('reads again with what is told while it is read for the first time', async () => {
  const load = followed(read, ({ kind }) => kind === 'seats')
  void load()
  tell(news('clock'))
  tell(news('seats'))
  tell(news('seats'))
  expect(begun).toHaveBeenCalledTimes(1)
  underWay[0]!()
  await settle()
  // Both together, in one reading that began after them.
  expect(begun).toHaveBeenCalledTimes(2)
  underWay[1]!()
  await settle()
  expect(begun).toHaveBeenCalledTimes(2)
  miss()
  expect(begun).toHaveBeenCalledTimes(3)
})

it('lets whoever changed something wait for a reading that began after the change', async () => {
  const load = followed(read, () => false)
  void load()
  const after = vi.fn()
  void load().then(after)
  underWay[0]!()
  await settle()
  expect(after).not.toHaveBeenCalled()
  underWay[1]!()
  await settle()
  await settle()
  expect(after).toHaveBeenCalledTimes(1)
})
