import { fillQuestion, type FillQuestion, type FillWish } from '#core/fill'
import type { PlannedCourse } from '#core/degree'
import { conflictOf, proposalOf, type Proposal } from '#wire/filling'
import { readStudent, type Reading } from '#wire/reading'
import { endedText } from '#wire/words'
import type { FillNews } from '~/workers/fill.worker'

export const keyOf = ({ course, term }: Pick<PlannedCourse, 'course' | 'term'>) => `${course}@${term}`

/** The rest of the degree filled in: asked for, searched in a worker, shown as a proposal, taken or not. */
export const useFilling = defineStore('filling', () => {
  const student = useStudent()
  const college = useCollege()
  /** While it is searched: steps so far, and the finish of the first way found. */
  const search = ref<{ steps: number; first: string | undefined }>()
  const proposal = shallowRef<Proposal>()
  /** Proposed courses that will be taken. */
  const kept = ref(new Set<string>())
  /** How it ended, in a sentence. */
  const ended = ref<string>()
  let worker: Worker | undefined

  const reread = (planned: readonly PlannedCourse[]): Reading => {
    const picture = student.picture!
    const route = { ...picture.route, courses: [...planned] }
    return readStudent({ ...picture, route }, college.shelf!, Date.parse(`${college.today}T12:00:00Z`))
  }
  /** The student with what is kept of the proposal; undefined while there is none. */
  const preview = computed(() => {
    if (!proposal.value || !student.picture || !college.shelf) return undefined
    const chosen = proposal.value.courses.filter((one) => kept.value.has(keyOf(one.planned)))
    return reread([...student.picture.route.courses, ...chosen.map((one) => one.planned)])
  })

  function start(wish: Omit<FillWish, 'level'>): void {
    leave()
    const { reading, picture } = student
    if (!reading || !picture) return
    const level = picture.student.standing === 'graduate' ? 'graduate' : 'undergraduate'
    const question = fillQuestion(reading.context, { ...wish, level })
    if (!question.demands.length) {
      ended.value = 'Nothing is needed any more; there is nothing to fill in.'
      return
    }
    search.value = { steps: 0, first: undefined }
    worker = new Worker(new URL('../workers/fill.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<FillNews>) => hear(data, question)
    worker.onerror = () => {
      stop()
      ended.value = 'Filling broke off. Nothing was changed; try again.'
    }
    worker.postMessage(question.problem)
  }

  function hear(news: FillNews, question: FillQuestion): void {
    if (news.kind === 'steps') search.value = { first: search.value?.first, steps: news.steps }
    else if (news.kind === 'found')
      search.value = { steps: search.value?.steps ?? 0, first: question.terms[news.finish]?.name }
    else {
      stop()
      const { answer } = news
      const placed = student.picture!.route.courses
      const found = proposalOf(question, answer, placed, reread)
      const conflict = conflictOf(question, answer).map((result) => result.need.title)
      proposal.value = found
      kept.value = new Set(found?.courses.map((one) => keyOf(one.planned)))
      ended.value = endedText(answer.kind, found, conflict, answer.steps)
    }
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
    const changes = chosen.map(({ planned }) => ({ kind: 'add' as const, planned }))
    if (changes.length && !(await student.changeRoute({ kind: 'several', changes }))) return
    leave()
  }
  return { search, proposal, kept, ended, preview, start, stop, leave, toggle, accept }
})
