import type { CourseCode, SectionCode, TermCode } from '#core/ids'
import type { Wish } from '#core/find'
import { sectionsOf, type Option } from '#core/week'
import type { DraftWeek, KeepFree, WeekHabits } from '#shared/week/responses'
import { goingWith } from '#shared/reading'
import { termWeek } from '#shared/week/termWeek'

/** Courses whose seat the student is ready to exchange, or exchanges by another pick. */
function useExchanging(exchanged: () => Iterable<CourseCode>) {
  const student = useStudent()
  const standing = useStanding()
  /** Courses whose seat the student is ready to exchange: said for now, until another section is picked. */
  const unlocked = ref(new Set<CourseCode>())
  watch([() => standing.term?.code, () => student.view?.student.id], () => (unlocked.value = new Set()))
  const unlock = (course: CourseCode) => (unlocked.value = new Set(unlocked.value).add(course))
  /** Courses of which the seat may be exchanged. */
  const exchanging = computed(() => new Set([...unlocked.value, ...exchanged()]))
  const isFixed = (course: CourseCode) => standing.heldCourses.has(course) && !exchanging.value.has(course)
  const lock = (course: CourseCode) =>
    (unlocked.value = new Set([...unlocked.value].filter((one) => one !== course)))
  return { exchanging, isFixed, unlock, lock }
}

/** Hours kept free and what is cared about in a week, in every term. */
function useWeekHabits() {
  const student = useStudent()
  const changes = useChanges()
  const notice = useNotice()
  const keepFree = computed(() => student.view?.keepFree ?? [])
  /** Wishes that somebody tries who only looks. */
  const tried = ref<WeekHabits>()
  watch(
    () => student.view?.student.id,
    () => (tried.value = undefined)
  )
  const habits = computed(() => tried.value ?? student.view?.habits ?? { wishes: [], travelHolds: false })

  /** Hours kept free as they are to be; what was there before can be had back. */
  async function setKeepFree(hours: readonly KeepFree[], text: string): Promise<void> {
    const before = keepFree.value
    if ((await changes.outcome({ kind: 'keepFree', hours: [...hours], before: [...before] })) !== 'made')
      return
    notice.say(text, {
      title: 'Undo',
      act: () => setKeepFree(before, 'The hours kept free are as they were.')
    })
  }

  async function setHabits(part: { wishes?: Wish[]; travelHolds?: boolean }): Promise<void> {
    const now = { ...habits.value, ...part }
    if (student.own) await changes.make({ kind: 'habits', habits: now })
    else tried.value = now
  }
  return { keepFree, habits, setKeepFree, setHabits }
}

/** Draft weeks of the term at work: made, named, shared and let go. */
function useDraftChanges(drafts: Ref<readonly DraftWeek[]>, look: (term: TermCode, week: number) => void) {
  const standing = useStanding()
  const changes = useChanges()
  /** Makes a draft week and looks at it. */
  async function make(body: {
    name: string
    sections?: SectionCode[]
    copyOf?: number
    goingWith?: boolean
  }): Promise<boolean> {
    const inTerm = standing.term!.code
    const change = { kind: 'makeWeek' as const, term: inTerm, ...body }
    const outcome = await changes.send(change)
    if (outcome.is === 'waits') changes.sayWaits(change)
    if (outcome.is === 'made') {
      const { week } = outcome.answer as { week: number }
      look(inTerm, week)
    }
    return outcome.is !== 'refused'
  }
  const change = (
    week: DraftWeek,
    said: { name?: string; goingWith?: true; shared?: boolean; note?: string | null }
  ) => changes.outcome({ kind: 'changeWeek', week: week.id, said })
  const drop = (week: DraftWeek) => changes.make({ kind: 'dropWeek', week: week.id })

  /** A name that no draft week of the term has. */
  function freeName(wanted: string): string {
    const taken = new Set(drafts.value.map((one) => one.name))
    if (!taken.has(wanted)) return wanted
    for (let n = 2; ; n++) if (!taken.has(`${wanted} ${n}`)) return `${wanted} ${n}`
  }
  return { make, change, drop, freeName }
}

/** The draft weeks of the term, the one on screen, hours kept free and wishes; every change shown at once. */
export const useWeeks = defineStore('weeks', () => {
  const student = useStudent()
  const changes = useChanges()
  const standing = useStanding()

  const term = computed(() => standing.term?.code)
  const drafts = computed(() => (student.view?.drafts ?? []).filter((one) => one.term === term.value))
  /** The draft week on screen of each term, by its id, where it is not the one gone with. */
  const looked = ref(new Map<string, number>())
  const draft = computed<DraftWeek | undefined>(
    () =>
      drafts.value.find((one) => one.id === looked.value.get(term.value ?? '')) ??
      (student.view && goingWith(student.view, term.value))
  )
  const look = (inTerm: TermCode, week: number) =>
    void (looked.value = new Map(looked.value).set(inTerm, week))

  /** The term as a draft week would have it. */
  const weekOf = (week: DraftWeek | undefined) =>
    termWeek(student.view ?? { held: [], sections: [], fallbacks: [] }, term.value, week)
  const week = computed(() => weekOf(draft.value))
  const picked = computed(() => week.value.picked)
  /** Sections that stand in the week: seats that stay, and what is picked. */
  const all = computed(() => [...week.value.staying, ...week.value.picked])

  const { lock, ...exchange } = useExchanging(() => week.value.exchanged)
  /** The seat stays after all. */
  async function keepSeat(course: CourseCode): Promise<void> {
    lock(course)
    if (week.value.exchanged.has(course)) await pick([{ course, option: undefined }])
  }

  /** Picks options of their courses in the draft on screen; a course without one loses its pick. A seat that is held stays by itself. */
  function pick(wanted: readonly { course: CourseCode; option: Option | undefined }[]): Promise<boolean> {
    const held = new Set<string>(week.value.held.map((one) => one.code))
    const picks = wanted.map(({ course, option }) => ({
      course,
      option: option && sectionsOf(option).every((one) => held.has(one.code)) ? undefined : option
    }))
    return changes.make({
      kind: 'picks',
      term: term.value!,
      week: draft.value?.id ?? null,
      picks: picks.map(({ course, option }) => ({ course, sections: option ? [...sectionsOf(option)] : [] })),
      held: [...standing.heldCourses]
    })
  }

  /** Whether the draft on screen still has the sections that it has now. */
  function untilPicked(): () => boolean {
    const now = () => `${draft.value?.id} ${picked.value.map((one) => one.code).join()}`
    const then = now()
    return () => now() === then
  }

  return {
    drafts,
    draft,
    look: (wanted: DraftWeek) => look(wanted.term, wanted.id),
    weekOf,
    week,
    picked,
    all,
    ...exchange,
    keepSeat,
    ...useWeekHabits(),
    pick,
    untilPicked,
    ...useDraftChanges(drafts, look)
  }
})
