import type { CourseCode, SectionCode } from '#core/ids'
import type { Wish } from '#core/find'
import { asPicked, sectionsOf, type Option, type Section } from '#core/week'
import type { DraftWeek, KeepFree } from '#wire/picture'
import { goingWith } from '#wire/reading'

/** The draft weeks of the term, the one on screen, hours kept free and wishes; every change shown at once. */
export const useWeeks = defineStore('weeks', () => {
  const student = useStudent()
  const standing = useStanding()

  const term = computed(() => standing.term?.code)
  const drafts = computed(() => (student.picture?.drafts ?? []).filter((one) => one.term === term.value))
  /** The draft week on screen of each term, by its id, where it is not the one gone with. */
  const looked = ref(new Map<string, number>())
  const draft = computed<DraftWeek | undefined>(
    () =>
      drafts.value.find((one) => one.id === looked.value.get(term.value ?? '')) ??
      (student.picture && goingWith(student.picture, term.value))
  )
  function look(week: DraftWeek): void {
    looked.value = new Map(looked.value).set(week.term, week.id)
  }

  /** The sections picked in a draft week, without those of courses of which a seat is held. */
  function sectionsOfWeek(week: DraftWeek | undefined): Section[] {
    const codes = new Set<string>(week?.sections ?? [])
    return (student.picture?.sections ?? []).filter(
      (one) => codes.has(one.code) && !standing.heldCourses.has(one.course)
    )
  }
  const picked = computed(() => sectionsOfWeek(draft.value))

  const keepFree = computed(() => student.picture?.keepFree ?? [])
  const habits = computed(() => student.picture?.habits ?? { wishes: [], travelHolds: false })

  /** Puts a draft week as it is to be on screen. */
  function put(week: DraftWeek, sections: readonly Section[]): void {
    const view = student.picture!
    const known = new Set(view.sections.map((one) => one.code))
    student.show({
      drafts: view.drafts.some((one) => one.id === week.id)
        ? view.drafts.map((one) => (one.id === week.id ? week : one))
        : [...view.drafts, week],
      sections: [...view.sections, ...sections.filter((one) => !known.has(one.code))]
    })
  }

  /** Picks options of their courses in the draft on screen; a course without one loses its pick. */
  function pick(picks: readonly { course: CourseCode; option: Option | undefined }[]): Promise<boolean> {
    const inTerm = term.value!
    const id = draft.value?.id ?? null
    const gone = new Set(picks.map((one) => one.course))
    const added = picks.flatMap(({ option }) => (option ? sectionsOf(option) : []))
    const show = (week: DraftWeek) => {
      const courseOf = new Map(student.picture!.sections.map((one) => [one.code, one.course]))
      const others = week.sections.filter((code) => !gone.has(courseOf.get(code)!))
      const sections = [...others, ...added.map((one) => one.code)]
      const now = Object.fromEntries(added.map((one) => [one.code, asPicked(one)]))
      put({ ...week, sections, asPicked: { ...week.asPicked, ...now } }, added)
    }
    if (draft.value) show(draft.value)
    const body = {
      term: inTerm,
      week: id,
      picks: picks.map(({ course, option }) => ({
        course,
        sections: option ? sectionsOf(option).map((one) => one.code) : []
      }))
    }
    return student.inTurn(async () => {
      try {
        const { week } = await api<{ week: number }>(student.path('picks'), { method: 'POST', body })
        // What was done before may have been read anew since, without this.
        const known = student.picture!.drafts.find((one) => one.id === week)
        show(
          known ?? {
            id: week,
            term: inTerm,
            name: FIRST,
            goingWith: true,
            sections: [],
            asPicked: {},
            shareKey: null
          }
        )
        return true
      } catch (error) {
        if (!(error instanceof Failure)) throw error
        await student.reload()
        student.notice = { text: error.message }
        return false
      }
    })
  }

  /** Makes a draft week and looks at it. */
  async function make(body: {
    name: string
    sections?: readonly SectionCode[]
    copyOf?: number
    goingWith?: boolean
  }): Promise<boolean> {
    const inTerm = term.value!
    return student.act(async () => {
      const { week } = await api<{ week: number }>(student.path('weeks'), {
        method: 'POST',
        body: { term: inTerm, ...body }
      })
      looked.value = new Map(looked.value).set(inTerm, week)
    })
  }
  const change = (week: DraftWeek, body: { name?: string; goingWith?: true; shared?: boolean }) =>
    student.act(() => api(student.path(`weeks/${week.id}`), { method: 'POST', body }))
  const drop = (week: DraftWeek) =>
    student.act(() => api(student.path(`weeks/${week.id}`), { method: 'DELETE' }))

  /** A name that no draft week of the term has. */
  function freeName(wanted: string): string {
    const taken = new Set(drafts.value.map((one) => one.name))
    if (!taken.has(wanted)) return wanted
    for (let n = 2; ; n++) if (!taken.has(`${wanted} ${n}`)) return `${wanted} ${n}`
  }

  /** Hours kept free as they are to be; what was there before can be had back. */
  async function setKeepFree(hours: readonly KeepFree[], text: string): Promise<void> {
    const before = keepFree.value
    student.show({ keepFree: [...hours] })
    try {
      await api(student.path('keep-free'), { method: 'POST', body: { hours } })
      student.notice = { text, back: () => setKeepFree(before, 'The hours kept free are as they were.') }
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      student.show({ keepFree: before })
      student.notice = { text: error.message }
    }
  }

  async function setHabits(part: { wishes?: Wish[]; travelHolds?: boolean }): Promise<void> {
    const before = habits.value
    const now = { ...before, ...part }
    student.show({ habits: now })
    if (!student.own) return
    try {
      await api(student.path('week-habits'), { method: 'POST', body: now })
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      student.show({ habits: before })
      student.notice = { text: error.message }
    }
  }

  return {
    drafts,
    draft,
    look,
    sectionsOfWeek,
    picked,
    keepFree,
    habits,
    pick,
    make,
    change,
    drop,
    freeName,
    setKeepFree,
    setHabits
  }
})

const FIRST = 'First draft'
