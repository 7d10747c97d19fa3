/**
 * Something that the server says. What is known stays while it is read anew, and where it cannot be read the sentence says
 * why; an answer never follows a later one.
 */
export function useRead<T>(ask: () => Promise<T>) {
  const known = shallowRef<T>()
  const failure = ref<string>()
  const newest = newestAnswer()

  async function read(): Promise<void> {
    const turn = newest.ask()
    try {
      const found = await ask()
      if (!newest.take(turn)) return
      known.value = found
      failure.value = undefined
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      if (newest.take(turn)) failure.value = error.message
    }
  }
  return { known, failure, read }
}
