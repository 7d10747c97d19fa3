import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { computed, nextTick, ref } from 'vue'
import { z } from 'zod'
import { useAttempt } from './useAttempt'
import { useDraftCheck } from './useDraftCheck'

class Failure extends Error {
  constructor(readonly problem: { message: string; fields?: { field: string; message: string }[] }) {
    super(problem.message)
  }
}
beforeEach(() => {
  const document = { querySelector: () => null }
  for (const [name, one] of Object.entries({ ref, computed, nextTick, useAttempt, Failure, document }))
    vi.stubGlobal(name, one)
})
afterEach(() => vi.unstubAllGlobals())

const schema = z.object({ parts: z.array(z.object({ name: z.string().trim().min(1, 'is needed') })) })
const draftOf = (name: string) => ref({ parts: [{ name }] })

it('says nothing before the first try, and then what is wrong, field by field, until it is mended', async () => {
  const draft = draftOf(' ')
  const { errors, send } = useDraftCheck(schema, () => draft.value)
  expect(errors('parts.0.name')).toBe('')
  const asked = vi.fn()
  expect(await send(asked)).toBeUndefined()
  expect(asked).not.toHaveBeenCalled()
  expect(errors('parts.0.name')).toBe('This is needed.')
  draft.value.parts[0]!.name = 'one'
  expect(errors('parts.0.name')).toBe('')
})

it('sends what the schema makes of it, and tells what only the server knows at its field', async () => {
  const draft = draftOf(' one ')
  const { errors, problem, send } = useDraftCheck(schema, () => draft.value)
  expect(await send((said) => Promise.resolve(said.parts[0]!.name))).toBe('one')
  const fields = [{ field: 'parts.0.name', message: 'has to be another' }]
  const refusing = () => Promise.reject(new Failure({ message: 'It cannot be so.', fields }))
  expect(await send(refusing)).toBeUndefined()
  expect([problem.value, errors('parts.0.name')]).toEqual(['It cannot be so.', 'This has to be another.'])
})
