import type { Course } from '#core/catalog'
import type { PlannedCourse } from '#core/degree'
import { alignSequence, plan } from '#core/route'
import type { FillCall, FillChoice, Proposal } from '#shared/route/filling'
import { chosenFor, suggestionOf } from '#shared/route/fillingFaults'
import { readStudent, type Reading } from '#shared/reading'
import { suggestedText } from '#shared/route/fillingTexts'
import type { FillNews } from './fill.worker'

export const keyOf = ({ course, term }: Pick<PlannedCourse, 'course' | 'term'>) => `${course}@${term}`

/** The search for what fills the degree, in a worker of its own; `told` hears how it ended. */
function useFillSearch(told: (ended: string | undefined, found?: Proposal) => void) {
  const student = useStudent()
  const college = useCollege()
  /** While it is searched: models solved so far, and the finish that was found. */
  const search = ref<{ models: number; found: string | undefined }>()
  let worker: Worker | undefined
  function begin(choice: FillChoice): void {
    const { view } = student
    const catalog = college.view
    if (!view || !catalog) return
    search.value = { models: 0, found: undefined }
    worker = new Worker(new URL('./fill.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<FillNews>) => hear(data)
    worker.onerror = () => {
      stop()
      told('Filling broke off; the route is as it was. Try again.')
    }
    const offers = Object.fromEntries(
      [...college.catalogContext!.offers].map(([term, { sections }]) => [term, sections])
    )
    const call: FillCall = { catalog, offers, student: view, choice, now: student.stage.at }
    worker.postMessage(call)
  }

  function hear(news: FillNews): void {
    if (news.kind === 'tried') search.value = { found: search.value?.found, models: news.models }
    else if (news.kind === 'found') search.value = { models: search.value?.models ?? 0, found: news.finish }
    else {
      stop()
      told(news.ended, news.proposal)
    }
  }
  function stop(): void {
    worker?.terminate()
    worker = undefined
    search.value = undefined
  }
  return { search, begin, stop }
}

/** The record on screen with other courses on its route. */
const reread = (planned: readonly PlannedCourse[]): Reading => {
  const student = useStudent()
  const view = student.view!
  const route = { ...view.route, courses: [...planned] }
  return readStudent({ ...view, route }, useCollege().catalogContext!, student.stage.at)
}

/** What is left of the sequence that a program suggests; undefined before there is a record. */
function leftOfSequence(index: number): { proposal: Proposal; ended: string } | undefined {
  const { reading, view } = useStudent()
  const spec = view?.programs[index]?.spec
  if (!reading || !view || !spec) return undefined
  const { shortTitle, suggested = [] } = spec
  const aligned = alignSequence(reading.context, suggested, index)
  const proposal = suggestionOf(aligned, view.route.courses, reread)
  return { proposal, ended: suggestedText({ shortTitle, suggested }, aligned, proposal.courses.length) }
}

/** Puts courses onto the route, as one change. @returns whether all of them went through */
async function putOnRoute(courses: readonly PlannedCourse[]): Promise<boolean> {
  const added = courses.map((planned) => ({ kind: 'add' as const, planned }))
  // A suggestion for each term: it is answered by itself.
  const terms = useStudent().isSuggesting ? [...new Set(courses.map((one) => one.term))] : [undefined]
  for (const term of terms) {
    const part = added.filter((one) => term === undefined || one.planned.term === term)
    if (part.length && !(await useRouteChanges().changeRoute({ kind: 'several', changes: part })))
      return false
  }
  return true
}

/** The rest of the degree filled in: asked for, searched in a worker, shown as a proposal, taken or not. */
export const useFilling = defineStore('filling', () => {
  const student = useStudent()
  const college = useCollege()
  const proposal = shallowRef<Proposal>()
  /** Proposed courses that will be taken. */
  const kept = ref(new Set<string>())
  /** How it ended, in a sentence. */
  const ended = ref<string>()
  /** The student with what is kept of the proposal; undefined while there is none. */
  const preview = computed(() => {
    if (!proposal.value || !student.view || !college.catalogContext) return undefined
    // While it is being taken, some of it is on the route already.
    const there = new Set(student.view.route.courses.map(keyOf))
    const chosen = proposal.value.courses.filter(
      ({ planned }) => kept.value.has(keyOf(planned)) && !there.has(keyOf(planned))
    )
    return reread([...student.view.route.courses, ...chosen.map((one) => one.planned)])
  })

  const { search, begin, stop } = useFillSearch((how, found) => {
    show(found)
    ended.value = how
  })
  function start(choice: FillChoice): void {
    leave()
    begin(choice)
  }
  function show(found: Proposal | undefined): void {
    proposal.value = found
    kept.value = new Set(found?.courses.map((one) => keyOf(one.planned)))
  }

  /** Proposes what is left of the sequence that a program suggests. */
  function suggest(index: number): void {
    leave()
    const found = leftOfSequence(index)
    if (!found) return
    show(found.proposal)
    ended.value = found.ended
  }
  /** Takes a course for a need that the sequence leaves open in a term. */
  function choose({ result, term }: Proposal['open'][number], course: Course): void {
    const now = proposal.value!
    const planned = plan(course, term)
    proposal.value = {
      courses: [...now.courses, chosenFor(planned, result)],
      open: now.open.filter((one) => one.result !== result || one.term !== term)
    }
    toggle(keyOf(planned))
  }

  function leave(): void {
    stop()
    proposal.value = undefined
    ended.value = undefined
    kept.value = new Set()
  }
  function toggle(key: string): void {
    const next = new Set(kept.value)
    if (!next.delete(key)) next.add(key)
    kept.value = next
  }
  /** Takes what is kept onto the route. */
  async function accept(): Promise<void> {
    const chosen = (proposal.value?.courses ?? []).filter((one) => kept.value.has(keyOf(one.planned)))
    if (await putOnRoute(chosen.map((one) => one.planned))) leave()
  }
  return { search, proposal, kept, ended, preview, start, suggest, choose, stop, leave, toggle, accept }
})
