import type { AdvisorName } from '#shared/advising/handOver'

/** The other advisors who may do what whoever looks may; read when they are asked for, and a failure is said. */
export function useOtherAdvisors() {
  const session = useWho()
  const others = ref<AdvisorName[]>([])
  async function read(): Promise<void> {
    try {
      const all = await api<AdvisorName[]>('/api/advisors')
      others.value = all.filter((one) => one.role === session.who?.role && one.name !== session.who.name)
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      useNotice().say(error.message)
    }
  }
  return { others, read }
}
