import { useThrottleFn } from '@vueuse/core'
import type { DeskRequest } from '#shared/advising/asking'
import { waitsAtTheGate } from '#shared/advising/desk'
import { timeLeft } from '#shared/when'
import { count } from '#shared/words'

/** Requests, for whoever answers any. */
function requestPlaces(all: readonly DeskRequest[] | undefined): Place[] {
  const asked = all?.filter((one) => one.state === 'asked')
  return asked
    ? [
        {
          to: '/requests',
          name: 'Requests',
          key: 'r',
          state: asked.length ? `${asked.length} to answer` : 'none wait'
        }
      ]
    : []
}

/** The places of an advisor. */
function advisorPlaces(staff: ReturnType<typeof useStaff>): Place[] {
  const rows = staff.desk?.rows
  const waiting = rows?.filter((r) => r.reviews.length > 0 || r.requestsAsked > 0 || waitsAtTheGate(r))
  const ahead = staff.hours?.appointments.length
  // Nothing is said before it is known.
  const state = !waiting ? '' : waiting.length ? `${waiting.length} to answer` : 'nothing waits'
  return [
    { to: '/desk', name: 'Desk', key: 't', state },
    { to: '/students', name: 'Students', key: 'd', state: rows ? String(rows.length) : '' },
    {
      to: '/hours',
      name: 'Hours',
      key: 'h',
      state: ahead === undefined ? '' : ahead ? `${ahead} ahead` : 'nobody booked'
    }
  ]
}

/** The places of advisors and of the registrar, with their state lines. */
export function useStaffPlaces() {
  const session = useWho()
  const college = useCollege()
  const clock = useClock()
  const staff = useStaff()

  // Many may change something at once; the desk is read once for all of them.
  const follow = useThrottleFn(() => void staff.load(), 600, true)
  useNews().onNews(
    ({ student, kind }) =>
      (student !== null || kind === 'requests' || kind === 'term') && staff.isAsked && follow()
  )
  useNews().onMissed(() => staff.isAsked && follow())

  const next = computed(() => {
    if (!staff.ready) return ''
    const ahead = staff.openings.map((o) => o.opens).filter((at) => at > clock.minute)
    return ahead.length ? `next in ${timeLeft(Math.min(...ahead) - clock.minute)}` : 'none ahead'
  })
  return computed((): Place[] => {
    const requests = requestPlaces(staff.requests)
    const demand: Place = { to: '/demand', name: 'Demand', key: 'm', state: 'what is wanted' }
    const openings: Place = { to: '/openings', name: 'Openings', key: 'e', state: next.value }
    if (session.who?.role === 'registrar') {
      return [
        {
          to: '/terms',
          name: 'Terms',
          key: 't',
          state: college.catalogContext ? `${count(college.openTerms.length, 'term')} on offer` : ''
        },
        { to: '/people', name: 'Students', key: 'd', state: 'find anybody' },
        ...requests,
        { to: '/holds', name: 'Holds', key: 'o', state: 'place and lift' },
        demand,
        openings
      ]
    }
    if (session.who?.role === 'office')
      return [{ to: '/holds', name: 'Holds', key: 'o', state: 'place and lift' }]
    if (session.who?.role === 'instructor' || session.who?.role === 'department')
      return [
        {
          to: '/teaching',
          name: 'Sections',
          key: 't',
          state: staff.sections ? count(staff.sections.length, 'section') : ''
        },
        ...(session.who.role === 'department' ? [demand] : []),
        ...requests
      ]
    return [...advisorPlaces(staff), ...requests, openings]
  })
}
