/**
 * Work that many ask for at the same time, done as rarely as may be: whoever asks gets what was begun after they asked,
 * together with all others who wait.
 */
export function joinNext<T>(work: () => Promise<T>): () => Promise<T> {
  let running: Promise<T> | undefined
  let next: Promise<T> | undefined
  const start = (): Promise<T> => {
    const mine = work().finally(() => {
      if (running === mine) running = undefined
    })
    return (running = mine)
  }
  return () => {
    if (!running) return start()
    next ??= running
      .catch(() => undefined)
      .then(() => {
        next = undefined
        return start()
      })
    return next
  }
}
