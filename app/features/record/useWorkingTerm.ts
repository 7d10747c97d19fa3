import type { TermCode } from '#core/ids'
import { termAtWork, termsAlive, type Reading } from '#shared/reading'

/** The term at work: the one chosen for this student, which stays over reloads, else the one that comes. */
export function useWorkingTerm(of: () => number | undefined, reading: () => Reading | undefined) {
  const college = useCollege()
  const chosen = ref<TermCode>()
  /** Terms among which can be chosen. */
  const alive = computed(() => {
    const now = reading()
    return now ? termsAlive(now) : []
  })
  /** How the term at work stands for the student. */
  const work = computed(() => {
    const now = reading()
    return now && termAtWork(now, chosen.value)
  })
  const coming = computed(() => work.value?.term)
  /** The term into which a course would be put next: the one at work while it takes plans, else the first that does. */
  const planning = computed(() => {
    const takes = reading()?.context.plannable
    return coming.value && takes?.has(coming.value.code) ? coming.value : college.termsAhead[0]
  })
  const chosenKey = () => `ridgeway-term-${of()}`
  function chooseTerm(term: TermCode): void {
    chosen.value = term
    localStorage.setItem(chosenKey(), term)
  }
  /** Takes up the term that was chosen for the student on screen. */
  function takeUp(): void {
    chosen.value = (localStorage.getItem(chosenKey()) as TermCode | null) ?? undefined
  }
  function forgetChosen(): void {
    chosen.value = undefined
  }
  return { alive, work, coming, planning, chooseTerm, takeUp, forgetChosen }
}
