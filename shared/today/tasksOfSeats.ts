/** What is to be known or done of seats that are held in a term. */
import type { TermStanding } from '#core/calendar'
import { missingParts } from '#core/week'
import type { TermView } from '#shared/catalog/responses'
import { goingWith } from '#shared/reading'
import { termWeek } from '#shared/week/termWeek'
import { KIND_WORDS } from '#shared/words'
import type { TodoQuestion, Todo } from './task'

/** What is held without a part that it has on offer: one that was cancelled, or came later. */
export function ofParts(
  { studentRecord, catalogContext }: TodoQuestion,
  { term, adding }: TermStanding<TermView>
): Todo[] {
  const { held } = termWeek(studentRecord, term.code, goingWith(studentRecord, term.code))
  const missing = missingParts(held, catalogContext.offers.get(term.code)?.sections ?? [])
  return [...missing].map(([course, kinds]): Todo => {
    const part = kinds.map((kind) => KIND_WORDS[kind]).join(' and ')
    return {
      id: `part ${term.code} ${course}`,
      urgency: 'attention',
      title: `You hold ${course} without its ${part}`,
      text:
        adding === 'open' || adding === 'notYet'
          ? `Your seat in the rest of it stays. Exchange it on Week for one with all its parts, and register that.`
          : `Your seat in the rest of it stays. The registrar can register its ${part} with you.`,
      when: '',
      action: { label: 'See the week', to: 'week' }
    }
  })
}

/** Seats that an office has placed the student in. */
export function ofOffice({ studentRecord }: TodoQuestion, { term, state }: TermStanding<TermView>): Todo[] {
  if (state !== 'ahead') return []
  const placed = studentRecord.held.filter((one) => one.term === term.code && one.placedByOffice)
  if (!placed.length) return []
  return [
    {
      id: `placed ${term.code}`,
      urgency: 'plain',
      title: `An office placed you in ${placed.map((one) => one.course).join(', ')}`,
      text: `You hold ${placed.length === 1 ? 'this seat' : 'these seats'} in ${term.name} already; only the office can move you.`,
      when: '',
      action: { label: 'See the week', to: 'week' }
    }
  ]
}
