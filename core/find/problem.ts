/**
 * The question of finding weeks, without names: which option of each course, so that nothing clashes.
 *
 * Options are numbered through all courses. Hours are minutes after midnight, half-open.
 */
import type { Minutes, Weekday } from '../time'

/** Classes of an option on one weekday. */
export interface DayPart {
  day: Weekday
  /** The kinds of the weekday's dates on which they are held; not empty. Alike ones are the same array. */
  kinds: readonly number[]
  start: Minutes
  end: Minutes
  /** The campus, as a number; undefined for what is held online. */
  campus: number | undefined
}

export interface FindOption {
  course: number
  parts: readonly DayPart[]
  /** Other options that cannot stand beside it, in order; those of its own course are left out. */
  clashes: readonly number[]
  /** What it costs a wish that looks at options one by one, by the wish's number. */
  costs: readonly number[]
}

/** So many of these courses are taken. */
export interface FindGroup {
  courses: readonly number[]
  take: number
}

/** What a week is wished to be; each is a number, and less is better. */
export type Measure =
  | { kind: 'days' }
  | { kind: 'dayOff'; day: Weekday }
  | { kind: 'before'; time: Minutes }
  | { kind: 'after'; time: Minutes }
  | { kind: 'between' }
  | { kind: 'lunch'; from: Minutes; to: Minutes; least: Minutes }
  | { kind: 'fullest' }
  | { kind: 'campuses' }
  /** The sum of what its options cost. */
  | { kind: 'each' }

export interface FindProblem {
  courses: number
  /** Every course stands in one group. */
  groups: readonly FindGroup[]
  options: readonly FindOption[]
  /** The options that each of the hours kept free rules out. */
  kept: readonly (readonly number[])[]
  /** In order of weight. */
  measures: readonly Measure[]
}

/** A week: one option of each course that is taken, in order of option, and what each measure says. */
export interface FoundWeek {
  options: number[]
  costs: number[]
}

/** Compares costs, the first measure first. */
export function compareCosts(a: readonly number[], b: readonly number[]): number {
  for (let m = 0; m < a.length; m++) if (a[m] !== b[m]) return a[m]! - b[m]!
  return 0
}

/** The options that no hours kept free rule out. */
export function openOptions({ options, kept }: FindProblem): OptionSet {
  const ruledOut = OptionSet.of(options.length, kept.flat())
  return OptionSet.of(
    options.length,
    options.map((_, o) => o)
  ).without(ruledOut)
}

/** The options of each course. */
export function optionsByCourse({ options, courses }: FindProblem): number[][] {
  const found: number[][] = Array.from({ length: courses }, () => [])
  options.forEach((one, o) => found[one.course]!.push(o))
  return found
}

/** Sets of options as bits of 32. */
export class OptionSet {
  readonly words: Uint32Array

  constructor(words: Uint32Array | number) {
    this.words = typeof words === 'number' ? new Uint32Array((words + 31) >> 5) : words
  }

  static of(size: number, options: Iterable<number>): OptionSet {
    const set = new OptionSet(size)
    for (const one of options) set.words[one >> 5]! |= 1 << (one & 31)
    return set
  }

  has(option: number): boolean {
    return ((this.words[option >> 5]! >>> (option & 31)) & 1) === 1
  }

  without(other: OptionSet): OptionSet {
    const words = new Uint32Array(this.words.length)
    for (let w = 0; w < words.length; w++) words[w] = this.words[w]! & ~other.words[w]!
    return new OptionSet(words)
  }

  get key(): string {
    return String.fromCharCode(
      ...new Uint16Array(this.words.buffer, this.words.byteOffset, this.words.length * 2)
    )
  }
}
