/**
 * The question of filling a route, without names: which courses to take and in which term, so that all wants
 * are met by some reading of everything that is taken, and everything legal holds.
 *
 * Terms count from 0; sets of terms are bits of a whole number, so there are 30 of them at most.
 */
import type { Alternative, ReadingProblem } from '../degree'
import type { Branch } from '../requisites'

export interface FillTerm {
  /** Credits that may still be placed here; 0 for a term spent elsewhere. */
  room: number
  /** Credits that stand here already, and those of them that are not there twice. */
  standing: number
  credited: number
  /** More credits than this are a finding: too many hours of study. At least `standing` is no promise. */
  soft: number
  /** Fewer credits than this, where there are any, are a finding, but for the last term that is used. */
  least: number
  /** Fewer than this are said to be little where more terms follow: full-time study. */
  full: number
  /** Its load is to be as that of the others. */
  regular: boolean
}

export type FillRule =
  | Branch<FillRule>
  /** The course is taken before, or in the same term at the latest. */
  | { kind: 'course'; course: number; same: boolean }
  /** So many credits, those before the first term included, are reached before the term begins. */
  | { kind: 'credits'; credits: number }

export interface FillCourse {
  credits: number
  /** Credits that it adds to those reached: none where it repeats a course. */
  adds: number
  /** The terms in which it may stand, as bits. */
  terms: number
  /** What has to be there before it; undefined for nothing. */
  rule: FillRule | undefined
  /** Courses, by number, of which only this one or they may be taken. */
  excludes: readonly number[]
  /** What taking it costs against others: what is liked costs less. */
  cost: number
  /** The term in which the program suggests it. */
  pull: number | undefined
  /** How early it belongs for its own sake: lower levels before upper ones; negative for what is better late. */
  early: number
  /** It stands on the route already, in the one term of `terms`; a rule of its own is to be met by what is added. */
  placed: boolean
}

/** An attempt of the reading: settled before all terms, standing in a term, or a course of the question. */
export type Holder = { at: number } | { course: number }

export interface FillProblem {
  terms: readonly FillTerm[]
  courses: readonly FillCourse[]
  /** Which attempt may count toward which want; its pieces' courses are numbers of `holders`. */
  reading: ReadingProblem
  root: Alternative
  holders: readonly Holder[]
  /** Credits reached before the first term. */
  before: number
}

/** Courses of which not all may stand in the term: no week fits. */
export interface NotTogether {
  term: number
  courses: readonly number[]
}

export const TERMS_MOST = 30
/** In a filling: not taken. */
export const NOT_TAKEN = -1

/** For each course its term, or NOT_TAKEN. */
export type Filling = readonly number[]

/** Terms of a set of bits, in order, up to `last`. */
export function termsIn(bits: number, last: number): number[] {
  const found: number[] = []
  for (let t = 0; t <= last; t++) if (bits & (1 << t)) found.push(t)
  return found
}
