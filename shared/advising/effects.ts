/** What a change would make of a route, in the figures people act on: before and after. */
import type { Term } from '#core/catalog'
import type { TermCode } from '#core/ids'
import { termLoad } from '#core/route'
import { routeFigures } from '#shared/degree/figures'
import type { Reading } from '#shared/reading'

export interface Effect {
  of: string
  before: string
  after: string
  /** Worse for the student, as far as a figure can say: later, over a limit, more findings. */
  isWorse: boolean
}

type Read = Pick<Reading, 'audits' | 'finish' | 'findings' | 'outside' | 'attempts' | 'context'>

/** The figures that differ between two readings, the finish first; `terms` are those whose load is told. */
export function effectsOf(
  before: Read,
  after: Read,
  terms: readonly TermCode[],
  shortTerm: (code: string) => string
): Effect[] {
  const [old, fresh] = [routeFigures(before), routeFigures(after)]
  const needed = (figures: typeof old) => figures.programs.reduce((sum, one) => sum + one.needed, 0)
  const finish = ({ finish: term }: typeof old) => (term ? shortTerm(term.code) : 'not placed')
  const number = (of: string, was: number, is: number, unit = ''): Effect => ({
    of,
    before: `${was}${unit}`,
    after: `${is}${unit}`,
    isWorse: is > was
  })
  const loads = [...new Set(terms)].flatMap((code): Effect[] => {
    const term = after.context.terms.find((one) => one.code === code)
    if (!term) return []
    const [was, is] = [termLoad(before.attempts, code), termLoad(after.attempts, code)]
    return [{ ...number(shortTerm(code), was, is, ' cr'), isWorse: is > was && isOver(after, term, is) }]
  })
  return [
    {
      of: 'finish',
      before: finish(old),
      after: finish(fresh),
      isWorse: isLater(old.finish, fresh.finish)
    },
    ...loads,
    number('busiest', old.busiest, fresh.busiest, ' cr'),
    number('findings', old.findings, fresh.findings),
    number('needed', needed(old), needed(fresh), ' cr'),
    number('outside the degree', old.outside, fresh.outside, ' cr')
  ].filter((one) => one.before !== one.after)
}

const isOver = ({ context }: Read, term: Term, load: number): boolean => load > context.loadMost(term)
/** No finish at all is later than any. */
const isLater = (was: Pick<Term, 'start'> | undefined, is: Pick<Term, 'start'> | undefined): boolean =>
  was !== undefined && (is === undefined || is.start > was.start)
