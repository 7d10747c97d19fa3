import { joinNext } from '#shared/joinNext'
import { asDecider, type Decider, type DeskRequest } from '#shared/advising/asking'
import type { TaughtSection } from '#shared/sections/teaching'
import type { OfferedTime } from '#core/appointments'
import type { GroupSession } from '#shared/advising/groups'
import type { DeskViewSaid, GroupSaid } from '#shared/advising/requests'
import type { AwayTime, HoursView } from '#shared/appointments/appointments'
import type { Desk } from '#shared/advising/responses'
import type { OpeningView } from '#shared/responses'

/** Changes something of the desk. @returns whether it went through */
type DeskChange = (where: string, how: { method: 'POST' | 'DELETE'; body?: object }) => Promise<boolean>

function useGroupSessions(change: DeskChange) {
  /** Groups that were planned with; read when they are looked at. */
  const groups = shallowRef<GroupSession[]>()
  async function readGroups(): Promise<void> {
    groups.value = await api<GroupSession[]>('/api/groups')
  }
  /** Offers the same to several students. @returns whether it went through */
  async function planWithGroup(said: GroupSaid): Promise<boolean> {
    const made = await change('/api/groups', { method: 'POST', body: said })
    await readGroups()
    return made
  }
  return { groups, readGroups, planWithGroup }
}

const requestAnswers = (change: DeskChange) => {
  /** Decides requests with one answer. @returns whether it went through */
  const answer = (
    requests: number[],
    said: {
      answer: 'given' | 'declined'
      until: string | null
      words: string | null
      version?: number | null
    }
  ): Promise<boolean> => change('/api/requests/answers', { method: 'POST', body: { requests, ...said } })
  /** Hands a request on. @returns whether it went through */
  const handOn = (request: number, said: { to: Decider; words: string | null }): Promise<boolean> =>
    change(`/api/requests/${request}/hand-on`, { method: 'POST', body: said })
  return { answer, handOn }
}

const hoursChanges = (change: DeskChange) => {
  /** Offers other hours from now on. @returns whether it went through */
  async function offer({ times, away }: { times: OfferedTime[]; away: AwayTime[] }): Promise<boolean> {
    const body = { times, away: away.map((one) => ({ ...one, standIn: one.standIn?.id ?? null })) }
    return change('/api/hours', { method: 'POST', body })
  }
  /** Makes a private calendar address, or withdraws it. */
  const setAddress = (wanted: boolean): Promise<boolean> =>
    change('/api/hours/calendar-address', {
      method: wanted ? 'POST' : 'DELETE',
      ...(wanted ? { body: {} } : {})
    })
  return { offer, setAddress }
}

const deskChanges = (change: DeskChange) => {
  /** Hands students over to another advisor. @returns whether it went through */
  const handOver = (said: { students: number[]; to: number; note: string | null }): Promise<boolean> =>
    change('/api/desk/hand-over', { method: 'POST', body: said })
  /** Keeps a view of the desk by a name, and lets one go. */
  const keepView = (said: DeskViewSaid): Promise<boolean> =>
    change('/api/desk/views', { method: 'POST', body: said })
  const dropView = (view: number): Promise<boolean> => change(`/api/desk/views/${view}`, { method: 'DELETE' })
  return { handOver, keepView, dropView }
}

/** What an advisor or the registrar sees beside single records. */
export const useStaff = defineStore('staff', () => {
  const desk = shallowRef<Desk>()
  const openings = shallowRef<OpeningView[]>([])
  /** Requests that wait for whoever looks, and those they answered; undefined for who answers none. */
  const requests = shallowRef<DeskRequest[]>()
  /** Hours that an advisor offers, and who comes. */
  const hours = shallowRef<HoursView>()
  /** Sections of whoever teaches, or of a department. */
  const sections = shallowRef<TaughtSection[]>()
  const failure = ref<string>()
  const ready = ref(false)

  /** Asked for before anything is there, too: what is being read may not know of what is told meanwhile. */
  const isAsked = ref(false)
  const readOnce = joinNext(read)
  function load(): Promise<void> {
    isAsked.value = true
    return readOnce()
  }
  async function read(): Promise<void> {
    const role = useWho().who?.role ?? 'student'
    const isAdvisor = role === 'programAdvisor' || role === 'supportAdvisor'
    try {
      const teaches = role === 'instructor' || role === 'department'
      const [all, mine, waiting, offered, taught] = await Promise.all([
        api<OpeningView[]>('/api/openings'),
        isAdvisor ? api<Desk>('/api/desk') : undefined,
        asDecider(role) ? api<DeskRequest[]>('/api/requests') : undefined,
        isAdvisor ? api<HoursView>('/api/hours') : undefined,
        teaches ? api<TaughtSection[]>('/api/teaching') : undefined,
        useCollege().load(),
        useClock().sync()
      ])
      openings.value = all
      desk.value = mine
      requests.value = waiting
      hours.value = offered
      sections.value = taught
      failure.value = undefined
      ready.value = true
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      failure.value = error.message
    }
  }
  const change: DeskChange = async (where, how) => {
    let isMade = true
    try {
      await api(where, how)
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      useNotice().say(error.message)
      isMade = false
    }
    // What was refused may be another by now.
    if (isAsked.value) await load()
    return isMade
  }
  return {
    ...{ desk, hours, requests, sections, openings, failure, isAsked, ready, load },
    ...hoursChanges(change),
    ...requestAnswers(change),
    ...useGroupSessions(change),
    ...deskChanges(change)
  }
})
