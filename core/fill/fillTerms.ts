import { runsIn, type Course, type Term } from '../catalog'
import type { TermCode } from '../ids'
import { termLoad, termsToPlan, type RouteContext } from '../route'
import { TERMS_MOST, type FillProblem } from './problem'
import type { FillWish } from './wish'

export function orderIn(terms: readonly Term[], code: TermCode): number {
  return terms.findIndex((term) => term.code === code)
}

/** The terms that may be filled, in order: which courses run in each, and what it holds. */
export class FillTerms {
  readonly list: readonly Term[]

  constructor(
    private readonly context: RouteContext,
    private readonly wish: Pick<FillWish, 'until' | 'summers' | 'load' | 'full'>
  ) {
    const future = termsToPlan(context)
    const last = wish.until ? orderIn(future, wish.until) : future.length - 1
    this.list = future.slice(0, Math.min(TERMS_MOST, last + 1))
  }

  /** As bits, the terms in which the course can be taken. */
  of(course: Course): number {
    let bits = 0
    this.list.forEach((term, t) => {
      const { running, offered } = this.context
      if (!this.isOpen(term) || !runsIn(course, term, running)) return
      if (!offered?.noSection(course.code, term.code)) bits |= 1 << t
    })
    return bits
  }

  private isOpen(term: Term): boolean {
    return !this.context.away?.has(term.code) && (this.wish.summers || term.season !== 'summer')
  }

  /** The terms as the problem has them. */
  asProblem(): FillProblem['terms'] {
    return this.list.map((term) => this.termOf(term))
  }

  private termOf(term: Term) {
    const { attempts, loadMost, loadLeast, hoursMost } = this.context
    const standing = termLoad(attempts, term.code)
    const open = this.isOpen(term)
    const hours = hoursMost?.(term)
    const most = Math.min(loadMost(term), this.wish.load?.(term) ?? Infinity)
    const regular = term.season !== 'summer'
    return {
      room: open ? Math.max(0, most - standing) : 0,
      standing,
      credited: attempts.counted.reduce(
        (sum, one) => (one.term === term.code && !one.again ? sum + one.credits : sum),
        0
      ),
      // Two hours of study a week for each credit, as `studyHours` reckons.
      soft: hours === undefined ? most : Math.min(most, hours / 2),
      least: open ? (loadLeast?.(term) ?? 0) : 0,
      full: open && regular ? (this.wish.full ?? 0) : 0,
      regular
    }
  }
}
