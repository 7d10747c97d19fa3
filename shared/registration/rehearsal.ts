/** What a run sheet comes to as of its opening, as it is told before it. */
import type { Refusal } from '#core/findings'
import type { CourseCode } from '#core/ids'
import type { Instant } from '#core/time'
import { instantText } from '#shared/when'
import { count } from '#shared/words'
import type { RunSheet } from './responses'
import { refusalText } from './texts'

export interface RehearsalSaid {
  opens: Instant
  /** Lines that are to be registered. */
  lines: number
  /** What stops all of them alike. */
  general: Refusal[]
  /** Lines that would not go through as they are picked, with the first reason for each. */
  against: { course: CourseCode; refusal: Refusal }[]
  /** Planned courses without a section. */
  unsettled: CourseCode[]
}

/** What is to be told of a sheet; undefined where there is no opening to come or nothing on it. */
export function rehearsalOf(
  { opens, checkedFor, general, lines }: Pick<RunSheet, 'opens' | 'checkedFor' | 'general' | 'lines'>,
  leftOut: readonly CourseCode[]
): RehearsalSaid | undefined {
  const asked = lines.filter((line) => line.state === 'ready' && !leftOut.includes(line.course))
  const unsettled = lines.filter((line) => line.state === 'unsettled').map((line) => line.course)
  if (opens === null || checkedFor !== opens || !(asked.length || unsettled.length)) return undefined
  return {
    opens,
    lines: asked.length,
    general: general.filter((one) => one.code !== 'notOpen'),
    against: asked.flatMap(({ course, refusals: [refusal] }) => (refusal ? [{ course, refusal }] : [])),
    unsettled
  }
}

export function rehearsalText(
  { opens, lines, general, against, unsettled }: RehearsalSaid,
  zone: string
): string {
  const clear = lines - against.length
  return [
    `Your registration opens on ${instantText(opens, zone)}.`,
    ...general.map((one) => `Before any of it: ${refusalText(one, zone)}`),
    ...(lines
      ? [`As seats and checks are now, ${clear} of ${count(lines, 'line')} would go through as picked.`]
      : []),
    ...against.map(({ course, refusal }) => `${course}: ${refusalText(refusal, zone)}`),
    ...(unsettled.length ? [`Without a section: ${unsettled.join(', ')}.`] : [])
  ].join(' ')
}
