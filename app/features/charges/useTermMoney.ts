import { assess, centsOf, postings, refundPercent, totalOf, type Cents, type PricedSeat } from '#core/charges'
import type { CourseCode } from '#core/ids'
import type { Section } from '#core/week'
import { accountOf, openOf, seatsLostOn } from '#shared/charges/balance'
import { owedOf } from '#shared/charges/responses'

/** What the term on screen costs, and what a change of its seats would charge or give back as of now. */
export function useTermMoney() {
  const student = useStudent()
  const standing = useStanding()
  const clock = useClock()
  const college = useCollege()

  const prices = computed(() => standing.term?.prices ?? null)
  const account = computed(() => student.view && accountOf(student.view, standing.term?.code))
  const open = computed(() => (account.value ? openOf(account.value) : 0))
  const owed = computed(() => (account.value ? owedOf(account.value) : 0))
  const lostOn = computed(() =>
    student.view && standing.term
      ? seatsLostOn(student.view, standing.term, clock.minute, college.zone)
      : undefined
  )

  const priced = (course: CourseCode, sections: readonly Section[]): PricedSeat => ({
    course,
    credits: sections.reduce((sum, one) => sum + one.credits, 0),
    fee: sections.reduce((sum, one) => sum + centsOf(one.fee), 0)
  })
  const held = computed(() =>
    [...standing.heldCourses].map((course) =>
      priced(
        course,
        standing.heldSections.filter((one) => one.course === course)
      )
    )
  )
  /** What other seats than those held come to: by how much less or more is assessed, and what moves for it. */
  function change(seats: readonly PricedSeat[]): { assessed: Cents; amount: Cents } {
    if (!prices.value || !student.view) return { assessed: 0, amount: 0 }
    const { value: of } = prices
    const payer = student.view.student
    const before = new Map(assess(of, payer, held.value).map((one) => [one.item, one.amount]))
    const made = postings(before, assess(of, payer, seats), refundPercent(of, clock.minute))
    return {
      assessed: made.reduce((sum, one) => sum + one.assessed, 0),
      amount: made.reduce((sum, one) => sum + (one.kind === 'charge' ? one.amount : -one.amount), 0)
    }
  }

  /** What is charged in all once these lines have gone through, and the seats of other courses are gone. */
  function totalWith(
    lines: readonly { course: CourseCode; sections: readonly Section[] | null }[],
    gone: ReadonlySet<CourseCode>
  ): Cents {
    const courses = new Set([...gone, ...lines.map((line) => line.course)])
    const stay = held.value.filter((seat) => !courses.has(seat.course))
    const more = lines.map((line) => priced(line.course, line.sections ?? []))
    return totalOf(account.value?.charges ?? []) + change([...stay, ...more]).amount
  }
  /** What giving courses back makes cheaper, and how much of that is given back; undefined where the term has no prices. */
  function backFor(going: ReadonlySet<CourseCode>) {
    if (!prices.value) return undefined
    const { assessed, amount } = change(held.value.filter((seat) => !going.has(seat.course)))
    return { of: -assessed, back: -amount }
  }
  return { prices, account, owed, open, lostOn, totalWith, backFor }
}
