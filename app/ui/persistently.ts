import { useEventListener } from '@vueuse/core'

const AGAIN_MS = 3000

/**
 * Reading that is asked for by news and has to come through: what is asked while it runs is done once more after it, and
 * what fails for want of a server is tried again, at once when the connection is back.
 */
export function persistently(work: () => Promise<unknown>): () => void {
  let isRunning = false
  let isAsked = false
  let timer: ReturnType<typeof setTimeout> | undefined

  async function run(): Promise<void> {
    clearTimeout(timer)
    timer = undefined
    isAsked = true
    if (isRunning) return
    isRunning = true
    try {
      while (isAsked) {
        isAsked = false
        await work()
      }
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      if (error.status === 0 || error.status >= 500) timer = setTimeout(() => void run(), AGAIN_MS)
    } finally {
      isRunning = false
    }
  }
  useEventListener('online', () => timer !== undefined && void run())
  return () => void run()
}
