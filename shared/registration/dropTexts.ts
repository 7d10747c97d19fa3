/** What is said before a course is dropped: what it changes, what it leaves, and to whom the seat goes. */
import type { Cents } from '#core/charges'
import { moneyText } from '#shared/charges/texts'
import { endsFullTime, FULL_TIME_CREDITS } from '#core/registration'

export interface DropAsked {
  courses: readonly { course: string; credits: number; mark: string | null; waiting: number }[]
  /** Credits registered in the term before it. */
  before: number
  level: 'undergraduate' | 'graduate'
  /** What it makes cheaper, and how much of that is given back; undefined where it is not known here. */
  money?: { of: Cents; back: Cents } | undefined
}

function moneySays({ of, back }: { of: Cents; back: Cents }): string {
  if (of <= 0) return 'What is charged does not become less.'
  if (back >= of) return `${moneyText(of)} less is charged.`
  return back > 0
    ? `Of ${moneyText(of)} that it costs, ${moneyText(back)} is given back now.`
    : `Of ${moneyText(of)} that it costs, nothing is given back any more.`
}

/** One sentence for each thing that it does. */
export function dropSays({ courses, before, level, money }: DropAsked): string[] {
  const after = before - courses.reduce((sum, one) => sum + one.credits, 0)
  const marked = courses.filter((one) => one.mark).map((one) => one.course)
  const mark = courses.find((one) => one.mark)?.mark
  const line = courses.filter((one) => one.waiting > 0)
  const said = [`Your registered credits go from ${before} to ${after}.`]
  if (level === 'undergraduate' && endsFullTime(before, after))
    said.push(
      `Full time is ${FULL_TIME_CREDITS} credits or more: you would be part-time, which financial aid and insurance may depend on.`
    )
  said.push(
    marked.length
      ? `A ${mark!} stays on your record${marked.length < courses.length ? ` for ${marked.join(', ')}` : ''}.`
      : 'It leaves no trace on your record.'
  )
  if (money) said.push(moneySays(money))
  if (line.length)
    said.push(
      `The seat goes to the line: ${line.map((one) => `${one.waiting} wait for ${one.course}`).join(', ')}.`
    )
  said.push('A seat that is given back cannot be called back.')
  return said
}
