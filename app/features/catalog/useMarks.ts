import type { CourseCode } from '#core/ids'

/** Stars, notes and the courses looked at last: the student's own. */
export function useMarks() {
  const student = useStudent()
  const changes = useChanges()
  const marks = computed(() => student.picture?.marks ?? [])
  const of = (code: CourseCode) => marks.value.find((one) => one.course === code)
  return {
    starredCourses: computed(() => marks.value.filter((one) => one.starred).map((one) => one.course)),
    /** The latest first. */
    lookedAt: computed(() =>
      marks.value
        .filter((one) => one.lookedAt !== null)
        .sort((a, b) => b.lookedAt! - a.lookedAt!)
        .map((one) => one.course)
    ),
    starred: (code: CourseCode) => of(code)?.starred ?? false,
    note: (code: CourseCode) => of(code)?.note ?? null,
    star: (code: CourseCode, starred: boolean) => changes.markCourse(code, { starred }),
    write: (code: CourseCode, note: string | null) => changes.markCourse(code, { note }),
    look: (code: CourseCode) => student.own && changes.markCourse(code, { looked: true })
  }
}
