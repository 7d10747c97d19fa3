import { Refused } from '#server/http/problem'

/**
 * Work that only so many may do at once: the others wait their turn, so many at most, and whoever comes then is
 * asked to come again. Hashing a password fills a core and 32 MB for a tenth of a second.
 */
export class Turns {
  private running = 0
  private readonly waiting: (() => void)[] = []

  constructor(
    private readonly atOnce: number,
    private readonly waitingMost: number
  ) {}

  /** @throws Refused when too many wait. */
  async take<T>(work: () => Promise<T>): Promise<T> {
    if (this.running >= this.atOnce) {
      if (this.waiting.length >= this.waitingMost)
        throw new Refused(
          429,
          'busy',
          'Many people are signing in at this moment. Try again in a few seconds.',
          undefined,
          5
        )
      await new Promise<void>((go) => this.waiting.push(go))
    } else this.running++
    try {
      return await work()
    } finally {
      // The turn goes to whoever waits longest; nobody can come between.
      const next = this.waiting.shift()
      if (next) next()
      else this.running--
    }
  }
}
