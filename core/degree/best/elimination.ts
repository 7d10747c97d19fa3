/**
 * The order in which the exact search decides pieces: one in which few wants are active at a time.
 *
 * Greedy: next comes the item that adds least to what has to be remembered, of those that touch an
 * active want where there is one. Remembering a want is counted as the logarithm of its states. Finding
 * the best order is hard in general (it is a vertex separation); ties go to the first piece.
 */
import type { Problem } from './problem'

/** Items: pieces that a share or a demand ties together are decided together. */
export function inOrderOfFrontier(problem: Problem, inside: readonly (readonly number[])[]): number[][] {
  const items = tied(problem)
  const wantsOf = items.map((item) => [...new Set(item.flatMap((p) => problem.pieces[p]!.wants))])
  const size = problem.wants.map((want, w) => {
    const pieces = inside[w]!.length
    return 0.5 + Math.min(pieces, Math.log2(want.amount + 1))
  })
  const left = problem.wants.map(() => 0)
  for (const wants of wantsOf) for (const w of wants) left[w]!++
  const active = problem.wants.map(() => false)
  let touching = 0
  const open = new Set(items.keys())
  const order: number[][] = []
  while (open.size) {
    let chosen = -1
    let least = Infinity
    for (const i of open) {
      let adds = 0
      let touches = false
      for (const w of wantsOf[i]!) {
        if (active[w]) {
          touches = true
          if (left[w] === 1) adds -= size[w]!
        } else if (left[w]! > 1) adds += size[w]!
      }
      if (touching && !touches) continue
      if (adds < least) {
        least = adds
        chosen = i
      }
    }
    open.delete(chosen)
    order.push(items[chosen]!)
    for (const w of wantsOf[chosen]!) {
      left[w]!--
      const now = left[w]! > 0
      if (now !== active[w]) touching += now ? 1 : -1
      active[w] = now
    }
  }
  return order
}

function tied({ pieces, shares, demands = [] }: Problem): number[][] {
  const parent = pieces.map((_, p) => p)
  const find = (p: number): number => (parent[p] === p ? p : (parent[p] = find(parent[p]!)))
  const tie = ([first, ...others]: readonly number[]) => {
    for (const p of others) parent[find(p)] = find(first!)
  }
  for (const share of shares) for (const { one, other } of share.pairs) tie([...one, ...other])
  // What a demand counts once is one course.
  for (const demand of demands) {
    const ofCourse = new Map<number, number[]>()
    for (const [p, course] of demand.pieces) ofCourse.set(course, [...(ofCourse.get(course) ?? []), p])
    for (const own of ofCourse.values()) tie(own)
  }
  const groups = new Map<number, number[]>()
  pieces.forEach((_, p) => {
    const key = find(p)
    groups.set(key, [...(groups.get(key) ?? []), p])
  })
  return [...groups.values()]
}
