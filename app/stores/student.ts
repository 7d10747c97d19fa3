import type { RouteChange } from '#core/findings'
import type { CourseCode, SectionCode, TermCode } from '#core/ids'
import { applyChange, inverse } from '#core/route'
import type { StudentPicture } from '#wire/picture'
import { comingTerm, readStudent, type Reading } from '#wire/reading'
import { changeText } from '#wire/words'

/** The student on screen: what the server said, and changes on their way to it. */
export const useStudent = defineStore('student', () => {
  const picture = shallowRef<StudentPicture>()
  const failure = ref<string>()
  const notice = ref<{ text: string; undo?: RouteChange }>()
  const college = useCollege()
  const clock = useClock()

  async function load(id: number): Promise<void> {
    if (picture.value && picture.value.student.id !== id) picture.value = undefined
    try {
      const [found] = await Promise.all([
        api<StudentPicture>(`/api/students/${id}`),
        college.load(),
        clock.sync()
      ])
      picture.value = found
      failure.value = undefined
    } catch (error) {
      failure.value = error instanceof Failure ? error.message : 'The record could not be shown.'
      if (!(error instanceof Failure)) throw error
    }
  }

  async function reload(): Promise<void> {
    if (picture.value) await load(picture.value.student.id)
  }

  function forget(): void {
    picture.value = undefined
    chosen.value = undefined
    notice.value = undefined
  }

  // The day matters to the checks, the second does not.
  const today = computed(() => college.today)
  /** The picture, the same as before while nothing that is read of it has changed. */
  const readable = computed<StudentPicture | undefined>((before) =>
    before && picture.value && readsAlike(before, picture.value) ? before : picture.value
  )
  const reading = computed<Reading | undefined>((before) => {
    if (!readable.value || !college.shelf || !today.value) return undefined
    const now = readStudent(readable.value, college.shelf, Date.parse(`${today.value}T12:00:00Z`))
    if (before) now.audits.forEach((audit, i) => keepSame(before.audits[i]?.areas, audit.areas))
    return now
  })
  /** The term the work is about; one of the open ones when the student says so. */
  const chosen = ref<TermCode>()
  const coming = computed(() => {
    if (!picture.value || !college.shelf) return undefined
    return (
      college.openTerms.find((t) => t.code === chosen.value) ??
      comingTerm(picture.value, college.shelf, today.value)
    )
  })
  const own = computed(() => picture.value?.relation === 'self')
  /** Whether the person who looks may grant exceptions. */
  const mayGrant = computed(
    () => picture.value?.relation === 'programAdvisor' || picture.value?.relation === 'registrar'
  )

  const path = (rest: string) => `/api/students/${picture.value!.student.id}/${rest}`

  /** Shows the change at once, sends it, and takes the server's word for it. */
  async function changeRoute(change: RouteChange, { quiet = false } = {}): Promise<boolean> {
    const before = picture.value!
    const { version, courses } = before.route
    const changed = applyChange(courses, change, () => true)
    if (changed.ok) picture.value = { ...before, route: { ...before.route, courses: changed.courses } }
    try {
      const answer = await api<{ version: number }>(path('route'), {
        method: 'POST',
        body: { version, change }
      })
      picture.value = { ...picture.value!, route: { ...picture.value!.route, version: answer.version } }
      notice.value = quiet
        ? undefined
        : { text: `${changeText(change, college.shortTerm)}: done.`, undo: inverse(change) }
      return true
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      picture.value = before
      notice.value = { text: error.message }
      if (error.status === 409) await reload()
      return false
    }
  }

  async function act(work: () => Promise<unknown>): Promise<boolean> {
    try {
      await work()
      await reload()
      return true
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      notice.value = { text: error.message }
      return false
    }
  }

  const pick = (term: TermCode, course: CourseCode, sections: SectionCode[]) =>
    act(() => api(path('picks'), { method: 'POST', body: { term, course, sections } }))
  const askForReview = () => act(() => api(path('review'), { method: 'POST' }))
  const signOff = (term: TermCode) => act(() => api(path('sign-off'), { method: 'POST', body: { term } }))
  const withdrawSignOff = (term: TermCode) =>
    act(() => api(path('sign-off'), { method: 'DELETE', query: { term } }))
  const answerProgram = (
    body: { program: string; answer: 'confirmed' } | { program: string; answer: 'wrong'; instead: string }
  ) => act(() => api(path('program'), { method: 'POST', body }))

  const grantException = (
    body: { program: string; need: string; reason: string } & (
      { kind: 'waiver' } | { kind: 'substitution'; course: string }
    )
  ) => act(() => api(path('exceptions'), { method: 'POST', body }))
  const withdrawException = (exception: number) =>
    act(() => api(path(`exceptions/${exception}`), { method: 'DELETE' }))

  return {
    picture,
    failure,
    notice,
    reading,
    chosen,
    coming,
    own,
    mayGrant,
    load,
    reload,
    forget,
    changeRoute,
    pick,
    askForReview,
    signOff,
    withdrawSignOff,
    answerProgram,
    grantException,
    withdrawException
  }
})

/** Whether two pictures differ at most in the version of the route. */
function readsAlike(a: StudentPicture, b: StudentPicture): boolean {
  const keys = Object.keys(b) as (keyof StudentPicture)[]
  return keys.every((key) => (key === 'route' ? a.route.courses === b.route.courses : a[key] === b[key]))
}
