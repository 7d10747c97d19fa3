/** What has become of a section since it was picked. */
import type { Meeting } from './meeting'
import type { Section } from './option'

/** What a section was like when it was picked. */
export interface AsPicked {
  left: number
  meetings: readonly Pick<Meeting, 'days' | 'start' | 'end' | 'from' | 'to' | 'campus'>[]
}

export type SincePicked = 'cancelled' | 'moved' | 'filled'

export function asPicked({ capacity, taken, meetings }: Section): AsPicked {
  return {
    left: capacity - taken,
    meetings: meetings.map(({ days, start, end, from, to, campus }) => ({
      days,
      start,
      end,
      from,
      to,
      campus
    }))
  }
}

/** The gravest first; empty while it is as it was. A section that was full when it was picked has not filled since. */
export function changesSince(section: Section, then: AsPicked | null): SincePicked[] {
  if (section.cancelled) return ['cancelled']
  if (!then) return []
  const changes: SincePicked[] = []
  if (keyOf(then.meetings) !== keyOf(section.meetings)) changes.push('moved')
  if (then.left > 0 && section.taken >= section.capacity) changes.push('filled')
  return changes
}

const keyOf = (meetings: AsPicked['meetings']) =>
  meetings
    .map(({ days, start, end, from, to, campus }) => [days.join(''), start, end, from, to, campus].join())
    .sort()
    .join(';')
