import { useDebounceFn } from '@vueuse/core'
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
  const found = shallowRef<readonly DraftEffect[]>([])
  const problem = ref('')
  const isBusy = ref(false)
  const chosen = computed((): readonly Follower[] =>
    wantsAll.value ? draft.followers : spread(draft.followers, LOT)
  )

  let turn = 0
  async function work() {
    const mine = ++turn
    if (!isReadable.value) {
      isBusy.value = false
      return
    }
    isBusy.value = true
    problem.value = ''
    const results: DraftEffect[] = []
    try {
      for (let i = 0; i < chosen.value.length; i += LOT) {
        const students = chosen.value.slice(i, i + LOT).map((one) => one.id)
        const body = { text: text.value, against: against.value, students }
        const lot = await api<DraftEffect[]>(`/api/programs/drafts/${draft.id}/effect`, {
          method: 'POST',
          body
        })
        // The text was changed meanwhile: what this one comes to is of no interest.
        if (mine !== turn) return
        results.push(...lot)
        found.value = [...results]
      }
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      if (mine === turn) problem.value = error.message
    }
    if (mine === turn) isBusy.value = false
  }
  const soon = useDebounceFn(work, 900)
  watch([text, isReadable], () => (turn++, (isBusy.value = isReadable.value), void soon()))
  watch([against, wantsAll], () => void work())
  onMounted(work)
  onScopeDispose(() => turn++)

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
