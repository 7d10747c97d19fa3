import type { CourseCode } from '#core/ids'
import { fallbacksOf, type LineFallbacks } from '#shared/registration/fallbacks'

/** What the student says of a line of the sheet on screen, and saying something else of it. */
export function useLineSaid() {
  const student = useStudent()
  const standing = useStanding()
  const sheetChanges = useSheetChanges()
  const said = (course: CourseCode) =>
    fallbacksOf(student.view?.fallbacks ?? [], standing.term?.code ?? '', course)
  const say = (course: CourseCode, next: Partial<LineFallbacks>) =>
    void sheetChanges.setFallbacks({ term: standing.term!.code, course, ...said(course), ...next })
  return { said, say }
}
