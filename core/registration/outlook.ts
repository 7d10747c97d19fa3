/** What a run comes to if seats are as they are, and if those that are scarce are gone before it. */
import type { CourseCode } from '../ids'

/** A choice of a line: seats, or a place in line. */
export type OutlookChoice =
  | { kind: 'seats'; credits: number; isRefused: boolean; isScarce: boolean }
  | { kind: 'line'; isRefused: boolean }

/** A line with its choices in the order in which they are tried, the picked one first. */
export interface OutlookLine {
  course: CourseCode
  choices: readonly OutlookChoice[]
}

export interface Outlook {
  credits: number
  /** How many lines end in a seat, in a place in line, in nothing. */
  seats: number
  waits: number
  nothing: number
}

/**
 * @param held credits of the term that are held whatever the run does
 * @param withoutScarce whether sections with few seats left are taken to be full by then
 */
export function outlook(lines: readonly OutlookLine[], held: number, withoutScarce: boolean): Outlook {
  const found: Outlook = { credits: held, seats: 0, waits: 0, nothing: 0 }
  for (const { choices } of lines) {
    const taken = choices.find(
      (one) => !one.isRefused && !(withoutScarce && one.kind === 'seats' && one.isScarce)
    )
    if (taken?.kind === 'seats') {
      found.seats++
      found.credits += taken.credits
    } else if (taken) found.waits++
    else found.nothing++
  }
  return found
}

/** Courses of which the choice that would be taken now may be full by then. */
export function scarceCourses(lines: readonly OutlookLine[]): CourseCode[] {
  return lines.flatMap(({ course, choices }) => {
    const first = choices.find((one) => !one.isRefused)
    return first?.kind === 'seats' && first.isScarce ? [course] : []
  })
}

const FEWEST = 3
const SHARE = 0.15

/** Whether a section has so few seats left that they may be gone soon: three, or 15 in a hundred. */
export function isScarce({ capacity, taken }: { capacity: number; taken: number }): boolean {
  return capacity - taken <= Math.max(FEWEST, capacity * SHARE)
}
