import type { CourseCode } from '#core/ids'
import { courseAddress, readCourseQuery } from '#shared/catalog/courseQuery'

/** Where the catalog's pages are: under the student who is on screen, or by themselves. */
export function useCoursePages() {
  const student = useStudent()
  const base = computed(() => (student.view ? `/students/${student.view.student.id}/courses` : '/courses'))
  return {
    base,
    addressOf: (code: CourseCode) => `${base.value}/${code.replace(' ', '-')}`,
    searchFor: (text: string) => ({
      path: base.value,
      query: courseAddress({ ...readCourseQuery({}), text })
    })
  }
}
