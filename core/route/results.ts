/** What a term that is over came to. */
import type { Catalog } from '../catalog'
import type { RecordEntry } from '../degree'
import type { TermCode } from '../ids'

export interface TermResult {
  /** Credits with a grade, and those of them that were earned. */
  attempted: number
  earned: number
  /** Grade point average of the term, unrounded; undefined when nothing carries points. */
  average: number | undefined
}

/** The result of a term, from the graded courses of it; an incomplete is attempted and not earned, what was sat in on neither. Averages are of grades given here. */
export function termResult(
  record: readonly RecordEntry[],
  term: TermCode,
  { scale }: Pick<Catalog, 'scale'>
): TermResult {
  const graded = record.flatMap(({ grade, credits, term: at, origin }) =>
    grade !== null && at === term ? [{ grade, credits, origin }] : []
  )
  const sum = (list: typeof graded) => list.reduce((total, one) => total + one.credits, 0)
  return {
    attempted: sum(graded.filter(({ grade }) => scale.meaning(grade).result !== 'audited')),
    earned: sum(graded.filter(({ grade }) => scale.meaning(grade).result === 'earned')),
    average: scale.average(graded.filter(({ origin }) => origin === 'here'))
  }
}
