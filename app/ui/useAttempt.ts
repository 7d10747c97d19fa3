/** Something that the server may refuse: what it says then stands in `problem`, and at the fields that it names. */
export function useAttempt() {
  const busy = ref(false)
  const problem = ref('')
  const fields = ref<ReadonlyMap<string, string>>(new Map())

  /** @returns what came of it; undefined where it was refused, or goes on already */
  async function attempt<T>(work: () => Promise<T>): Promise<T | undefined> {
    if (busy.value) return undefined
    busy.value = true
    problem.value = ''
    fields.value = new Map()
    try {
      return await work()
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      problem.value = error.message
      fields.value = new Map((error.problem.fields ?? []).map((one) => [one.field, `This ${one.message}.`]))
      return undefined
    } finally {
      busy.value = false
    }
  }
  return { busy, problem, fields, attempt }
}
