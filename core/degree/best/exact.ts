/**
 * The exact search for what the quick ways cannot prove: branch and bound over a linear programme.
 *
 * Variables, all between 0 and 1: piece p counts toward want w; want w is met by label l. Rows: a
 * piece counts once; a want is met only by enough firm pieces; wants in courses take no more than
 * they ask for; distinct subjects, parts, caps, shares; the waste of each want. The tuple is settled
 * one number at a time, each fixed by a row before the next one is asked for.
 *
 * Depth first, met before not met, counting before not counting. A bound is rounded down with
 * `SLACK` to spare; a whole solution is scored again in whole numbers before it is believed.
 */
import { step, type Effort } from './effort'
import { scoreOf, type Score } from './labels'
import { isLegal, LEVELS, NOWHERE, weightIn, type Opens, type Problem } from './problem'
import { Simplex, SLACK, WHOLE, type Row } from './simplex'

interface Scored extends Score {
  place: number[]
}

type Terms = (readonly [variable: number, factor: number])[]

export class ExactSearch {
  private readonly lp: Simplex
  private readonly high: number[] = []
  /** For each piece, the variable of each want it may count toward. */
  private readonly counts: Map<number, number>[]
  /** Variables to branch on, before those of `counted`. */
  private readonly met: { variable: number; level: number }[] = []
  private readonly counted: { variable: number; level: number }[]
  /** How many wants are met by each level, as a sum of variables. */
  private readonly metBy: Terms[] = Array.from({ length: LEVELS }, () => [])
  private readonly wasted: Terms = []

  constructor(
    private readonly problem: Problem,
    ladder: readonly (readonly number[])[],
    private readonly effort: Effort,
    settled?: { opens: Opens; waste: number }
  ) {
    const rows: Row[] = []
    const variable = (high = 1) => this.high.push(high) - 1
    const { wants, pieces, caps, shares } = problem
    this.counts = pieces.map((piece) => new Map(piece.wants.map((w) => [w, variable()])))
    this.counted = this.counts.flatMap((own, p) =>
      [...own.values()].map((v) => ({ variable: v, level: pieces[p]!.firmness }))
    )
    const inside = (w: number) => pieces.flatMap((piece, p) => (piece.wants.includes(w) ? [p] : []))
    for (const own of this.counts)
      if (own.size > 1) rows.push({ terms: [...own.values()].map((v) => [v, 1] as const), most: 1 })

    wants.forEach((want, w) => {
      const all = inside(w)
      const terms = (some: readonly number[], sign: number): Terms =>
        some.map((p) => [this.counts[p]!.get(w)!, sign * weightIn(want, pieces[p]!)] as const)
      if (want.byCourse && all.length > want.amount) rows.push({ terms: terms(all, 1), most: want.amount })
      let before: number | undefined
      const labels = ladder[w]!.filter((label) => label < LEVELS)
      labels.forEach((label, i) => {
        const met = variable()
        this.met.push({ variable: met, level: label })
        const firm = all.filter((p) => pieces[p]!.firmness <= label)
        const enough = (some: readonly number[], least: number) =>
          rows.push({ terms: [...terms(some, -1), [met, least] as const], most: 0 })
        enough(firm, want.amount)
        for (const part of want.including)
          enough(
            firm.filter((p) => part.pieces.has(p)),
            part.least
          )
        if (want.subjects) {
          const seen = [...new Set(firm.map((p) => pieces[p]!.subject))].map((subject) => {
            const there = variable()
            const own = firm.filter((p) => pieces[p]!.subject === subject)
            rows.push({
              terms: [...own.map((p) => [this.counts[p]!.get(w)!, -1] as const), [there, 1] as const],
              most: 0
            })
            return [there, -1] as const
          })
          rows.push({ terms: [...seen, [met, want.subjects] as const], most: 0 })
        }
        if (before !== undefined)
          rows.push({
            terms: [
              [before, 1],
              [met, -1]
            ],
            most: 0
          })
        before = met
        for (let level = label; level < (labels[i + 1] ?? LEVELS); level++) this.metBy[level]!.push([met, 1])
      })
      const sum = all.reduce((total, p) => total + pieces[p]!.weight, 0)
      if (!want.byCourse && sum > want.amount) {
        const waste = variable(sum - want.amount)
        this.wasted.push([waste, 1])
        rows.push({ terms: [...terms(all, 1), [waste, -1] as const], most: want.amount })
      }
    })
    const counting = (p: number, some: ReadonlySet<number>, factor: number): Terms =>
      [...this.counts[p]!].filter(([w]) => some.has(w)).map(([, v]) => [v, factor] as const)
    for (const cap of caps)
      rows.push({
        terms: [...cap.pieces].flatMap((p) => counting(p, cap.wants, pieces[p]!.weight)),
        most: cap.most
      })
    for (const share of shares) {
      const spent: Terms = share.pairs.map(({ one, other }) => {
        const both = variable()
        rows.push({
          terms: [
            ...counting(one, share.oneSide, 1),
            ...counting(other, share.otherSide, 1),
            [both, -1] as const
          ],
          most: 1
        })
        return [both, pieces[one]!.weight] as const
      })
      rows.push({ terms: spent, most: share.most })
    }
    // What is settled stays; rows for what will be settled are there from the start, and idle.
    this.goals = this.metBy.map((terms, level) => {
      const least = settled ? wants.length - settled.opens[level]! : 0
      rows.push({
        terms: [...terms.map(([v, f]) => [v, -f] as const), [variable(wants.length), 1] as const],
        most: 0
      })
      return { variable: this.high.length - 1, least }
    })
    const most = this.wasted.reduce((sum, [v]) => sum + this.high[v]!, 0)
    this.wasteGoal = variable(most)
    rows.push({ terms: [...this.wasted, [this.wasteGoal, -1] as const], most: 0 })
    this.lp = new Simplex(this.high.length, rows, this.high)
    for (const { variable: goal, least } of this.goals) this.lp.bound(goal, least, wants.length)
    if (settled) this.lp.bound(this.wasteGoal, 0, Math.min(settled.waste, most))
    this.mostWaste = most
  }

