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
  let keys = new Map<StudentId, string>()
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

  function propose(asked: PlacingSaid): Promise<unknown> {
    return attempt(async () => {
      said.value = asked
      proposed.value = []
      sections.value = new Map()
      outcomes.value = new Map()
      leftOut.value = new Set()
      keys = new Map()
      unseen.value = 0
      stopping = false
      let taken = {}
      try {
        for (let from: number | null = 0; from !== null && !stopping;) {
          const { group, setAside } = asked
          const body: object = { group, setAside, from, taken }
          const piece: PlacingPiece = await api(`/api/terms/${term}/placing`, { method: 'POST', body })
          proposed.value = [...proposed.value, ...piece.students]
          // What was said of a section first is what it was like before.
          sections.value = new Map([
            ...piece.sections.map((one) => [one.code, one] as const),
            ...sections.value
          ])
          const done = piece.next ?? piece.of
          progress.value = { doing: 'proposing', done, of: piece.of }
          unseen.value = piece.of - done
          ;({ taken, next: from } = piece)
        }
      } finally {
        progress.value = undefined
      }
    })
  }

  function place(): Promise<unknown> {
    return attempt(async () => {
      const list = toPlace.value
      stopping = false
      try {
        for (const [i, one] of list.entries()) {
          if (stopping) break
          progress.value = { doing: 'placing', done: i, of: list.length }
          const outcome = await placeOne(one)
          outcomes.value = new Map(outcomes.value).set(one.student, outcome)
        }
      } finally {
        progress.value = undefined
      }
    })
  }

  /** What the server refuses is told of this student, and the others go on; where it is not reached all of it ends. */
  async function placeOne({ student, ground, placed }: ProposedPlacing): Promise<PlacingOutcome> {
    const { setAside, consent } = said.value!
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

  return {
    ...{
      groups,
      failure,
      read,
      said,
      proposed,
      sections,
      outcomes,
      leftOut,
      progress,
      problem,
      toPlace,
      unseen
    },
    ...{ propose, place, stop: () => void (stopping = true) }
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
