import type { HoldsPlaced, HoldsView } from '#shared/offices/holds'
import type { HoldsAsked } from '#shared/offices/requests'

/** What the registrar's office does to records: holds that stand, placed and lifted. */
export const useOffices = defineStore('offices', () => {
  const holds = shallowRef<HoldsView>()
  const failure = ref<string>()

  async function load(): Promise<void> {
    try {
      holds.value = await api<HoldsView>('/api/holds')
      failure.value = undefined
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      failure.value = error.message
    }
  }
  useNews().onNews(({ student }) => student !== null && holds.value && void load())
  useNews().onMissed(() => holds.value && void load())

  /** @throws Failure where it is refused; then nothing was placed */
  async function place(said: HoldsAsked): Promise<HoldsPlaced> {
    const placed = await api<HoldsPlaced>('/api/holds', { method: 'POST', body: said })
    await load()
    return placed
  }
  /** @throws Failure */
  async function lift(hold: number): Promise<void> {
    await api(`/api/holds/${hold}`, { method: 'DELETE' })
    await load()
  }
  return { holds, failure, load, place, lift }
})
