/** What is said of a filling, and how it ended. */
import type { NeedResult } from '#core/degree'
import type { Aligned } from '#core/route'
import type { Filled, Proposed } from '#shared/route/filling'
import { count, creditsText } from '#shared/words'
import { blockerText } from './texts'

/** Why a proposed course is there, and there in that term. */
export function becauseText({
  needs,
  before,
  because
}: Pick<Proposed, 'needs' | 'before' | 'because'>): string {
  const why = needs.length
    ? `for ${needs.join(' and ')}`
    : before.length
      ? `because ${before.join(', ')} needs it`
      : 'to fill up'
  const also = needs.length && before.length ? `, before ${before.join(', ')}` : ''
  return `${why}${also}; ${BECAUSE[because]}`
}

const BECAUSE: Record<Proposed['because'], string> = {
  first: 'the first term in which it may stand',
  full: 'the terms before are full',
  suggested: 'as the program suggests',
  even: 'here the terms are more even',
  later: 'an earlier term would do as well'
}

/** What is left of a suggested sequence, in a sentence or two; `placed` courses of it are proposed. */
export function suggestedText(
  program: SequencedProgram,
  { from, open, left }: Pick<Aligned, 'from' | 'open' | 'left'>,
  placed: number
): string {
  if (!placed && !open.length && !left.length)
    return `All of what ${program.shortTitle} suggests is there, or others stand for it.`
  const chosen = open.length ? `, and ${count(open.length, 'place')} to choose a course for` : ''
  const rest = left.map(
    ({ course, why }) =>
      `${course}: ${why ? blockerText(why.blocker, why.term.name) : 'No term has room for it.'}`
  )
  const not = rest.length ? ` Not placed: ${rest.join(' ')}` : ''
  const where = from < program.suggested.length ? ` from its term ${from + 1} on` : ' and was left out'
  return `What ${program.shortTitle} suggests${where}: ${count(placed, 'course')}${chosen}.${not}`
}

interface SequencedProgram {
  shortTitle: string
  suggested: readonly unknown[]
}

/** `2 of 9 credits of “Arts or music”`: what of a need stays open, in its own measure. */
function missingText({ need, missing, lacks }: NeedResult): string {
  const title = `“${need.title}”`
  if (missing > 0)
    return need.measure === 'courses'
      ? `${missing} of ${count(need.amount, 'course')} of ${title}`
      : `${missing} of ${creditsText(need.amount)} of ${title}`
  if (lacks.subjects > 0) return `${count(lacks.subjects, 'further subject')} of ${title}`
  return `a part of ${title}`
}

/** Needs that cannot be met together, named one by one up to so many. */
const CONFLICT_NAMED = 4

/** How filling ended, as the audit says it once all of it is taken; `load` credits a term were the most. */
export function endedText(proposal: Filled | undefined, load?: number): string {
  if (!proposal) return 'Nothing was found within the time; that does not mean that there is nothing.'
  const { finish, proved, bound, left, conflict, again } = proposal
  if (finish) {
    const most = load === undefined ? '' : ` with at most ${load} credits a term`
    const unsettled = unsettledText(proposal.better)
    return proved
      ? `Finishes in ${finish.name}; no way is earlier${most}.${unsettled}`
      : `Finishes in ${finish.name}; whether an earlier way exists${bound ? `, ${bound.name} at best,` : ''} was not settled.${unsettled}`
  }
  const open = `Still open: ${left.map(missingText).join(', ')}.`
  if (again.length)
    return `${again.map((title) => `“${title}”`).join(' and ')} ${again.length === 1 ? 'asks' : 'ask'} for a course to be taken again, and each is filled in once: put it on the route as often as it is needed. ${open}`
  if (!conflict.length) return `Not everything found a place. ${open}`
  if (conflict.length > CONFLICT_NAMED) return `These terms do not hold all that is needed. ${open}`
  const titles = conflict.map((title) => `“${title}”`)
  const why =
    titles.length > 1
      ? `${titles.join(' and ')} cannot be met together within these terms.`
      : `${titles.join('')} cannot be met within these terms.`
  return `${why} ${open}`
}

/** What was not settled of a filling beside its finish: a sentence, or nothing. */
function unsettledText(better: Filled['better']): string {
  if (!better) return ''
  const whether = [
    better.findings ? [] : 'fewer terms could have too many hours or too few credits',
    better.courses ? [] : 'other courses would suit better',
    better.laying ? [] : 'the courses could be laid better'
  ].flat()
  if (!whether.length) return ''
  return ` Not settled: whether ${whether.join(', whether ')}.`
}
