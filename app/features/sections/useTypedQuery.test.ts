import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { reactive } from 'vue'
import { anew, settled } from '../../testing/nuxt'
import { useTypedQuery } from './useTypedQuery'

let route: { query: Record<string, string> }
const went = vi.fn()

beforeEach(() => {
  vi.useFakeTimers()
  went.mockClear()
  route = reactive({ query: { q: 'soil' } })
  anew({
    useRoute: () => route,
    navigateTo: (to: { query: Record<string, string> }) => {
      went(to.query)
      route.query = to.query
    }
  })
})
afterEach(() => vi.useRealTimers())

it('searches what is typed at once, and tells the address when the hand rests', async () => {
  const { text, query } = useTypedQuery()
  expect(query.value.text).toBe('soil')
  text.value = 'so'
  await settled()
  text.value = 'soi'
  await settled()
  expect(query.value.text).toBe('soi')
  await vi.advanceTimersByTimeAsync(249)
  expect(went).not.toHaveBeenCalled()
  await vi.advanceTimersByTimeAsync(1)
  expect(went).toHaveBeenCalledOnce()
  expect(route.query.q).toBe('soi')
})

it('keeps what was typed while the address still says what it was told before', async () => {
  const { text, query, change } = useTypedQuery()
  text.value = 'soils'
  await settled()
  // What is chosen beside it goes to the address with the words as they are by then.
  void change({ ...query.value })
  text.value = 'soils and'
  await settled()
  expect(text.value).toBe('soils and')
  await vi.advanceTimersByTimeAsync(250)
  expect(route.query.q).toBe('soils and')
})

it('follows the address where somebody goes back', async () => {
  const { text } = useTypedQuery()
  text.value = 'soils'
  await settled()
  await vi.advanceTimersByTimeAsync(250)
  route.query = { q: 'rivers' }
  await settled()
  expect(text.value).toBe('rivers')
})
