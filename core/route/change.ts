/** Changes of a route as values: applied, and turned round to undo. */
import type { PlannedCourse } from '../degree'
import type { PlannedDetail, RouteChange, SingleChange } from '../findings'
import type { CourseCode, TermCode } from '../ids'

export type ChangeFault = 'alreadyInTerm' | 'notInTerm' | 'termClosed' | 'nothingChanged'

export type Changed =
  /** `made` is the change as it was made: what it took out or changed is in it in full, for its inverse. */
  | { ok: true; courses: PlannedCourse[]; made: RouteChange }
  | { ok: false; fault: ChangeFault; of: SingleChange }

export function singles(change: RouteChange): SingleChange[] {
  return change.kind === 'several' ? change.changes : [change]
}

/** The terms a change writes in. */
export function termsTouched(change: RouteChange): TermCode[] {
  return singles(change).flatMap((one) => {
    if (one.kind === 'move') return [one.from, one.to]
    return [one.kind === 'edit' ? one.term : one.planned.term]
  })
}

/** The courses a change is about. */
export function coursesTouched(change: RouteChange): CourseCode[] {
  return singles(change).map(courseOf)
}

export const courseOf = (one: SingleChange): CourseCode =>
  'planned' in one ? one.planned.course : one.course

export const detailOf = ({ credits, note, locked }: PlannedDetail): PlannedDetail => ({
  credits,
  note,
  locked
})

/** Whether the same is said of a planned course. */
export const sameDetail = (one: PlannedDetail, other: PlannedDetail): boolean =>
  one.credits === other.credits && one.note === other.note && one.locked === other.locked

/** The term that a change puts something into; what leaves a term leaves it whatever the term's state. */
function termsEntered(one: SingleChange): TermCode[] {
  if (one.kind === 'move') return [one.to]
  if (one.kind === 'edit') return [one.term]
  return one.kind === 'add' ? [one.planned.term] : []
}

/**
 * Applies a change to planned courses, all of it or nothing; `open` tells the terms into which something may be put.
 */
export function applyChange(
  courses: readonly PlannedCourse[],
  change: RouteChange,
  open: (term: TermCode) => boolean
): Changed {
  let now = [...courses]
  const made: SingleChange[] = []
  for (const one of singles(change)) {
    if (!termsEntered(one).every(open)) return { ok: false, fault: 'termClosed', of: one }
    const done = applySingle(now, one)
    if (typeof done === 'string') return { ok: false, fault: done, of: one }
    now = done.courses
    made.push(done.made)
  }
  return {
    ok: true,
    courses: now,
    made: change.kind === 'several' ? { kind: 'several', changes: made } : made[0]!
  }
}

function applySingle(
  courses: readonly PlannedCourse[],
  change: SingleChange
): { courses: PlannedCourse[]; made: SingleChange } | ChangeFault {
  const at = (course: string, term: string) =>
    courses.findIndex((p) => p.course === course && p.term === term)
  switch (change.kind) {
    case 'add': {
      const { planned } = change
      if (at(planned.course, planned.term) >= 0) return 'alreadyInTerm'
      return { courses: [...courses, planned], made: change }
    }
    case 'remove': {
      const index = at(change.planned.course, change.planned.term)
      if (index < 0) return 'notInTerm'
      return { courses: courses.toSpliced(index, 1), made: { kind: 'remove', planned: courses[index]! } }
    }
    case 'move': {
      const index = at(change.course, change.from)
      if (index < 0) return 'notInTerm'
      if (at(change.course, change.to) >= 0) return 'alreadyInTerm'
      return { courses: courses.with(index, { ...courses[index]!, term: change.to }), made: change }
    }
    case 'edit': {
      const index = at(change.course, change.term)
      if (index < 0) return 'notInTerm'
      const from = detailOf(courses[index]!)
      const { to } = change
      if (sameDetail(from, to)) return 'nothingChanged'
      return { courses: courses.with(index, { ...courses[index]!, ...to }), made: { ...change, from } }
    }
  }
}

/** The change that takes another one back, as it was made. */
export function inverse(change: RouteChange): RouteChange {
  switch (change.kind) {
    case 'several':
      return {
        kind: 'several',
        changes: change.changes.toReversed().map((one) => inverse(one) as SingleChange)
      }
    case 'move':
      return { ...change, from: change.to, to: change.from }
    case 'edit':
      return { ...change, from: change.to, to: change.from }
    default:
      return { kind: change.kind === 'add' ? 'remove' : 'add', planned: change.planned }
  }
}

/** What was planned before the latest changes of a plan; `later` in the order in which they were made. */
export function coursesBefore(
  now: readonly PlannedCourse[],
  later: readonly RouteChange[]
): readonly PlannedCourse[] {
  return later.reduceRight((courses, change) => {
    const back = applyChange(courses, inverse(change), () => true)
    return back.ok ? back.courses : courses
  }, now)
}

/** A step of a route's history; `of` is the version of the step that is undone or done again. */
export interface Step {
  version: number
  kind: 'do' | 'undo' | 'redo'
  of: number | null
  change: RouteChange
}

/** The steps that could be undone and done again next; `steps` in order of version. */
export function historyOf(steps: readonly Step[]): { undo: Step | undefined; redo: Step | undefined } {
  const done: Step[] = []
  const undone: Step[] = []
  for (const step of steps) {
    if (step.kind === 'do') {
      done.push(step)
      undone.length = 0
    } else if (step.kind === 'undo') {
      const back = done.pop()
      if (back) undone.push(back)
    } else {
      const again = undone.pop()
      if (again) done.push(again)
    }
  }
  return { undo: done.at(-1), redo: undone.at(-1) }
}

/** What changed from one plan to another: added, taken out, moved. */
export interface PlanDifference {
  added: PlannedCourse[]
  removed: PlannedCourse[]
  moved: { course: CourseCode; from: TermCode; to: TermCode }[]
}

export function differenceOf(
  before: readonly PlannedCourse[],
  after: readonly PlannedCourse[]
): PlanDifference {
  const key = (p: PlannedCourse) => `${p.course}@${p.term}`
  const [old, fresh] = [new Set(before.map(key)), new Set(after.map(key))]
  const removed = before.filter((p) => !fresh.has(key(p)))
  const added = after.filter((p) => !old.has(key(p)))
  const moved: PlanDifference['moved'] = []
  for (const planned of [...added]) {
    const from = removed.findIndex((p) => p.course === planned.course)
    if (from < 0) continue
    moved.push({ course: planned.course, from: removed[from]!.term, to: planned.term })
    removed.splice(from, 1)
    added.splice(added.indexOf(planned), 1)
  }
  return { added, removed, moved }
}
