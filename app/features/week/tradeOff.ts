/** What weeks are compared by, two at a time, and where that puts each of them. */
import { unbeaten } from '#core/find'
import { clockTime } from '#shared/when'
import type { FoundCard } from './finding'

interface Axis {
  title: string
  value: (card: FoundCard) => number
  /** Whether more of it is better. */
  more?: boolean
  text: (value: number) => string
  /** Ticks stand at whole multiples of it. */
  step: number
}

const hoursText = (minutes: number) =>
  `${Math.floor(minutes / 60)} h${minutes % 60 ? ` ${minutes % 60}` : ''}`

export const AXES = {
  between: { title: 'hours between classes', value: (one) => one.figures.between, text: hoursText, step: 60 },
  first: {
    title: 'first class',
    value: (one) => one.figures.firstStart ?? 24 * 60,
    more: true,
    text: clockTime,
    step: 60
  },
  last: { title: 'last class over', value: (one) => one.figures.lastEnd ?? 0, text: clockTime, step: 60 },
  days: { title: 'days', value: (one) => one.figures.days, text: String, step: 1 },
  fullest: { title: 'fullest day', value: (one) => one.fullest, text: hoursText, step: 60 },
  campus: { title: 'campus changes', value: (one) => one.figures.campusChanges, text: String, step: 1 },
  risky: { title: 'sections at risk', value: (one) => one.risky, text: String, step: 1 },
  fees: { title: 'fees', value: (one) => one.fees, text: (value) => value.toFixed(0), step: 20 }
} satisfies Record<string, Axis>
export type AxisName = keyof typeof AXES

/** Weeks at one point of a plot, in both measures. */
export interface TradeOffPoint {
  x: number
  y: number
  cards: readonly [FoundCard, ...FoundCard[]]
  /** Whether no other week is better in one measure and as good in the other. */
  unbeaten: boolean
}

/** The weeks by two measures, those alike in both as one point; in the order in which they were found. */
export function tradeOffPoints(cards: readonly FoundCard[], across: AxisName, up: AxisName): TradeOffPoint[] {
  const [x, y]: Axis[] = [AXES[across], AXES[up]]
  const cost = ({ value, more }: Axis, card: FoundCard) => (more ? -value(card) : value(card))
  const front = new Set(unbeaten(cards.map((card) => [cost(x!, card), cost(y!, card)] as const)))
  const found = new Map<string, TradeOffPoint & { cards: [FoundCard, ...FoundCard[]] }>()
  for (const [i, card] of cards.entries()) {
    const at = { x: x!.value(card), y: y!.value(card) }
    const before = found.get(`${at.x} ${at.y}`)
    if (before) before.cards.push(card)
    else found.set(`${at.x} ${at.y}`, { ...at, cards: [card], unbeaten: front.has(i) })
  }
  return [...found.values()]
}

/** From tick to tick, about four of them, with room at both ends. */
export function ticksOf(name: AxisName, values: readonly number[]): number[] {
  const { step } = AXES[name]
  const [least, most] = [Math.min(...values), Math.max(...values)]
  const interval = step * Math.max(1, Math.ceil((most - least) / step / 4))
  const first = Math.max(0, Math.floor(least / interval - 0.2))
  const last = Math.ceil(most / interval + 0.2)
  return Array.from({ length: last - first + 1 }, (_, i) => (first + i) * interval)
}
