/** Finding weeks away from the page: what is asked, what is answered, and the one who works it out. */
import {
  bestWeeks,
  conflictOf,
  countWeeks,
  findQuestion,
  lettingGo,
  weekOf,
  withWishes,
  type FindEffort,
  type FindQuestion,
  type FoundWeek,
  type Want,
  type Wish
} from '#core/find'
import type { SectionCode } from '#core/ids'
import type { DayNumber } from '#core/time'
import { sectionsOf, type Section } from '#core/week'
import type { CatalogView } from '#shared/catalog/responses'

/** What is wanted, as it can be sent to a worker. */
export interface FindCall {
  sections: readonly Section[]
  holidays: readonly DayNumber[]
  want: Pick<Want, 'groups' | 'kept' | 'softly' | 'wishes' | 'seatsLeft'> & {
    fixed: readonly string[]
    travelHolds: boolean
  }
  travel: CatalogView['travel']
  top: number
}

/** What must hold, one by one, so that each can be let go. */
export type Must =
  | { kind: 'kept'; number: number }
  | { kind: 'group'; number: number }
  | { kind: 'fixed'; section: string }
  | { kind: 'travel' }
  | { kind: 'seats' }

export interface WeeksFound {
  /** The sections of each week, the best first. */
  weeks: SectionCode[][]
  /** Nothing better was left out. */
  proved: boolean
  steps: number
}

export interface WeeksCounted {
  /** Of how many combinations of options. */
  combinations: number
  /** How many fit; undefined where that cannot be counted exactly. */
  fit: number | undefined
  /** How many would fit without each thing that must hold. */
  without: { must: Must; fit: number | undefined }[]
  /** What cannot hold together, where none fits. */
  conflict: { groups: number[]; kept: number[] } | undefined
}

/**
 * The codes of sections that a text names: a list of codes, or a week as a table or a calendar file, whose long lines
 * are folded (RFC 5545, 3.1). Others than those given are passed over.
 */
export function sectionsNamedIn(text: string, sections: readonly Pick<Section, 'code'>[]): SectionCode[] {
  const named = new Set(
    text
      .replace(/\r?\n[ \t]/g, '')
      .toUpperCase()
      .match(/\b[0-9A-Z]+\b/g)
  )
  return sections.map((one) => one.code).filter((code) => named.has(code))
}

/** Sets of open options kept at once while counting what letting go of one thing gives: each is counted apart. */
const EACH = 40_000

/** Answers one call; with other wishes anew without working out again what clashes. */
export class WeekFinder {
  private readonly holidays: ReadonlySet<DayNumber>
  private question: FindQuestion

  constructor(private readonly call: FindCall) {
    this.holidays = new Set(call.holidays)
    this.question = this.ask(call.want)
  }

  private ask({ fixed, travelHolds, ...want }: FindCall['want']): FindQuestion {
    const { sections, travel } = this.call
    const minutes = (from: string, to: string) =>
      travel.find((one) => one.from === from && one.to === to)?.minutes
    return findQuestion(
      sections,
      { ...want, fixed: new Set(fixed), travel: travelHolds ? minutes : undefined },
      this.holidays
    )
  }

  wish(wishes: readonly Wish[]): void {
    this.question = withWishes(this.question, { ...this.call.want, wishes }, this.holidays)
  }

  best(stopped?: (found: WeeksFound) => boolean): WeeksFound {
    const effort: FindEffort = stopped
      ? { stopped: (steps, best) => stopped({ weeks: this.codesOf(best), proved: false, steps }) }
      : {}
    const { weeks, proved, steps } = bestWeeks(this.question.problem, this.call.top, effort)
    return { weeks: this.codesOf(weeks), proved, steps }
  }

  private codesOf(weeks: readonly FoundWeek[]): SectionCode[][] {
    return weeks.map((week) =>
      weekOf(this.question, week)
        .flatMap(sectionsOf)
        .map((one) => one.code)
    )
  }

  count(): WeeksCounted {
    const { want } = this.call
    const { problem } = this.question
    const fit = countWeeks(problem)
    const freed = (kind: 'kept' | 'group', list: readonly unknown[]): WeeksCounted['without'] =>
      list.map((_, number) => {
        const must = { kind, number }
        return { must, fit: countWeeks(lettingGo(problem, must), EACH) }
      })
    // What changes the options themselves is asked anew.
    const asked = (must: Must, changed: Partial<FindCall['want']>): WeeksCounted['without'][number] => ({
      must,
      fit: countWeeks(this.ask({ ...want, ...changed, wishes: [] }).problem, EACH)
    })
    const without = [
      ...freed('kept', want.kept),
      ...want.fixed.map((section) =>
        asked({ kind: 'fixed', section }, { fixed: want.fixed.filter((one) => one !== section) })
      ),
      ...(want.travelHolds ? [asked({ kind: 'travel' }, { travelHolds: false })] : []),
      ...(want.seatsLeft ? [asked({ kind: 'seats' }, { seatsLeft: false })] : []),
      ...(fit === 0 ? freed('group', want.groups) : [])
    ]
    const conflict = fit === 0 ? conflictOf(problem) : undefined
    return { combinations: this.combinations(), fit, without, conflict }
  }

  /** Every way to take the options, clashing or not. */
  private combinations(): number {
    const { groups, options } = this.question.problem
    const of = (course: number) => options.filter((one) => one.course === course).length
    return groups.reduce((product, { courses, take }) => {
      // The number of ways to take so many of the courses, with an option of each.
      const ways = [1, ...Array.from({ length: take }, () => 0)]
      for (const course of courses) for (let n = take; n > 0; n--) ways[n]! += ways[n - 1]! * of(course)
      return product * ways[take]!
    }, 1)
  }
}
