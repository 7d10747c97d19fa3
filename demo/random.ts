/** A small seeded generator (mulberry32), so that the demo is the same every time. */
export class Random {
  constructor(private state: number) {}

  /** At least 0, below 1. */
  next(): number {
    this.state = (this.state + 0x6d2b79f5) | 0
    let t = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }

  /** A whole number below `n`. */
  below(n: number): number {
    return Math.floor(this.next() * n)
  }

  chance(p: number): boolean {
    return this.next() < p
  }

  pick<T>(list: readonly T[]): T {
    return list[this.below(list.length)]!
  }

  shuffled<T>(list: readonly T[]): T[] {
    const copy = [...list]
    for (let i = copy.length - 1; i > 0; i--) {
      const j = this.below(i + 1)
      ;[copy[i], copy[j]] = [copy[j]!, copy[i]!]
    }
    return copy
  }
}
