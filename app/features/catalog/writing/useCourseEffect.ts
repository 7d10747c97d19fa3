import { EFFECT_LOT, type CourseEffects, type WrittenCourse } from '#shared/catalog/writing'

/** What a course as it is written would make of degrees, worked out lot by lot. */
export function useCourseEffect(course: Readonly<Ref<WrittenCourse | undefined>>) {
  const of = ref(0)
  const wantsAll = ref(false)
  async function* lots() {
    const said = course.value!
    for (let from = 0, size = EFFECT_LOT; size === EFFECT_LOT; from += size) {
      const lot = await api<CourseEffects>('/api/catalog/effect', { method: 'POST', body: { ...said, from } })
      of.value = lot.of
      size = wantsAll.value ? lot.students.length : 0
      yield lot.students
    }
  }
  const { found: rows, problem, isBusy, work, changed } = useLots(() => course.value !== undefined, lots)
  watch(() => JSON.stringify(course.value), changed)
  watch(wantsAll, () => void work())
  return { of, rows, wantsAll, problem, isBusy }
}
