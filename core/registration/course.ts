import type { CourseCode } from '../ids'
import type { Option } from '../week'
import { decide, decideWithoutSection, type LineDecision } from './decide'
import type { RegistrationFacts } from './facts'

export interface CourseDecision extends LineDecision {
  /** The option that was judged; undefined where the term has no sections yet. */
  option: Option | undefined
}

/**
 * Whether a student may take a course in a term, whichever of its sections: the decision for the option
 * with the fewest reasons against it, the first of equals. Without options the course itself is judged,
 * as far as that goes without a section.
 */
export function decideCourse(
  facts: RegistrationFacts,
  course: CourseCode,
  options: readonly Option[]
): CourseDecision {
  let best: CourseDecision | undefined
  for (const option of options) {
    const [line] = decide(facts, [option])
    if (!best || line!.refusals.length < best.refusals.length) best = { ...line!, option }
    if (!best.refusals.length) break
  }
  return best ?? { ...decideWithoutSection(facts, course), option: undefined }
}
