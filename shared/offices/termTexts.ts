/** What has changed of a term, in the words of a mail. */
import type { CivilTime } from '#core/time'
import { dayText, deadlineText } from '#shared/when'
import type { TermSaid } from './terms'

/** A campus time until which something may be done, in the words of every other deadline. */
export const untilText = (time: CivilTime): string => deadlineText(Date.parse(`${time}Z`), 'UTC')

const HOURS = [
  ['addEnds', 'Courses are added until'],
  ['dropFreeEnds', 'Courses are dropped without a trace until'],
  ['dropEnds', 'Courses are dropped until'],
  ['graduateBy', 'Who finishes in it applies to graduate until']
] as const

/** Sentences of what a student acts on, each with what it was; empty where nothing of that has changed. */
export function changesOfTerm(before: TermSaid, after: TermSaid): string[] {
  const changed: string[] = []
  const say = (text: string, was: string | null, is: string | null) => {
    if (was !== is) changed.push(`${text} ${is ?? 'no set day'} (before: ${was ?? 'no set day'}).`)
  }
  const until = (time: string | null) => time && untilText(time)
  for (const [field, text] of HOURS) say(text, until(before[field]), until(after[field]))
  say('It is paid for by', dayText(before.paymentDue), dayText(after.paymentDue))
  for (const one of after.sessions) {
    const was = before.sessions.find(({ code }) => code === one.code)
    if (!was) continue
    for (const [field, text] of HOURS.slice(0, 3) as readonly (readonly [
      'addEnds' | 'dropFreeEnds' | 'dropEnds',
      string
    ])[]) {
      const own = one[field] ?? was[field]
      if (own)
        say(
          `${one.name}: ${text.toLowerCase()}`,
          until(was[field] ?? before[field]),
          until(one[field] ?? after[field])
        )
    }
  }
  const dates = (said: TermSaid) => new Map(said.holidays.map((one) => [one.date, one.name]))
  const [was, is] = [dates(before), dates(after)]
  for (const [date, name] of is) if (!was.has(date)) changed.push(`No classes on ${dayText(date)}: ${name}.`)
  for (const [date, name] of was)
    if (!is.has(date)) changed.push(`There are classes on ${dayText(date)} after all (${name}).`)
  say('The most credits are', String(before.loadMost), String(after.loadMost))
  return changed
}
