import type { z } from 'zod'

/**
 * Something that is filled in, checked with the schema by which the server checks it: faults stand at their fields from the
 * first try on, with those that only the server knows.
 */
export function useDraftCheck<T>(schema: z.ZodType<T>, draft: () => unknown) {
  const attempting = useAttempt()
  const isTried = ref(false)
  const read = computed(() => schema.safeParse(draft()))
  /** By their path, from the first try on. */
  const faults = computed(() => {
    const found = new Map(attempting.fields.value)
    if (isTried.value)
      for (const { path, message } of read.value.error?.issues ?? [])
        found.set(path.join('.'), `This ${message}.`)
    return found
  })
  /** What is wrong with a field, by its path; nothing where it is right. */
  const errors = (path: string): string => faults.value.get(path) ?? ''

  /** @returns what came of sending it; undefined where something is wrong with it, here or there */
  async function send<A>(work: (said: T) => Promise<A>): Promise<A | undefined> {
    isTried.value = true
    const { data, success } = read.value
    if (!success) {
      await nextTick()
      document.querySelector<HTMLElement>('form .v-input--error input')?.focus()
      return undefined
    }
    const done = await attempting.attempt(() => work(data))
    if (done !== undefined) isTried.value = false
    return done
  }
  return { ...attempting, faults, errors, send }
}
