/** What is said before a course is dropped: what it changes, what it leaves, and to whom the seat goes. */
import { endsFullTime, FULL_TIME_CREDITS } from '#core/registration'

export interface DropAsked {
  courses: readonly { course: string; credits: number; mark: 'W' | null; waiting: number }[]
  /** Credits registered in the term before it. */
  before: number
  level: 'undergraduate' | 'graduate'
}

/** One sentence for each thing that it does. */
export function dropSays({ courses, before, level }: DropAsked): string[] {
  const after = before - courses.reduce((sum, one) => sum + one.credits, 0)
  const marked = courses.filter((one) => one.mark).map((one) => one.course)
  const line = courses.filter((one) => one.waiting > 0)
  const said = [`Your registered credits go from ${before} to ${after}.`]
  if (level === 'undergraduate' && endsFullTime(before, after))
    said.push(
      `Full time is ${FULL_TIME_CREDITS} credits or more: you would be part-time, which financial aid and insurance may depend on.`
    )
  said.push(
    marked.length
      ? `A W stays on your record${marked.length < courses.length ? ` for ${marked.join(', ')}` : ''}.`
      : 'It leaves no trace on your record.'
  )
  if (line.length)
    said.push(
      `The seat goes to the line: ${line.map((one) => `${one.waiting} wait for ${one.course}`).join(', ')}.`
    )
  said.push('A seat that is given back cannot be called back.')
  return said
}
