import type { CourseCode, SectionCode } from '#core/ids'
import type { Wish } from '#core/find'
import { asPicked, sectionsOf, type Option, type Section } from '#core/week'
import type { DraftWeek, KeepFree } from '#shared/week/responses'
import type { StudentView } from '#shared/record/responses'
import { FIRST_DRAFT, goingWith } from '#shared/reading'
import { termWeek } from '#shared/week/termWeek'

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

  /** The term as a draft week would have it. */
  const weekOf = (week: DraftWeek | undefined) =>
    termWeek(student.picture ?? { held: [], sections: [] }, term.value, week)
  const week = computed(() => weekOf(draft.value))
  const picked = computed(() => week.value.picked)
  /** Sections that stand in the week: seats that stay, and what is picked. */
  const all = computed(() => [...week.value.staying, ...week.value.picked])

  /** Courses whose seat the student is ready to exchange: said for now, until another section is picked. */
  const unlocked = ref(new Set<CourseCode>())
  watch([term, () => student.picture?.student.id], () => (unlocked.value = new Set()))
  const unlock = (course: CourseCode) => (unlocked.value = new Set(unlocked.value).add(course))
  /** Courses of which the seat may be exchanged. */
  const exchanging = computed(() => new Set([...unlocked.value, ...week.value.exchanged]))
  const isFixed = (course: CourseCode) => standing.heldCourses.has(course) && !exchanging.value.has(course)
  /** The seat stays after all. */
  async function keepSeat(course: CourseCode): Promise<void> {
    unlocked.value = new Set([...unlocked.value].filter((one) => one !== course))
    if (week.value.exchanged.has(course)) await pick([{ course, option: undefined }])
  }

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

  /** Picks options of their courses in the draft on screen; a course without one loses its pick. A seat that is held stays by itself. */
  function pick(wanted: readonly { course: CourseCode; option: Option | undefined }[]): Promise<boolean> {
    const held = new Set<string>(week.value.held.map((one) => one.code))
    const picks = wanted.map(({ course, option }) => ({
      course,
      option: option && sectionsOf(option).every((one) => held.has(one.code)) ? undefined : option
    }))
    const inTerm = term.value!
    const id = draft.value?.id ?? null
    const gone = new Set(picks.map((one) => one.course))
    const added = picks.flatMap(({ option }) => (option ? sectionsOf(option) : []))
    const show = (week: DraftWeek) => {
      const courseOf = new Map(student.picture!.sections.map((one) => [one.code, one.course]))
      const others = week.sections.filter((code) => !gone.has(courseOf.get(code)!))
      const sections = [...others, ...added.map((one) => one.code)]
      const now = Object.fromEntries(added.map((one) => [one.code, asPicked(one)]))
      const exchanges = new Set(week.exchanges.filter((one) => !gone.has(one)))
      for (const one of added) if (standing.heldCourses.has(one.course)) exchanges.add(one.course)
      put({ ...week, sections, exchanges: [...exchanges], asPicked: { ...week.asPicked, ...now } }, added)
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
            name: FIRST_DRAFT,
            goingWith: true,
            sections: [],
            exchanges: [],
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
    const done = await send('keep-free', { hours }, { keepFree: [...hours] }, { keepFree: before })
    if (done)
      student.notice = { text, back: () => setKeepFree(before, 'The hours kept free are as they were.') }
  }

  async function setHabits(part: { wishes?: Wish[]; travelHolds?: boolean }): Promise<void> {
    const before = habits.value
    const now = { ...before, ...part }
    if (student.own) await send('week-habits', now, { habits: now }, { habits: before })
    else student.show({ habits: now })
  }

  /** How often each was sent: the last one is what counts. */
  const sent = new Map<string, number>()
  /** Shows a change at once and sends it in turn; what was read of the record meanwhile may not have it yet. */
  function send(where: string, body: object, now: Shown, before: Shown): Promise<boolean> {
    const mine = (sent.get(where) ?? 0) + 1
    sent.set(where, mine)
    const isLast = () => sent.get(where) === mine
    student.show(now)
    return student.inTurn(async () => {
      try {
        await api(student.path(where), { method: 'POST', body })
        if (isLast()) student.show(now)
        return true
      } catch (error) {
        if (!(error instanceof Failure)) throw error
        if (isLast()) student.show(before)
        student.notice = { text: error.message }
        return false
      }
    })
  }

  return {
    drafts,
    draft,
    look,
    weekOf,
    week,
    picked,
    all,
    unlock,
    keepSeat,
    exchanging,
    isFixed,
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

type Shown = Partial<Pick<StudentView, 'keepFree' | 'habits'>>
