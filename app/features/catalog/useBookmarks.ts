import type { CourseCode } from '#core/ids'

/** Stars, notes and the courses looked at last: the student's own. */
export function useBookmarks() {
  const student = useStudent()
  const changes = useChanges()
  const bookmarks = computed(() => student.view?.marks ?? [])
  const of = (code: CourseCode) => bookmarks.value.find((one) => one.course === code)
  return {
    starredCourses: computed(() => bookmarks.value.filter((one) => one.starred).map((one) => one.course)),
    /** The latest first. */
    lookedAt: computed(() =>
      bookmarks.value
        .filter((one) => one.lookedAt !== null)
        .sort((a, b) => b.lookedAt! - a.lookedAt!)
        .map((one) => one.course)
    ),
    starred: (code: CourseCode) => of(code)?.starred ?? false,
    note: (code: CourseCode) => of(code)?.note ?? null,
    star: (code: CourseCode, starred: boolean) => changes.bookmarkCourse(code, { starred }),
    write: (code: CourseCode, note: string | null) => changes.bookmarkCourse(code, { note }),
    look: (code: CourseCode) => student.own && changes.bookmarkCourse(code, { looked: true })
  }
}
