import type { RecordLine } from '#core/degree'
import { OUTSIDE_HUE } from '#shared/tokens'
import { recordTermsOf, remarkOf } from '#shared/record/transcript'

/** The record on screen term by term, with what of each term counts toward the programs. */
export function useRecordTerms() {
  const student = useStudent()
  const college = useCollege()
  const { hueOf } = useHues()

  const counts = (key: string | undefined) =>
    key !== undefined && student.reading!.audits.some((audit) => audit.whereItCounts.has(key))
  const terms = computed(() =>
    recordTermsOf(student.view!, student.reading!, college.catalogContext!).map((one) => ({
      ...one,
      name: one.term === null ? 'Brought in' : college.termName(one.term),
      shortName: one.term === null ? 'Brought in' : college.shortTerm(one.term),
      counting: one.lines.reduce(
        (sum, line) => sum + (line.state === 'earned' && counts(line.key) ? line.credits : 0),
        0
      )
    }))
  )
  /** The hue of where it counts; that of outside where it counts nowhere. */
  const hue = (line: RecordLine) => (counts(line.key) ? hueOf(line.course).hue : OUTSIDE_HUE)
  const isOutside = (line: RecordLine) => line.state !== 'idle' && !counts(line.key)
  const remark = (line: RecordLine) =>
    remarkOf(line, college.catalogContext!) || (isOutside(line) ? 'counts in no program' : '')

  return { terms, hue, isOutside, remark }
}
