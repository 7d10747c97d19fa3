import type { Desk } from '#shared/advising/responses'
import type { OpeningView } from '#shared/responses'

/** What an advisor or the registrar sees beside single records. */
export const useStaff = defineStore('staff', () => {
  const desk = shallowRef<Desk>()
  const openings = shallowRef<OpeningView[]>([])
  const failure = ref<string>()
  const ready = ref(false)

  async function load(): Promise<void> {
    const session = useWho()
    const isAdvisor = session.who?.role === 'programAdvisor' || session.who?.role === 'supportAdvisor'
    try {
      const [all, mine] = await Promise.all([
        api<OpeningView[]>('/api/openings'),
        isAdvisor ? api<Desk>('/api/desk') : undefined,
        useCollege().load(),
        useClock().sync()
      ])
      openings.value = all
      desk.value = mine
      failure.value = undefined
      ready.value = true
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      failure.value = error.message
    }
  }
  return { desk, openings, failure, ready, load }
})
