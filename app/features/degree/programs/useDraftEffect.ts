import {
  verdictOf,
  type DraftAgainst,
  type DraftEffect,
  type DraftPage,
  type DraftVerdict,
  type Follower
} from '#shared/degree/drafts'

/** How many records are audited in one request, and to begin with. */
const LOT = 12

/** What a draft would make of those who follow its program: worked out lot by lot, anew after each change of the text. */
export function useDraftEffect(
  draft: DraftPage,
  text: Readonly<Ref<string>>,
  isReadable: Readonly<Ref<boolean>>
) {
  const against = ref<DraftAgainst>(draft.from === null ? 'record' : 'from')
  const wantsAll = ref(false)
  const chosen = computed((): readonly Follower[] =>
    wantsAll.value ? draft.followers : spread(draft.followers, LOT)
  )

  async function* lots() {
    const said = text.value
    const all = chosen.value
    for (let i = 0; i < all.length; i += LOT) {
      const students = all.slice(i, i + LOT).map((one) => one.id)
      const body = { text: said, against: against.value, students }
      yield await api<DraftEffect[]>(`/api/programs/drafts/${draft.id}/effect`, { method: 'POST', body })
    }
  }
  const { found, problem, isBusy, work, changed } = useLots(() => isReadable.value, lots)
  watch([text, isReadable], changed)
  watch([against, wantsAll], () => void work())

  const byId = computed(() => new Map(draft.followers.map((one) => [one.id, one])))
  const rows = computed(() =>
    found.value.map((one) => ({
      ...one,
      follower: byId.value.get(one.student)!,
      verdict: verdictOf(one.effects)
    }))
  )
  const counts = computed(() => {
    const of = (wanted: DraftVerdict) => rows.value.filter((one) => one.verdict === wanted).length
    return { gains: of('gains'), loses: of('loses'), both: of('both'), same: of('same') }
  })
  return { against, wantsAll, chosen, rows, counts, problem, isBusy }
}

/** So many of a list, from all over it. */
export function spread<T>(all: readonly T[], most: number): T[] {
  if (all.length <= most) return [...all]
  return Array.from({ length: most }, (_, i) => all[Math.floor((i * all.length) / most)]!)
}
