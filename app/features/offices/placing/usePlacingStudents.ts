import type { OfficeOverride } from '#core/registration'
import type { StudentId, TermCode } from '#core/ids'
import type { PlacingGroups, PlacingPiece, PlacingSection, ProposedPlacing } from '#shared/offices/placing'
import type { PlacingGroup } from '#shared/offices/placingRequests'
import { isSeat } from '#shared/registration/outcomes'
import type { Receipt } from '#shared/registration/responses'

/** What an office says before it places a group. */
export interface PlacingSaid {
  group: PlacingGroup
  setAside: OfficeOverride[]
  /** How those agreed who handed nothing in. */
  consent: string
}

/** What came of placing one student. */
export type PlacingOutcome = { receipt: Receipt } | { failure: string }

/** What is proposed for a group, piece by piece. @throws Failure */
async function* proposedPieces(
  term: TermCode,
  { group, setAside }: PlacingSaid
): AsyncGenerator<PlacingPiece> {
  let taken = {}
  for (let from: number | null = 0; from !== null;) {
    const body = { group, setAside, from, taken }
    const piece: PlacingPiece = await api(`/api/terms/${term}/placing`, { method: 'POST', body })
    yield piece
    ;({ taken, next: from } = piece)
  }
}

/** Places one student after the other; each under a key of its own. */
function usePlacingOne(term: TermCode) {
  let keys = new Map<StudentId, string>()
  /** What the server refuses is told of this student, and the others go on; where it is not reached all of it ends. */
  async function placeOne(
    { setAside, consent }: PlacingSaid,
    { student, ground, placed }: ProposedPlacing
  ): Promise<PlacingOutcome> {
    const sections = placed.flatMap((one) => one.sections.map(({ code }) => code))
    const key = keys.get(student) ?? newKey()
    keys.set(student, key)
    const body = { term, sections, setAside, ...(ground === 'handedIn' ? {} : { consent }) }
    try {
      return { receipt: await api(`/api/students/${student}/placements`, { method: 'POST', body, key }) }
    } catch (error) {
      if (!(error instanceof Failure) || error.status === 0 || error.status >= 500) throw error
      return { failure: error.message }
    }
  }
  return { placeOne, anew: () => void (keys = new Map()) }
}

/**
 * Places a group in a term: proposed piece by piece, then done student by student. Each student has a key, so that one who
 * is placed again after a cut connection is placed once.
 */
export function usePlacingStudents(term: TermCode) {
  const { known: groups, failure, read } = useRead(() => api<PlacingGroups>(`/api/terms/${term}/placing`))
  const said = shallowRef<PlacingSaid>()
  const proposed = shallowRef<readonly ProposedPlacing[]>([])
  const sections = shallowRef<ReadonlyMap<string, PlacingSection>>(new Map())
  const outcomes = shallowRef<ReadonlyMap<StudentId, PlacingOutcome>>(new Map())
  const leftOut = ref<ReadonlySet<StudentId>>(new Set())
  /** Students looked at, or placed, of those that are to be. */
  const progress = shallowRef<{ doing: 'proposing' | 'placing'; done: number; of: number }>()
  const { problem, attempt } = useAttempt()
  const { placeOne, anew } = usePlacingOne(term)
  let stopping = false

  /** Who was tried has a receipt: what did not go through is proposed anew, not asked for again. */
  const toPlace = computed(() =>
    proposed.value.filter(
      (one) =>
        one.placed.length && !leftOut.value.has(one.student) && !isTried(outcomes.value.get(one.student))
    )
  )
  /** Students of the group who were not looked at, where it was stopped before. */
  const unseen = ref(0)

  /** Does it until it is done or stopped. */
  const underWay = (work: () => Promise<void>): Promise<unknown> =>
    attempt(async () => {
      stopping = false
      await work().finally(() => (progress.value = undefined))
    })
  const propose = (asked: PlacingSaid) =>
    underWay(async () => {
      said.value = asked
      proposed.value = []
      sections.value = new Map()
      outcomes.value = new Map()
      leftOut.value = new Set()
      anew()
      unseen.value = 0
      for await (const { students, sections: told, next, of } of proposedPieces(term, asked)) {
        proposed.value = [...proposed.value, ...students]
        // What was said of a section first is what it was like before.
        sections.value = new Map([...told.map((one) => [one.code, one] as const), ...sections.value])
        const done = next ?? of
        progress.value = { doing: 'proposing', done, of }
        unseen.value = of - done
        if (stopping) break
      }
    })
  const place = () =>
    underWay(async () => {
      const list = toPlace.value
      for (const [i, one] of list.entries()) {
        if (stopping) break
        progress.value = { doing: 'placing', done: i, of: list.length }
        const outcome = await placeOne(said.value!, one)
        outcomes.value = new Map(outcomes.value).set(one.student, outcome)
      }
    })

  return {
    ...{ groups, failure, read, said, proposed, sections, outcomes, leftOut, progress, problem },
    ...{ toPlace, unseen, propose, place, stop: () => void (stopping = true) }
  }
}

/** Whether a run was made for a student, whatever came of it. */
export const isTried = (outcome: PlacingOutcome | undefined): boolean =>
  outcome !== undefined && 'receipt' in outcome

/** Whether a student was placed in all that was proposed. */
export function isThrough(outcome: PlacingOutcome | undefined): boolean {
  return (
    outcome !== undefined &&
    'receipt' in outcome &&
    outcome.receipt.lines.every((line) => isSeat(line.outcome))
  )
}