  private readonly goals: { variable: number; least: number }[]
  private readonly wasteGoal: number
  private readonly mostWaste: number

  /**
   * The best opens, then the least waste. `start` is a reading to improve; undefined as soon as it is
   * sure that nothing here leaves as few open as `beat`. @throws OutOfSteps
   */
  best(start: readonly number[], beat?: Opens): Scored | undefined {
    const { problem } = this
    let best: Scored = { place: [...start], ...scoreOf(problem, start) }
    const total = problem.wants.length
    for (let level = 0; level < LEVELS; level++) {
      const objective: Terms = this.metBy[level]!
      const found = this.search(objective, total - best.opens[level]!, level)
      if (found) best = found
      this.lp.bound(this.goals[level]!.variable, total - best.opens[level]!, total)
      if (beat && isBehind(best.opens, beat, level)) return undefined
    }
    const found = this.search(
      this.wasted.map(([v]) => [v, -1] as const),
      -best.waste
    )
    return found ?? best
  }

  /** Any reading that keeps what is settled with these pieces in their places, or undefined. @throws OutOfSteps */
  reading(decided: readonly number[]): number[] | undefined {
    for (let p = 0; p < decided.length; p++) {
      if (decided[p]! < NOWHERE) continue
      for (const [w, v] of this.counts[p]!) {
        const one = w === decided[p] ? 1 : 0
        this.lp.bound(v, one, one)
      }
    }
    const found = this.search([], -1)?.place
    for (let p = 0; p < decided.length; p++) for (const v of this.counts[p]!.values()) this.lp.bound(v, 0, 1)
    return found
  }

  /**
   * A whole solution worth more than `beat`, the most there is; undefined when there is none. Where
   * only what is met by `level` is asked for, softer pieces cannot matter and are left out.
   */
  private search(objective: Terms, beat: number, level = LEVELS): Scored | undefined {
    const { lp, effort, problem } = this
    const among = (list: ExactSearch['met']) =>
      list.filter((one) => one.level <= level).map((one) => one.variable)
    const met = among(this.met)
    const counted = among(this.counted)
    let best: Scored | undefined
    let most = beat
    // Where any reading will do, costs that all differ lead straight to one.
    lp.maximise(objective.length ? objective : counted.map((v) => [v, 1 + ((v * 31) % 17) / 17] as const))
    const worth = (point: Float64Array) => objective.reduce((sum, [v, factor]) => sum + factor * point[v]!, 0)

    const visit = (): void => {
      step(effort)
      if (!lp.solve()) return
      const point = lp.point()
      if (Math.floor(worth(point) + SLACK) <= most) return
      const chosen = mostDivided(met, point) ?? mostDivided(counted, point) ?? -1
      if (chosen < 0) {
        const place = problem.pieces.map((piece, p) => {
          if (piece.firmness > level) return NOWHERE
          for (const [w, v] of this.counts[p]!) if (point[v]! > 0.5) return w
          return NOWHERE
        })
        if (!isLegal(problem, place))
          throw new Error('a whole solution broke a rule; the rows do not say what the rules say')
        best = { place, ...scoreOf(problem, place) }
        most = Math.round(worth(point))
        return
      }
      const low = lp.low[chosen]!
      const high = lp.high[chosen]!
      lp.bound(chosen, 1, 1)
      visit()
      if (best && objective.length === 0) {
        lp.bound(chosen, low, high)
        return
      }
      lp.bound(chosen, 0, 0)
      visit()
      lp.bound(chosen, low, high)
    }
    visit()
    return best
  }
}

function mostDivided(variables: readonly number[], point: Float64Array): number | undefined {
  let chosen: number | undefined
  let off = WHOLE
  for (const v of variables) {
    const away = Math.min(point[v]!, 1 - point[v]!)
    if (away > off) {
      off = away
      chosen = v
    }
  }
  return chosen
}

/** Whether the first differing count up to this level is the worse one. */
function isBehind(opens: Opens, beat: Opens, level: number): boolean {
  for (let i = 0; i <= level; i++) if (opens[i] !== beat[i]) return opens[i]! > beat[i]!
  return false
}
