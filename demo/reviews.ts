/** What the programs ask of whoever wants a review, and the sign-off that they ask for where it is not the term's. */
import type { SignOffPolicy } from '#core/registration'
import type { ReviewRules } from '#shared/advising/review'

export const reviewRules: Record<string, ReviewRules> = {
  HERI: {
    covers: 'degree',
    questions: ['Which sites will you work on in your last year?']
  },
  GEOF: {
    covers: 'term',
    questions: ['Who supervises your fieldwork?', 'How many hours a week do you work beside it?']
  }
}

export const programPolicies: { program: string; term: string; policy: SignOffPolicy }[] = [
  { program: 'GEOF', term: 'AU27', policy: 'anew' },
  { program: 'ETHC', term: 'AU27', policy: 'none' }
]
