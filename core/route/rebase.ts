/** A change that was proposed for a plan, made of what the plan has become since. */
import type { PlannedCourse } from '../degree'
import type { PlannedDetail, RouteChange, SingleChange } from '../findings'
import type { CourseCode, TermCode } from '../ids'
import { applyChange, courseOf, detailOf, differenceOf, sameDetail } from './change'

/** Why a proposed change cannot be made any more. */
export type RebaseFault = 'notPlanned' | 'unclear' | 'termClosed'

export type Rebased =
  /** `follows`: courses that stand elsewhere now than when it was proposed. */
  | { is: 'applies'; change: RouteChange; follows: CourseCode[] }
  /** The plan is so already. */
  | { is: 'done' }
  | { is: 'gone'; course: CourseCode; why: RebaseFault }

type Single<Kind extends SingleChange['kind']> = Extract<SingleChange, { kind: Kind }>

/**
 * Makes a proposed change of what a plan is now. What it is after stays: where a course is to stand, that it is to go,
 * what is to be said of it; where the course is taken from follows the plan.
 * @param change applies to `before`
 * @param before what was planned of the courses of the change when it was proposed
 * @param open whether something may be put into a term
 */
export function rebase(
  change: RouteChange,
  before: readonly PlannedCourse[],
  now: readonly PlannedCourse[],
  open: (term: TermCode) => boolean
): Rebased {
  const proposed = applyChange(before, change, () => true)
  if (!proposed.ok)
    throw new Error(`The change does not apply to what it was proposed for: ${proposed.fault}`)
  const follows: CourseCode[] = []
  const changes: SingleChange[] = []
  for (const aim of aimsOf(before, proposed.courses)) {
    const course = courseOf(aim)
    const found = rebaseOne(aim, { before: of(before, course), now: of(now, course) })
    if (found === 'done') continue
    if (found === 'gone') return gone(course)
    changes.push(found.change)
    if (found.follows) follows.push(course)
  }
  if (!changes.length) return { is: 'done' }
  const rebased: RouteChange = changes.length === 1 ? changes[0]! : { kind: 'several', changes }
  const made = applyChange(now, rebased, open)
  if (made.ok) return { is: 'applies', change: rebased, follows }
  const course = courseOf(made.of)
  return made.fault === 'termClosed' ? { is: 'gone', course, why: made.fault } : gone(course)

  /** A course in several terms: which one is meant cannot be told. */
  function gone(course: CourseCode): Rebased {
    return { is: 'gone', course, why: of(now, course).length ? 'unclear' : 'notPlanned' }
  }
}

const of = (courses: readonly PlannedCourse[], course: CourseCode) =>
  courses.filter((one) => one.course === course)

/** What a change comes to, whatever the steps: what leaves the plan first. */
function aimsOf(before: readonly PlannedCourse[], after: readonly PlannedCourse[]): SingleChange[] {
  const { removed, moved, added } = differenceOf(before, after)
  const stays = (one: PlannedCourse): SingleChange[] => {
    const was = before.find((other) => other.course === one.course && other.term === one.term)
    if (!was || sameDetail(was, one)) return []
    return [{ kind: 'edit', course: one.course, term: one.term, from: detailOf(was), to: detailOf(one) }]
  }
  return [
    ...removed.map((planned) => ({ kind: 'remove' as const, planned })),
    ...moved.map((one) => ({ kind: 'move' as const, ...one })),
    ...added.map((planned) => ({ kind: 'add' as const, planned })),
    ...after.flatMap(stays)
  ]
}

type One = { change: SingleChange; follows: boolean } | 'done' | 'gone'

/** The same for one course; `before` and `now` are what is planned of it. */
function rebaseOne(
  one: SingleChange,
  { before, now }: { before: readonly PlannedCourse[]; now: readonly PlannedCourse[] }
): One {
  const at = (term: TermCode) => now.find((planned) => planned.term === term)
  /** Where the student has put it since. */
  const since = now.filter((planned) => !before.some((old) => old.term === planned.term))
  const found = (term: TermCode) => at(term) ?? (since.length === 1 ? since[0] : undefined)
  switch (one.kind) {
    case 'add':
      return rebaseAdd(one, at, since)
    case 'remove': {
      const planned = found(one.planned.term)
      if (!planned) return 'done'
      return { change: { kind: 'remove', planned }, follows: planned.term !== one.planned.term }
    }
    case 'move': {
      const from = found(one.from)
      if (!from) return 'gone'
      if (from.term === one.to || at(one.to)) return 'done'
      return { change: { ...one, from: from.term }, follows: from.term !== one.from }
    }
    case 'edit':
      return rebaseEdit(one, found(one.term))
  }
}

/** A course that was put on the plan since, in another term, moves; it is not taken twice. */
function rebaseAdd(
  one: Single<'add'>,
  at: (term: TermCode) => PlannedCourse | undefined,
  [since]: readonly PlannedCourse[]
): One {
  const { course, term: to } = one.planned
  if (at(to)) return 'done'
  if (!since) return { change: one, follows: false }
  return { change: { kind: 'move', course, from: since.term, to }, follows: true }
}

/** Only what it changes is changed; what the student has changed beside it stays. */
function rebaseEdit(one: Single<'edit'>, planned: PlannedCourse | undefined): One {
  if (!planned) return 'gone'
  const { from, to } = one
  const is = detailOf(planned)
  const wanted: PlannedDetail = {
    credits: from.credits === to.credits ? is.credits : to.credits,
    note: from.note === to.note ? is.note : to.note,
    locked: from.locked === to.locked ? is.locked : to.locked
  }
  if (sameDetail(is, wanted)) return 'done'
  return {
    change: { ...one, term: planned.term, from: is, to: wanted },
    follows: planned.term !== one.term
  }
}
