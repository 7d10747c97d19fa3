import { assess, centsOf, postings, refundPercent, releaseDay, totalOf, type PricedSeat } from '#core/charges'
import type { CourseCode } from '#core/ids'
import type { SheetLine } from '#shared/registration/responses'
import { isoDate } from '#core/time'
import { accountOf, openOf, unpaidOf } from '#shared/charges/balance'
import { owedOf } from '#shared/charges/responses'

/** What the term on screen costs, and what a change of its seats would charge or give back as of now. */
export function useTermMoney() {
  const student = useStudent()
  const standing = useStanding()
  const clock = useClock()
  const college = useCollege()

  const prices = computed(() => standing.term?.prices ?? null)
  const account = computed(() => student.picture && accountOf(student.picture, standing.term?.code))
  const open = computed(() => (account.value ? openOf(account.value) : 0))
  /** The day on which seats are given back if nothing is paid until then; undefined where none are. */
  const lostOn = computed(() => {
    const { term } = standing
    if (!term?.prices?.releasesUnpaid || !account.value || open.value <= 0 || !standing.held.length)
      return undefined
    const day = releaseDay(unpaidOf(account.value, term, clock.minute, college.zone))
    return day === undefined ? undefined : isoDate(day)
  })
  const owed = computed(() => (account.value ? owedOf(account.value) : 0))

  const priced = ({ course, credits, sections }: SheetLine): PricedSeat => ({
    course,
    credits,
    fee: (sections ?? []).reduce((sum, one) => sum + centsOf(one.fee), 0)
  })
  const charge = (lines: readonly SheetLine[]) =>
    prices.value && student.picture ? assess(prices.value, student.picture.student, lines.map(priced)) : []

  /** What is charged in all once lines are held beside those that are. */
  const totalWith = (held: readonly SheetLine[], more: readonly SheetLine[]) => {
    const courses = new Set(more.map((line) => line.course))
    return totalOf(charge([...held.filter((line) => !courses.has(line.course)), ...more]))
  }
  /** What giving courses back makes cheaper, and how much of that is given back; undefined where the term has no prices. */
  function backFor(held: readonly SheetLine[], going: ReadonlySet<CourseCode>) {
    if (!prices.value) return undefined
    const percent = refundPercent(prices.value, clock.minute)
    const before = new Map(charge(held).map((one) => [one.item, one.amount]))
    const lowered = postings(before, charge(held.filter((line) => !going.has(line.course))), percent)
    const of = lowered.reduce((sum, one) => sum - one.assessed, 0)
    return {
      of,
      back: lowered.reduce((sum, one) => (one.kind === 'charge' ? sum - one.amount : sum + one.amount), 0)
    }
  }
  return { prices, account, owed, open, lostOn, totalWith, backFor }
}
