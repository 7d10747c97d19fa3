import type { Course } from '#core/catalog'
import type { PlannedCourse } from '#core/degree'
import { alignSequence, plan } from '#core/route'
import type { FillCall, FillChoice, Proposal } from '#shared/route/filling'
import { chosenFor, suggestionOf } from '#shared/route/fillingFaults'
import { readStudent, type Reading } from '#shared/reading'
import { suggestedText } from '#shared/route/fillingTexts'
import type { FillNews } from './fill.worker'

export const keyOf = ({ course, term }: Pick<PlannedCourse, 'course' | 'term'>) => `${course}@${term}`

/** The rest of the degree filled in: asked for, searched in a worker, shown as a proposal, taken or not. */
export const useFilling = defineStore('filling', () => {
  const student = useStudent()
  const routeChanges = useRouteChanges()
  const college = useCollege()
  /** While it is searched: models solved so far, and the finish that was found. */
  const search = ref<{ models: number; found: string | undefined }>()
  const proposal = shallowRef<Proposal>()
  /** Proposed courses that will be taken. */
  const kept = ref(new Set<string>())
  /** How it ended, in a sentence. */
  const ended = ref<string>()
  let worker: Worker | undefined

  const reread = (planned: readonly PlannedCourse[]): Reading => {
    const view = student.view!
    const route = { ...view.route, courses: [...planned] }
    return readStudent({ ...view, route }, college.catalogContext!, student.stage.at)
  }
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

  function start(choice: FillChoice): void {
    leave()
    const { view } = student
    const catalog = college.view
    if (!view || !catalog) return
    search.value = { models: 0, found: undefined }
    worker = new Worker(new URL('./fill.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<FillNews>) => hear(data)
    worker.onerror = () => {
      stop()
      ended.value = 'Filling broke off; the route is as it was. Try again.'
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
      show(news.proposal)
      ended.value = news.ended
    }
  }
  function show(found: Proposal | undefined): void {
    proposal.value = found
    kept.value = new Set(found?.courses.map((one) => keyOf(one.planned)))
  }

  /** Proposes what is left of the sequence that a program suggests. */
  function suggest(index: number): void {
    leave()
    const { reading, view } = student
    const spec = view?.programs[index]?.spec
    if (!reading || !view || !spec) return
    const { shortTitle, suggested = [] } = spec
    const aligned = alignSequence(reading.context, suggested, index)
    const found = suggestionOf(aligned, view.route.courses, reread)
    show(found)
    ended.value = suggestedText({ shortTitle, suggested }, aligned, found.courses.length)
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

  function stop(): void {
    worker?.terminate()
    worker = undefined
    search.value = undefined
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
  /** Takes what is kept onto the route, as one change. */
  async function accept(): Promise<void> {
    const chosen = (proposal.value?.courses ?? []).filter((one) => kept.value.has(keyOf(one.planned)))
    const added = chosen.map(({ planned }) => ({ kind: 'add' as const, planned }))
    // A suggestion for each term: it is answered by itself.
    const terms = student.isSuggesting ? [...new Set(added.map((one) => one.planned.term))] : [undefined]
    for (const term of terms) {
      const part = added.filter((one) => term === undefined || one.planned.term === term)
      if (part.length && !(await routeChanges.changeRoute({ kind: 'several', changes: part }))) return
    }
    leave()
  }
  return { search, proposal, kept, ended, preview, start, suggest, choose, stop, leave, toggle, accept }
})
