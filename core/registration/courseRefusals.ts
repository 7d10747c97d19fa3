import { allAttempts, attemptsOf, type Attempt } from '../degree'
import type { Refusal } from '../findings'
import type { CourseCode } from '../ids'
import { assumedLeaves, evaluateRule, missingPart, ruleOf, splitMissing } from '../requisites'
import { asOfTerm } from '../route'
import type { Option, Section } from '../week'
import type { RegistrationFacts } from './facts'
import { heldWithout, seatIn } from './step'

/** Reasons that have to do with the course, whatever the section. */
export function courseRefusals(
  facts: RegistrationFacts,
  code: CourseCode,
  {
    others,
    gone,
    consented,
    main
  }: { others: readonly Option[]; gone: ReadonlySet<CourseCode>; consented: boolean; main?: Section }
) {
  const { catalog, terms, term, student } = facts
  const refusals: Refusal[] = []
  const attempts = attemptsWith(facts, others, gone)
  /** In the term itself a seat of the course is another matter: it is held already, or exchanged. */
  const isElsewhere = (attempt: Attempt) =>
    attempt.status === 'earned' || attempt.term !== term.code || attempt.course !== code
  const course = catalog.maybeCourse(code)
  const same: readonly string[] = catalog.sameAs(code)
  const there = course?.repeatable
    ? []
    : attempts.filter((one) => isElsewhere(one) && same.includes(one.course))
  const earned = there.find((one) => one.status === 'earned' && !mayRepeat(one, facts))
  const taken = there.find((one) => one.status !== 'earned' && one.term)
  if (earned) refusals.push({ code: 'alreadyEarned', grade: earned.grade, below: facts.repeatBelow })
  else if (taken?.term) {
    const name = terms.find((one) => one.code === taken.term)?.name ?? taken.term
    refusals.push({ code: 'alreadyTaken', term: taken.term, name, held: taken.status === 'registered' })
  }
  const rule = ruleOf(main?.prerequisite ?? course?.prerequisite ?? '')
  if (!rule) return { refusals, assumed: [] }
  const asOf = { ...asOfTerm(term.code, terms, attempts, student, catalog), permitted: consented }
  const result = evaluateRule(rule, asOf)
  const { before, together } = splitMissing(missingPart(result))
  if (before && !student.waived?.has(code)) refusals.push({ code: 'prerequisite', missing: before })
  if (together) refusals.push({ code: 'corequisite', missing: together })
  return { refusals, assumed: assumedLeaves(result) }
}

/** What was earned with a grade of the scale below the limit is taken again to better it; credit from elsewhere is not. */
function mayRepeat(
  { grade, origin }: Attempt,
  { repeatBelow: below, catalog: { scale } }: Pick<RegistrationFacts, 'repeatBelow' | 'catalog'>
): boolean {
  if (below === null || grade === null || origin !== 'here') return false
  return (
    scale.has(grade) &&
    scale.has(below) &&
    scale.meaning(grade).points !== null &&
    !scale.atLeast(grade, below)
  )
}

const alone = new WeakMap<RegistrationFacts, Attempt[]>()

/** What the student has, with the courses taken along; where none changes it, worked out once for the same facts. */
export function attemptsWith(
  facts: RegistrationFacts,
  others: readonly Option[],
  gone: ReadonlySet<CourseCode>
): Attempt[] {
  const { catalog, terms, term, record } = facts
  const isChanged =
    others.length > 0 || facts.held.some((seat) => seat.term === term.code && gone.has(seat.course))
  const known = isChanged ? undefined : alone.get(facts)
  if (known) return known
  const held = [...heldWithout(facts, gone), ...others.map((option) => seatIn(facts, option))]
  const all = allAttempts(attemptsOf({ catalog, record, held, planned: [] }, terms))
  if (!isChanged) alone.set(facts, all)
  return all
}
