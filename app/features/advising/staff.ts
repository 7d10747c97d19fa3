import type { WaitingRequest } from '#shared/advising/permissions'
import type { Away, OfferedTime } from '#core/appointments'
import type { HoursView } from '#shared/appointments/appointments'
import type { Desk } from '#shared/advising/responses'
import type { OpeningView } from '#shared/responses'

/** What an advisor or the registrar sees beside single records. */
export const useStaff = defineStore('staff', () => {
  const desk = shallowRef<Desk>()
  const openings = shallowRef<OpeningView[]>([])
  /** Requests that wait for whoever looks; undefined for who answers none. */
  const requests = shallowRef<WaitingRequest[]>()
  /** Hours that an advisor offers, and who comes. */
  const hours = shallowRef<HoursView>()
  const failure = ref<string>()
  const ready = ref(false)

  async function load(): Promise<void> {
    const session = useWho()
    const isAdvisor = session.who?.role === 'programAdvisor' || session.who?.role === 'supportAdvisor'
    try {
      const decides = session.who?.role === 'programAdvisor' || session.who?.role === 'registrar'
      const [all, mine, waiting, offered] = await Promise.all([
        api<OpeningView[]>('/api/openings'),
        isAdvisor ? api<Desk>('/api/desk') : undefined,
        decides ? api<WaitingRequest[]>('/api/requests') : undefined,
        isAdvisor ? api<HoursView>('/api/hours') : undefined,
        useCollege().load(),
        useClock().sync()
      ])
      openings.value = all
      desk.value = mine
      requests.value = waiting
      hours.value = offered
      failure.value = undefined
      ready.value = true
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      failure.value = error.message
    }
  }
  /** Changes something of a request; what came of it is read. @returns whether it went through */
  async function settle(
    { id, student }: WaitingRequest,
    how: 'answer' | 'forward',
    body: object
  ): Promise<boolean> {
    try {
      await api(`/api/students/${student.id}/permissions/${id}/${how}`, { method: 'POST', body })
      await load()
      return true
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      useNotice().say(error.message)
      await load()
      return false
    }
  }
  /** Offers other hours from now on. @returns whether it went through */
  async function offer(said: { times: OfferedTime[]; away: Away[] }): Promise<boolean> {
    return change('/api/hours', { method: 'POST', body: said })
  }
  /** Makes a private calendar address, or withdraws it. */
  const setAddress = (wanted: boolean): Promise<boolean> =>
    change('/api/hours/calendar-address', {
      method: wanted ? 'POST' : 'DELETE',
      ...(wanted ? { body: {} } : {})
    })

  async function change(where: string, how: { method: 'POST' | 'DELETE'; body?: object }): Promise<boolean> {
    try {
      await api(where, how)
      await load()
      return true
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      useNotice().say(error.message)
      return false
    }
  }
  return { desk, hours, offer, setAddress, requests, settle, openings, failure, ready, load }
})
