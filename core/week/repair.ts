/** The nearest way to make room for an option that clashes: other picks that move. */
import { sharesClash, type Holidays } from './meeting'
import { meetingsOf, seatsLeft, sectionsOf, type Option, type Section } from './option'

/** Picks that give way to other options of their course. */
export interface Repair {
  moves: { from: Option; to: Option }[]
}

export interface RepairQuestion {
  wanted: Option
  /** What is picked of other courses. */
  picked: readonly Option[]
  /** Sections that cannot move. */
  fixed: readonly Section[]
  /** Options of a course that may stand in the week as far as it alone is concerned. */
  others: (course: Option['course']) => readonly Option[]
  holidays: Holidays
}

/**
 * The picks that clash with the wanted option, each moved to another option of its course so that nothing clashes:
 * as few sections as possible change, and full ones are avoided. Undefined when that cannot be.
 */
export function repairOf({ wanted, picked, fixed, others, holidays }: RepairQuestion): Repair | undefined {
  const meet = (a: Option, b: Option) => sharesClash(meetingsOf(a), meetingsOf(b), holidays)
  const meetsFixed = (a: Option) =>
    sharesClash(
      meetingsOf(a),
      fixed.filter((one) => one.course !== a.course).flatMap((one) => one.meetings),
      holidays
    )
  if (meetsFixed(wanted)) return undefined
  const rest = picked.filter((one) => one.course !== wanted.course)
  const moving = rest.filter((one) => meet(one, wanted))
  const staying = rest.filter((one) => !moving.includes(one))
  const choices = moving.map((from) =>
    others(from.course)
      .filter((to) => !meet(to, wanted) && !meetsFixed(to) && staying.every((one) => !meet(to, one)))
      .map((to) => ({ from, to, cost: costOf(from, to) }))
      .sort((a, b) => a.cost - b.cost)
  )
  let best: { cost: number; moves: Repair['moves'] } | undefined
  const go = (i: number, cost: number, moves: Repair['moves']): void => {
    if (best && cost >= best.cost) return
    const list = choices[i]
    if (!list) {
      best = { cost, moves }
      return
    }
    for (const choice of list) {
      if (moves.some((one) => meet(one.to, choice.to))) continue
      go(i + 1, cost + choice.cost, [...moves, { from: choice.from, to: choice.to }])
    }
  }
  go(0, 0, [])
  return best && best.moves.length ? { moves: best.moves } : undefined
}

/** Sections that change; one that is full weighs more than any change. */
function costOf(from: Option, to: Option): number {
  const stay = new Set(sectionsOf(from).map((section) => section.code))
  const changed = sectionsOf(to).filter((section) => !stay.has(section.code)).length
  return changed + (seatsLeft(to) > 0 ? 0 : FULL)
}
const FULL = 10
