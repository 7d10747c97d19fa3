import type { Place } from '~/stores/standing'
import { timeLeft } from '#wire/when'
import { count } from '#wire/words'

/** The places of advisors and of the registrar, with their state lines. */
export function useStaffPlaces() {
  const session = useWho()
  const college = useCollege()
  const clock = useClock()
  const staff = useStaff()

  const next = computed(() => {
    const ahead = staff.openings.map((o) => o.opens).filter((at) => at > clock.now)
    return ahead.length ? `next in ${timeLeft(Math.min(...ahead) - clock.now)}` : 'all open'
  })
  return computed((): Place[] => {
    const openings: Place = { to: '/openings', name: 'Openings', key: 'e', state: next.value }
    if (session.who?.role === 'registrar') {
      return [
        {
          to: '/terms',
          name: 'Terms',
          key: 't',
          state: `${count(college.openTerms.length, 'term')} published ahead`
        },
        openings
      ]
    }
    const rows = staff.desk?.rows ?? []
    const asking = rows.filter((r) => r.reviewAskedAt !== null).length
    return [
      { to: '/desk', name: 'Desk', key: 't', state: asking ? `${asking} to answer` : 'nothing waits' },
      { to: '/students', name: 'Students', key: 'd', state: String(rows.length) },
      openings
    ]
  })
}
