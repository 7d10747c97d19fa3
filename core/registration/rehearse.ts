/** A rehearsal: every picked option judged as the run would judge it, registering nothing. */
import type { RefusalCode } from '../findings'
import type { CourseCode } from '../ids'
import { optionsAmong, type Option, type Section } from '../week'
import { decide, type LineDecision } from './decide'
import type { RegistrationFacts } from './facts'
import { afterGroup } from './step'
import { groupLines } from './group'

/** What keeps a student from every section alike: said once, not at each line. */
export const GENERAL_REFUSALS: ReadonlySet<RefusalCode> = new Set([
  'notOpen',
  'closed',
  'hold',
  'signOff',
  'notAgreed'
])

/**
 * The options that picked sections make, by course. What is picked without one of its components is an option
 * still: the decision says that the component is missing.
 */
export function pickedOptions(offer: readonly Section[], codes: readonly string[]): Map<CourseCode, Option> {
  const picked = offer.filter((section) => codes.includes(section.code))
  const options = new Map<CourseCode, Option>()
  for (const main of picked.filter((section) => section.parent === null)) {
    const components = picked.filter((section) => section.parent === main.code)
    const whole = optionsAmong([main, ...components])[0]
    options.set(main.course, whole ?? { key: main.code, course: main.course, main, components })
  }
  return options
}

/** The one option that sections of a single course make; undefined where none of them is offered. */
export function choiceOf(offer: readonly Section[], codes: readonly string[]): Option | undefined {
  const [option] = pickedOptions(offer, codes).values()
  return option
}

/** Decisions for options in the order given, groups together; each group sees the earlier ones as held. */
export function rehearse(
  facts: RegistrationFacts,
  options: readonly Option[]
): Map<CourseCode, LineDecision> {
  const found = new Map<CourseCode, LineDecision>()
  let seen = facts
  for (const group of groupLines(options, facts)) {
    const decisions = decide(seen, group)
    for (const decision of decisions) found.set(decision.course, decision)
    const specific = decisions.flatMap((d) => d.refusals).some((r) => !GENERAL_REFUSALS.has(r.code))
    if (!specific) seen = afterGroup(seen, group)
  }
  return found
}
