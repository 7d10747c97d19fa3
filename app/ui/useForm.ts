import { useRegleSchema } from '@regle/schemas'
import type { z } from 'zod'
import type { Problem } from '#shared/responses'

interface Checked<Values> {
  $errors: Partial<Record<keyof Values, string[]>>
  $validate: () => Promise<{ valid: boolean }>
  $reset: () => void
}

/**
 * A form, checked with the schema by which the server checks it; what the server refuses stands at its field, and nothing
 * that was typed is lost.
 */
export function useForm<Values extends Record<string, string>>(
  schema: z.ZodType<Values, Values>,
  start: Values
) {
  const values = ref({ ...start }) as Ref<Values>
  const refused = ref<Partial<Record<keyof Values, string[]>>>({})
  // Its types follow a schema that is written out; here it is whichever is given.
  const check = useRegleSchema as unknown as (
    values: Ref<Values>,
    of: typeof schema
  ) => { r$: Checked<Values> }
  const { r$: checked } = check(values, schema)
  const busy = ref(false)
  const problem = ref<Problem>()

  /** Sends what is filled in, where it may be sent; whether it went through. */
  async function submit(send: (filled: Values) => Promise<unknown>): Promise<boolean> {
    problem.value = undefined
    refused.value = {}
    const { valid } = await checked.$validate()
    if (!valid) return false
    busy.value = true
    try {
      await send(values.value)
      return true
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      problem.value = error.problem
      for (const { field, message } of error.problem.fields ?? [])
        refused.value = { ...refused.value, [field]: [message] }
      return false
    } finally {
      busy.value = false
    }
  }
  function clear(): void {
    values.value = { ...start }
    checked.$reset()
  }
  /** What is wrong with a field, as a sentence. */
  const errorsOf = (field: keyof Values): string[] =>
    [...(checked.$errors[field] ?? []), ...(refused.value[field] ?? [])].map((message) => `This ${message}.`)

  return { values, errorsOf, submit, clear, busy, problem }
}
