/** What has to be there before a term is reviewed, and which sign-off a student's programs ask for. */
import type { TermCode } from '#core/ids'
import { strictestPolicy, type SignOffPolicy } from '#core/registration'
import type { TermView } from '#shared/catalog/responses'
import type { StudentRecord } from '#shared/record/responses'

/** As a program says. */
export interface ReviewRules {
  /** What has to be planned: the term that is asked about, or the way to the degree. */
  covers: 'term' | 'degree'
  /** Questions that are answered with it. */
  questions: string[]
}

/** An answer, with the question as it was asked then. */
export interface ReviewAnswer {
  question: string
  answer: string
}

/** The sign-off that a program asks for in a term, in place of the term's own. */
export interface ProgramPolicy {
  term: TermCode
  policy: SignOffPolicy
}

/** What all programs of a student ask for together. */
export function reviewRulesOf(programs: readonly { review: ReviewRules }[]): ReviewRules {
  const rules = programs.map((one) => one.review)
  return {
    covers: rules.some((one) => one.covers === 'degree') ? 'degree' : 'term',
    questions: [...new Set(rules.flatMap((one) => one.questions))]
  }
}

/** The strictest that a program of the student asks for in a term; where none says, the term's own. */
export function signOffPolicyOf(
  { programs }: { programs: readonly Pick<StudentRecord['programs'][number], 'policies'>[] },
  { code, signOffPolicy }: Pick<TermView, 'code' | 'signOffPolicy'>
): SignOffPolicy {
  const of = programs.map((one) => one.policies.find(({ term }) => term === code)?.policy ?? signOffPolicy)
  return strictestPolicy(of) ?? signOffPolicy
}
