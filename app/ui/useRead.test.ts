import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { ref, shallowRef } from 'vue'
import { newestAnswer } from './newestAnswer'
import { useRead } from './useRead'

class Failure extends Error {}
beforeEach(() => {
  for (const [name, one] of Object.entries({ ref, shallowRef, newestAnswer, Failure }))
    vi.stubGlobal(name, one)
})
afterEach(() => vi.unstubAllGlobals())

/** Questions under way, to be answered in any order. */
function asking() {
  const open: { answer: (text: string) => void; refuse: (error: Error) => void }[] = []
  const ask = () =>
    new Promise<string>((resolve, reject) => {
      open.push({ answer: resolve, refuse: reject })
    })
  return { open, ...useRead(ask) }
}

it('knows what was said, and keeps it where it cannot be read anew', async () => {
  const { open, known, failure, read } = asking()
  const first = read()
  expect(known.value).toBeUndefined()
  open[0]!.answer('one')
  await first
  expect(known.value).toBe('one')
  const second = read()
  open[1]!.refuse(new Failure('The server cannot be reached.'))
  await second
  expect([known.value, failure.value]).toEqual(['one', 'The server cannot be reached.'])
  const third = read()
  open[2]!.answer('two')
  await third
  expect([known.value, failure.value]).toEqual(['two', undefined])
})

it('does not let an answer follow a later one, nor a failure', async () => {
  const { open, known, failure, read } = asking()
  const all = [read(), read(), read()]
  open[2]!.answer('newest')
  await all[2]
  open[0]!.answer('oldest')
  open[1]!.refuse(new Failure('late'))
  await Promise.all(all)
  expect([known.value, failure.value]).toEqual(['newest', undefined])
})

it('lets through what is no refusal of the server', async () => {
  const { open, read } = asking()
  const wrong = read()
  open[0]!.refuse(new TypeError('a mistake of ours'))
  await expect(wrong).rejects.toThrow('a mistake of ours')
})
