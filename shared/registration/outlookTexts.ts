/** What a run is expected to come to, in sentences. */
import type { Outlook } from '#core/registration'
import { count } from '#shared/words'

export interface OutlookAsked {
  now: Outlook
  /** With the scarce ones gone. */
  later: Outlook
  scarce: readonly string[]
  /** Something stops every line as long as it is not settled. */
  stopped?: boolean
  /** Credits of full time, where it matters. */
  fullTime: number | undefined
}

export function outlookSays({ now, later, scarce, stopped, fullTime }: OutlookAsked): string[] {
  const lines = now.seats + now.waits + now.nothing
  const ends = [
    `${now.seats} of ${count(lines, 'line')} ${now.seats === 1 ? 'ends' : 'end'} in a seat`,
    ...(now.waits ? [`${now.waits} in a place in line`] : []),
    ...(now.nothing ? [`${now.nothing} in nothing`] : [])
  ].join(', ')
  const said = [
    `${stopped ? 'Once what stops you is settled, as' : 'As'} seats are now, ${ends}: ${now.credits} credits${timeText(now.credits, fullTime)}.`
  ]
  if (scarce.length) {
    const lost = now.seats - later.seats
    const full = `${scarce.join(' and ')} ${scarce.length === 1 ? 'has' : 'have'} few seats left`
    said.push(
      lost === 0
        ? `${full}; if they are gone by then, a fallback holds: ${later.credits} credits${timeText(later.credits, fullTime)}.`
        : `${full}; if they are gone by then: ${later.credits} credits${timeText(later.credits, fullTime)}.`
    )
  }
  return said
}

const timeText = (credits: number, fullTime: number | undefined) =>
  fullTime === undefined ? '' : credits >= fullTime ? ', full time' : `, below full time of ${fullTime}`
