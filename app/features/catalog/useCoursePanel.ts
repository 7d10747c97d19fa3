import type { CourseCode } from '#core/ids'

/** The course that is open beside the page, if any. */
export function useCoursePanel() {
  const shown = useState<CourseCode | null>('course-panel', () => null)
  return {
    shown,
    open: (code: CourseCode) => (shown.value = code),
    close: () => (shown.value = null)
  }
}
