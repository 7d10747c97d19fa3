import { weightIn } from '../degree'
import type { LinearModel, Sum } from './linear'
import { at, shortOf, times, type ModelOptions } from './model'
import { termsIn, type FillProblem } from './problem'

type Branch = FillProblem['root']

/** The rows of the reading: which attempt counts toward which want, within caps, shares and choices. */
export class ReadingRows {
  /** Of a piece and a want, the variable that says it counts there. */
  private readonly names = new Map<string, string>()
  /** What counts toward each want. */
  private readonly into: Sum[number][][]
  private branches = 0

  constructor(
    private readonly model: LinearModel,
    private readonly problem: FillProblem,
    private readonly options: ModelOptions
  ) {
    this.into = problem.reading.wants.map(() => [])
  }

  write(): void {
    this.countings()
    this.ask(this.problem.root, undefined)
    this.caps()
    this.shares()
  }

  /** A piece counts where it is taken, and once in its layer. */
  private countings(): void {
    const { courses, holders } = this.problem
    const { wants, pieces } = this.problem.reading
    const { last } = this.options
    pieces.forEach((piece, p) => {
      const holder = holders[piece.course]!
      if ('at' in holder && holder.at > last) return
      const counts: Sum = piece.wants.map((w) => {
        const name = this.model.binary(`z${p}_${w}`)
        this.names.set(`${p} ${w}`, name)
        this.into[w]!.push([weightIn(wants[w]!, piece), name])
        return [1, name] as const
      })
      if ('at' in holder) this.model.row(counts, '<=', 1)
      else {
        const taken = termsIn(courses[holder.course]!.terms, last).map(
          (t) => [-1, at(holder.course, t)] as const
        )
        this.model.row([...counts, ...taken], '<=', 0)
      }
    })
  }

  private counted(p: number, some: Iterable<number>): Sum {
    return [...some].flatMap((w) => {
      const name = this.names.get(`${p} ${w}`)
      return name ? [[1, name] as const] : []
    })
  }

  /** What a branch asks for; `active` is 1 where it is chosen, and is absent where it always is. */
  private ask(branch: Branch, active: string | undefined): void {
    for (const w of branch.wants) this.askWant(w, active)
    for (const { least, of } of branch.choices) {
      const names = of.map(() => this.model.binary(`a${this.branches++}`))
      const sum: Sum = names.map((name) => [1, name] as const)
      if (active) this.model.row([...sum, [-least, active]], '=', 0)
      else this.model.row(sum, '=', least)
      of.forEach((one, i) => this.ask(one, names[i]))
    }
  }

  private askWant(w: number, active: string | undefined): void {
    const { wants, pieces } = this.problem.reading
    const { short } = this.options
    const want = wants[w]!
    const sum = this.into[w]!
    /** At least so much where the branch is chosen; `missing` says what may be missing. */
    const atLeast = (some: Sum, least: number) =>
      active
        ? this.model.row([...some, ...missing, [-least, active]], '>=', 0)
        : this.model.row([...some, ...missing], '>=', least)
    const missing: Sum =
      short === undefined
        ? []
        : [[1, this.model.upTo(shortOf(w), Math.max(0, Math.min(short[w]!, want.amount)))]]
    if (want.amount > 0) atLeast(sum, want.amount)
    if (want.byCourse) {
      if (active) this.model.row([...sum, [-want.amount, active]], '<=', 0)
      else this.model.row(sum, '<=', want.amount)
    }
    for (const part of want.including)
      atLeast(
        [...part.pieces].flatMap((p) => times(weightIn(want, pieces[p]!), this.counted(p, [w]))),
        part.least
      )
    if (want.subjects) atLeast(this.subjectsIn(w), want.subjects)
  }

  /** Of each subject that may count toward a want, whether one of its pieces does. */
  private subjectsIn(w: number): Sum {
    const bySubject = new Map<number, Sum>()
    this.problem.reading.pieces.forEach((piece, p) => {
      const here = this.counted(p, [w])
      if (here.length) bySubject.set(piece.subject, [...(bySubject.get(piece.subject) ?? []), ...here])
    })
    return [...bySubject].map(([subject, some]) => {
      const name = this.model.upTo(`b${w}_${subject}`, 1)
      this.model.row([[1, name], ...times(-1, some)], '<=', 0)
      return [1, name] as const
    })
  }

  private caps(): void {
    const { caps, pieces } = this.problem.reading
    for (const cap of caps)
      this.model.row(
        [...cap.pieces].flatMap((p) => times(cap.each ? 1 : pieces[p]!.weight, this.counted(p, cap.wants))),
        '<=',
        cap.most
      )
  }

  /** What counts on both sides of a pair of layers is at most what they may share. */
  private shares(): void {
    const { shares, pieces } = this.problem.reading
    shares.forEach((share, s) => {
      const both = share.pairs.flatMap(({ one, other }, i): Sum => {
        return one.flatMap((p): Sum => {
          const others = other.map((q) => this.counted(q, share.otherSide)).filter((some) => some.length)
          const own = this.counted(p, share.oneSide)
          if (!own.length || !others.length) return []
          const name = this.model.upTo(`h${s}_${i}_${p}`, 1)
          for (const some of others) this.model.row([...own, ...some, [-1, name]], '<=', 1)
          return [[pieces[p]!.weight, name]]
        })
      })
      this.model.row(both, '<=', share.most)
    })
  }
}
