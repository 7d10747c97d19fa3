/**
 * The picture of bands from one column to another, each as wide as what flows in it: where its ends stand. Both columns
 * keep the order in which their ends first come, and fill the height.
 */
export interface Flow {
  from: string
  to: string
  /** Above zero; in any unit, the same for all. */
  amount: number
}
export interface End {
  key: string
  /** Pixels from the top, half-open. */
  top: number
  bottom: number
}
export interface Band {
  /** Where it begins in the left column and ends in the right one, pixels from the top of the picture. */
  left: number
  right: number
  width: number
}
export interface FlowShapes {
  left: End[]
  right: End[]
  /** One for each flow, in their order. */
  bands: Band[]
}

/** @param gap pixels between two ends of the fuller column; the other one spreads its ends over the same height. */
export function flowShapes(flows: readonly Flow[], height: number, gap: number): FlowShapes {
  const left = amounts(flows, 'from')
  const right = amounts(flows, 'to')
  const total = flows.reduce((sum, { amount }) => sum + amount, 0)
  const gaps = Math.max(0, Math.max(left.size, right.size) - 1)
  const scale = total ? Math.max(0, height - gap * gaps) / total : 0
  const spread = (sums: ReadonlyMap<string, number>): End[] => {
    const room = sums.size > 1 ? (height - total * scale) / (sums.size - 1) : 0
    let top = 0
    return [...sums].map(([key, amount]) => {
      const end = { key, top, bottom: top + amount * scale }
      top = end.bottom + room
      return end
    })
  }
  const ends = { left: spread(left), right: spread(right) }
  const next = {
    left: new Map(ends.left.map((end) => [end.key, end.top])),
    right: new Map(ends.right.map((end) => [end.key, end.top]))
  }
  const take = (side: 'left' | 'right', key: string, width: number): number => {
    const at = next[side].get(key)!
    next[side].set(key, at + width)
    return at
  }
  const bands = flows.map(({ from, to, amount }) => {
    const width = amount * scale
    return { left: take('left', from, width), right: take('right', to, width), width }
  })
  return { ...ends, bands }
}

/** What flows at each end, in the order in which they first come. */
function amounts(flows: readonly Flow[], side: 'from' | 'to'): Map<string, number> {
  const sums = new Map<string, number>()
  for (const flow of flows) sums.set(flow[side], (sums.get(flow[side]) ?? 0) + flow.amount)
  return sums
}

/** The outline of a band between two columns, for an SVG path: level at both ends. */
export function bandPath({ left, right, width }: Band, from: number, to: number): string {
  const middle = (from + to) / 2
  const curve = (x: number, y: number, toX: number, toY: number) =>
    `${x} ${y}C${middle} ${y} ${middle} ${toY} ${toX} ${toY}`
  return `M${curve(from, left, to, right)}L${curve(to, right + width, from, left + width)}Z`
}
