import { beforeEach, expect, it } from 'vitest'
import { z } from 'zod'
import { anew, Failure, inApp } from '../testing/nuxt'
import { useForm } from './useForm'
import { useAttempt } from './useAttempt'
import { useOnce } from './useOnce'

const schema = z.object({
  name: z.string().min(1, 'has to be filled in'),
  note: z.string().max(10, 'has to be 10 letters or fewer')
})
const refusing = () =>
  Promise.reject(
    new Failure(422, {
      code: 'taken',
      message: 'There is one of this name already.',
      fields: [{ field: 'name', message: 'has to be another' }]
    })
  )

const filling = (start: z.infer<typeof schema>) => inApp(() => useForm(schema, start))

beforeEach(() => anew())

it('sends nothing that the schema refuses, and says what is wrong at its field', async () => {
  const form = filling({ name: '', note: '' })
  const sent: unknown[] = []
  expect(await form.submit(async (filled) => sent.push(filled))).toBe(false)
  expect(sent).toEqual([])
  expect(form.errorsOf('name')).toEqual(['This has to be filled in.'])
  expect(form.errorsOf('note')).toEqual([])
})

it('keeps what was typed where the server refuses it, with the reason at its field, until it is sent again', async () => {
  const form = filling({ name: '', note: '' })
  form.values.value.name = 'Autumn'
  expect(await form.submit(refusing)).toBe(false)
  expect(form.values.value).toEqual({ name: 'Autumn', note: '' })
  expect(form.problem.value?.message).toBe('There is one of this name already.')
  expect(form.errorsOf('name')).toEqual(['This has to be another.'])
  expect(form.busy.value).toBe(false)
  expect(await form.submit(async () => undefined)).toBe(true)
  expect([form.problem.value, form.errorsOf('name')]).toEqual([undefined, []])
})

it('begins as it began once it is cleared', async () => {
  const form = filling({ name: 'Fern', note: '' })
  form.values.value.name = ''
  await form.submit(async () => undefined)
  form.clear()
  expect([form.values.value.name, form.errorsOf('name')]).toEqual(['Fern', []])
})

it('lets through what is no refusal of the server', async () => {
  const form = filling({ name: 'Fern', note: '' })
  const mistake = form.submit(() => Promise.reject(new TypeError('a mistake of ours')))
  await expect(mistake).rejects.toThrow('a mistake of ours')
  expect(form.busy.value).toBe(false)
})

it('tells what came of an attempt, and what was refused at which field', async () => {
  const { attempt, problem, fields, busy } = useAttempt()
  expect(await attempt(refusing)).toBeUndefined()
  expect(problem.value).toBe('There is one of this name already.')
  expect(fields.value.get('name')).toBe('This has to be another.')
  const going = attempt(async () => 'done')
  expect(busy.value).toBe(true)
  expect(await attempt(async () => 'a second one')).toBeUndefined()
  expect(await going).toBe('done')
  expect([problem.value, fields.value.size, busy.value]).toEqual(['', 0, false])
})

it('does a thing once, however often it is pressed', async () => {
  const { once, busy } = useOnce()
  let times = 0
  const both = [once(async () => ++times > 0), once(async () => ++times > 0)]
  expect(busy.value).toBe(true)
  expect(await Promise.all(both)).toEqual([true, false])
  expect([times, busy.value]).toEqual([1, false])
})
