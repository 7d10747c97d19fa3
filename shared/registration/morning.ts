/** An opening morning as the crowd of the demo makes it. */
import type { TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import { count } from '#shared/words'

export interface Morning {
  state: 'quiet' | 'preparing' | 'waiting' | 'running' | 'over'
  term: TermCode
  opens: Instant
  /** How many there are in the crowd, who has picked sections, and whose run is answered. */
  people: number
  prepared: number
  answered: number
  /** Lines by what came of them. */
  seats: number
  waits: number
  refused: number
  /** Requests that failed, of any kind. */
  failed: number
  /** In milliseconds: until half of the runs were answered each, and until the last but one in twenty. */
  median: number | null
  slow: number | null
}

const seconds = (ms: number) => `${(ms / 1000).toFixed(1)} s`

/** How it goes, in a sentence. */
export function morningText(now: Morning): string {
  const { state, people, prepared, answered, seats, waits, refused, failed, median, slow } = now
  const faults = failed ? ` ${count(failed, 'request')} failed.` : ''
  switch (state) {
    case 'quiet':
      return ''
    case 'preparing':
      return `${prepared} of ${people} students have picked their sections.${faults}`
    case 'waiting':
      return `${people} students wait for the opening.${faults}`
    default: {
      const came = `${seats} lines ended in a seat, ${waits} in a place in line, ${refused} were refused`
      const times =
        median === null || slow === null
          ? ''
          : ` Half of the runs were answered within ${seconds(median)}, 19 of 20 within ${seconds(slow)}.`
      return `${answered} of ${people} students have run their sheets: ${came}.${state === 'over' ? times : ''}${faults}`
    }
  }
}
