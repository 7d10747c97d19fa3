/** The nearest that can be had in place of sections that were lost or no longer fit. */
import { sectionsOf, type Meeting, type Option, type Section } from '../week'
import { decide } from './decide'
import type { RegistrationFacts } from './facts'

/** As far apart as hours on another day are taken to be, in minutes. */
const OTHER_DAY = 600

/**
 * Of options that the decision lets in, the one whose hours are nearest to those of before: a class on another day counts
 * as ten hours, one without hours as the next best. Undefined where nothing is let in.
 *
 * @param before the sections that were held, at the hours at which they were
 */
export function nearestOption(
  facts: RegistrationFacts,
  options: readonly Option[],
  before: readonly Section[]
): Option | undefined {
  const fitting = options.filter((option) => !decide(facts, [option])[0]!.refusals.length)
  const from = before.flatMap((section) => section.meetings)
  const shift = new Map(fitting.map((option) => [option, shiftOf(from, sectionsOf(option))]))
  return fitting.reduce<Option | undefined>(
    (best, one) => (best && shift.get(best)! <= shift.get(one)! ? best : one),
    undefined
  )
}

/** Minutes by which the hours move in all: each hour of before to the nearest of after. */
function shiftOf(before: readonly Meeting[], after: readonly Section[]): number {
  const starts = after.flatMap((section) =>
    section.meetings.flatMap(({ days, start }) => days.map((day) => ({ day, start })))
  )
  return before
    .flatMap(({ days, start }) => days.map((day) => ({ day, start })))
    .reduce((sum, was) => {
      const same = starts.filter(({ day }) => day === was.day).map(({ start }) => Math.abs(start - was.start))
      return sum + Math.min(OTHER_DAY, ...same)
    }, 0)
}
