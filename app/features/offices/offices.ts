import type { GraduationCase } from '#shared/offices/graduations'
import type { News } from '#shared/news/responses'
import type { HoldsPlaced, HoldsView } from '#shared/offices/holds'
import type { OpeningFigures } from '#shared/offices/openings'
import type { HoldKindSaid, HoldsAsked } from '#shared/offices/requests'

const ofAnybody = ({ student }: News) => student !== null
type Reads = (read: () => Promise<void>) => Promise<void>

/** Openings, moved and told of. */
function useOpeningsOfOffice(reading: Reads) {
  /** Openings with those for whom they are; undefined until somebody looks at them. */
  const openings = shallowRef<OpeningFigures[]>()
  const loadOpenings = followed(
    () => reading(async () => void (openings.value = await api<OpeningFigures[]>('/api/openings/figures'))),
    (news) => ofAnybody(news) || news.kind === 'term'
  )
  /** @returns how many students were told; @throws Failure */
  async function moveOpening(opening: number, opens: number): Promise<number> {
    const { told } = await api<{ told: number }>(`/api/openings/${opening}`, {
      method: 'POST',
      body: { opens }
    })
    await loadOpenings()
    return told
  }
  /** Tells those who are not ready what they lack. @throws Failure */
  const nudge = (opening: number) =>
    api<{ told: number; already: number }>(`/api/openings/${opening}/nudge`, { method: 'POST', body: {} })
  return { openings, loadOpenings, moveOpening, nudge }
}

/** Degrees to be awarded. */
function useGraduationsOfOffice(reading: Reads) {
  /** Applications to graduate that wait; undefined until somebody looks at them. */
  const graduations = shallowRef<GraduationCase[]>()
  const loadGraduations = followed(
    () => reading(async () => void (graduations.value = await api<GraduationCase[]>('/api/graduations'))),
    ofAnybody
  )
  /** @throws Failure where something is still open */
  async function award(graduation: number): Promise<void> {
    await api(`/api/graduations/${graduation}/award`, { method: 'POST', body: {} })
    await loadGraduations()
  }
  return { graduations, loadGraduations, award }
}

/** What the registrar's office does to records: holds that stand, placed and lifted. */
export const useOffices = defineStore('offices', () => {
  const holds = shallowRef<HoldsView>()
  const failure = ref<string>()

  /** What cannot be read is said on the page. */
  async function reading(read: () => Promise<void>): Promise<void> {
    try {
      await read()
      failure.value = undefined
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      failure.value = error.message
    }
  }
  const load = followed(
    () => reading(async () => void (holds.value = await api<HoldsView>('/api/holds'))),
    ofAnybody
  )

  /** @throws Failure where it is refused; then nothing was placed */
  async function place(said: HoldsAsked): Promise<HoldsPlaced> {
    const placed = await api<HoldsPlaced>('/api/holds', { method: 'POST', body: said })
    await load()
    return placed
  }
  /** A kind of hold: made, changed or taken away. @throws Failure */
  async function changeKind(kind: number | null, said: HoldKindSaid | null): Promise<void> {
    await api(`/api/hold-kinds${kind === null ? '' : `/${kind}`}`, {
      method: said ? 'POST' : 'DELETE',
      ...(said ? { body: said } : {})
    })
    await load()
  }
  /** @throws Failure */
  async function lift(hold: number): Promise<void> {
    await api(`/api/holds/${hold}`, { method: 'DELETE' })
    await load()
  }
  return {
    ...{ failure, holds, load, place, lift, changeKind },
    ...useOpeningsOfOffice(reading),
    ...useGraduationsOfOffice(reading)
  }
})
