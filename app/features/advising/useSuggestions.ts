import { singles, termsTouched } from '#core/route'
import type { CourseCode, TermCode } from '#core/ids'
import { effectsOf, type Effect } from '#shared/advising/effects'
import { placeSuggestions, type PlacedSuggestion } from '#shared/advising/suggestions'
import { areaKey } from '~/ui/useHues'
import { readStudent, type Reading } from '#shared/reading'

/** A course where a suggestion would put it. */
export interface Ghost {
  placed: PlacedSuggestion
  course: CourseCode
  term: TermCode
  credits: number
  /** Where it stands now; undefined for one that is new. */
  from: TermCode | undefined
}

/** A course that stands where a suggestion would change it. */
export interface Touched {
  placed: PlacedSuggestion
  as: 'moves' | 'goes' | 'changes'
}

/** The route with suggestions up to one of them. */
interface Step {
  of: number
  on: Reading
  key: string
  reading: Reading
}

/** The route with the suggestions up to each, read one after the other: the page answers in between. */
function useSteps(placed: Ref<readonly PlacedSuggestion[]>) {
  const student = useStudent()
  const college = useCollege()
  const steps = shallowRef<Step[]>([])
  watch([placed, () => student.reading], persistently(follow), { immediate: true })
  async function follow(): Promise<void> {
    const wanted = placed.value
    const on = student.reading
    const { view } = student
    if (!on || !view || !college.catalogContext) return
    const kept: Step[] = []
    for (const [i, { suggestion, before, after }] of wanted.entries()) {
      const key = after.map((one) => `${one.course}@${one.term}:${one.credits}`).join()
      const known = steps.value[i]
      if (known?.on === on && known.key === key && known.of === suggestion.id) {
        kept.push(known)
        continue
      }
      await breath()
      if (wanted !== placed.value || on !== student.reading) return
      const route = { ...view.route, courses: [...after] }
      const reading =
        after === before
          ? (kept.at(-1)?.reading ?? on)
          : readStudent({ ...view, route }, college.catalogContext, student.stage.at)
      kept.push({ of: suggestion.id, on, key, reading })
      steps.value = [...kept]
    }
    steps.value = kept
  }
  return steps
}

/** What each suggestion changes after the ones before it, and all of them together. */
function useEffects(placed: Ref<readonly PlacedSuggestion[]>, steps: Ref<readonly Step[]>) {
  const student = useStudent()
  const college = useCollege()
  /** The route with all that waits, once it is read. */
  const last = computed(() =>
    placed.value.length && steps.value.length === placed.value.length
      ? steps.value.at(-1)!.reading
      : undefined
  )
  /** What a suggestion changes; undefined until it is read. */
  function effectsOn({ suggestion, now }: PlacedSuggestion): Effect[] | undefined {
    const at = steps.value.findIndex((one) => one.of === suggestion.id)
    if (at < 0 || !student.reading) return undefined
    if (now.is !== 'applies') return []
    const before = at ? steps.value[at - 1]!.reading : student.reading
    return effectsOf(before, steps.value[at]!.reading, termsTouched(now.change), college.shortTerm)
  }
  const effects = computed(() => new Map(placed.value.map((one) => [one.suggestion.id, effectsOn(one)])))
  /** What all of them together change. */
  const together = computed((): Effect[] =>
    last.value && student.reading ? effectsOf(student.reading, last.value, [], college.shortTerm) : []
  )
  return { effects, together }
}

/** The courses that a suggestion would put somewhere. */
function ghostsOf(one: PlacedSuggestion): Ghost[] {
  if (one.now.is !== 'applies') return []
  return singles(one.now.change).flatMap((change): Ghost[] => {
    if (change.kind === 'add') {
      const { course, term, credits } = change.planned
      return [{ placed: one, course, term, credits, from: undefined }]
    }
    if (change.kind !== 'move') return []
    const { course, from, to: term } = change
    const credits = one.after.find((other) => other.course === course && other.term === term)?.credits ?? 0
    return [{ placed: one, course, term, credits, from }]
  })
}

/** Where suggestions would put courses on the board: in which row each stands. */
function useGhosts(placed: Ref<readonly PlacedSuggestion[]>, steps: Ref<readonly Step[]>) {
  const student = useStudent()
  const ghosts = computed(() => placed.value.flatMap(ghostsOf))
  /** The row in which a ghost stands: where the course would count, once that is read; else where it stands now. */
  const rowOf = computed(() => {
    const found = new Map<string, string>()
    for (const reading of [student.reading, ...steps.value.map((one) => one.reading)])
      for (const audit of [...(reading?.audits ?? [])].reverse())
        for (const area of audit.areas)
          for (const need of area.needs)
            for (const { course } of need.evidence) found.set(course, areaKey(audit, area.area.id))
    return found
  })
  const read = computed(() => new Set(steps.value.map((one) => one.of)))
  const rowOfGhost = ({ course, placed: { suggestion } }: Ghost): string | undefined =>
    rowOf.value.get(course) ?? (read.value.has(suggestion.id) ? 'outside' : undefined)
  const ghostsIn = (row: string, term: string): Ghost[] =>
    ghosts.value.filter((one) => one.term === term && rowOfGhost(one) === row)
  const hasOutside = computed(() => ghosts.value.some((one) => rowOfGhost(one) === 'outside'))
  return { ghosts, ghostsIn, hasOutside }
}

/** What stands on the route and would be changed, by course and term. */
function touchedBy(placed: readonly PlacedSuggestion[]): ReadonlyMap<string, Touched[]> {
  const found = new Map<string, Touched[]>()
  const put = (course: string, term: string, one: Touched) => {
    const key = `${course}@${term}`
    found.set(key, [...(found.get(key) ?? []), one])
  }
  for (const one of placed) {
    if (one.now.is !== 'applies') continue
    for (const change of singles(one.now.change)) {
      if (change.kind === 'move') put(change.course, change.from, { placed: one, as: 'moves' })
      else if (change.kind === 'remove')
        put(change.planned.course, change.planned.term, { placed: one, as: 'goes' })
      else if (change.kind === 'edit') put(change.course, change.term, { placed: one, as: 'changes' })
    }
  }
  return found
}

/** Suggestions for the route on screen that wait: drawn in place, each with what it changes after the ones before it. */
export const useSuggestions = defineStore('suggestions', () => {
  const student = useStudent()

  const placed = computed((): PlacedSuggestion[] => {
    const { view, reading } = student
    if (!view || !reading) return []
    const own = view.suggestions.filter((one) => one.route === view.route.id)
    return placeSuggestions(own, view.route.courses, (term) => reading.context.plannable.has(term))
  })

  const steps = useSteps(placed)
  const touched = computed(() => touchedBy(placed.value))
  return {
    placed,
    ...useEffects(placed, steps),
    ...useGhosts(placed, steps),
    touchedAt: (key: string) => touched.value.get(key) ?? []
  }
})

/** Lets the page draw and answer before the next piece of work. */
const breath = (): Promise<void> => new Promise((resolve) => setTimeout(resolve))
