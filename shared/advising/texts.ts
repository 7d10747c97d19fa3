/** What is said of sign-offs and of what is talked about. */
import type { SignOffCondition } from '#core/findings'
import type { IsoDate } from '#core/time'
import { dayMonth, deadlineText } from '#shared/when'
import type { SignOffView } from './responses'
import { isOverdue, type AgreedLine } from './talk'

/** `ENDA 325 only with C in STAT 212`. */
export function conditionText(condition: SignOffCondition): string {
  switch (condition.is) {
    case 'leastGrade':
      return `${condition.course} only with ${condition.grade} or better in ${condition.of}`
    case 'notBoth':
      return `not both ${condition.course} and ${condition.other}`
    case 'onlyWith':
      return `${condition.course} only with ${condition.other}`
  }
}

/** `13 to 18 credits, on condition: not both A 1 and B 2; until 30 Apr`. */
export function signOffTerms(
  { creditsLeast, creditsMost, alternatives, conditions, until }: SignOffView,
  zone: string
): string {
  const parts = [`${creditsLeast} to ${creditsMost} credits`]
  if (alternatives.length) parts.push(`in place of one also ${alternatives.join(' or ')}`)
  if (conditions.length) parts.push(`on condition: ${conditions.map(conditionText).join('; ')}`)
  if (until !== null) parts.push(`until ${deadlineText(until, zone)}`)
  return parts.join(', ')
}

/** `by 16 Apr`, `was due 8 Apr`; empty without a day. */
export function dueText(line: Pick<AgreedLine, 'due' | 'done'>, today: IsoDate): string {
  if (line.due === null) return ''
  return `${isOverdue(line, today) ? 'was due' : 'by'} ${dayMonth(line.due)}`
}
