import { useDebounceFn } from '@vueuse/core'
import { EFFECT_LOT, type CourseEffects, type WrittenCourse } from '#shared/catalog/writing'
import { verdictOf } from '#shared/degree/drafts'

/** What a course as it is written would make of degrees: worked out lot by lot, anew after each change. */
export function useCourseEffect(course: Readonly<Ref<WrittenCourse | undefined>>) {
  const found = shallowRef<CourseEffects['students']>([])
  const of = ref(0)
  const wantsAll = ref(false)
  const problem = ref('')
  const isBusy = ref(false)

  let turn = 0
  async function work() {
    const mine = ++turn
    const said = course.value
    if (!said) {
      isBusy.value = false
      return
    }
    isBusy.value = true
    problem.value = ''
    const results: CourseEffects['students'] = []
    try {
      for (;;) {
        const body = { ...said, from: results.length }
        const lot = await api<CourseEffects>('/api/catalog/effect', { method: 'POST', body })
        // It was written anew meanwhile: what this one comes to is of no interest.
        if (mine !== turn) return
        results.push(...lot.students)
        of.value = lot.of
        found.value = [...results]
        if (!wantsAll.value || lot.students.length < EFFECT_LOT) break
      }
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      if (mine === turn) problem.value = error.message
    }
    if (mine === turn) isBusy.value = false
  }
  const soon = useDebounceFn(work, 900)
  watch(
    () => JSON.stringify(course.value),
    () => (turn++, (isBusy.value = course.value !== undefined), void soon())
  )
  watch(wantsAll, () => void work())
  onMounted(work)
  onScopeDispose(() => turn++)

  const rows = computed(() => found.value.map((one) => ({ ...one, verdict: verdictOf(one.effects) })))
  return { of, rows, wantsAll, problem, isBusy }
}
