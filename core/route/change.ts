/** Changes of a route as values: applied, and turned round to undo. */
import type { PlannedCourse } from '../degree'
import type { RouteChange } from '../findings'
import type { TermCode } from '../ids'

export type ChangeFault = 'alreadyInTerm' | 'notInTerm' | 'termClosed'

export type Changed = { ok: true; courses: PlannedCourse[] } | { ok: false; fault: ChangeFault }

/** The terms a change writes in. */
export function termsTouched(change: RouteChange): TermCode[] {
  return change.kind === 'move' ? [change.from, change.to] : [change.planned.term]
}

/** Applies a change to planned courses; `open` tells the terms that may still be written in. */
export function applyChange(
  courses: readonly PlannedCourse[],
  change: RouteChange,
  open: (term: TermCode) => boolean
): Changed {
  if (!termsTouched(change).every(open)) return { ok: false, fault: 'termClosed' }
  const at = (course: string, term: string) =>
    courses.findIndex((p) => p.course === course && p.term === term)
  switch (change.kind) {
    case 'add': {
      const { planned } = change
      if (at(planned.course, planned.term) >= 0) return { ok: false, fault: 'alreadyInTerm' }
      return { ok: true, courses: [...courses, planned] }
    }
    case 'remove': {
      const index = at(change.planned.course, change.planned.term)
      if (index < 0) return { ok: false, fault: 'notInTerm' }
      return { ok: true, courses: courses.filter((_, i) => i !== index) }
    }
    case 'move': {
      const index = at(change.course, change.from)
      if (index < 0) return { ok: false, fault: 'notInTerm' }
      if (at(change.course, change.to) >= 0) return { ok: false, fault: 'alreadyInTerm' }
      return { ok: true, courses: courses.map((p, i) => (i === index ? { ...p, term: change.to } : p)) }
    }
  }
}

/** The change that takes another one back. */
export function inverse(change: RouteChange): RouteChange {
  if (change.kind === 'move') return { kind: 'move', course: change.course, from: change.to, to: change.from }
  return { kind: change.kind === 'add' ? 'remove' : 'add', planned: change.planned }
}
