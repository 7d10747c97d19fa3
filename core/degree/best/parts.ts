/** Parts of a question that share nothing, and the branches that can be chosen in each. */
import type { Opens, Problem } from './problem'
import type { Alternative } from './solve'

export interface Part {
  wants: number[]
  pieces: number[]
  /** Wants under no choice, and the choices. */
  root: Alternative
}

export const plus = (a: Opens, b: Opens): Opens => [
  a[0] + b[0],
  a[1] + b[1],
  a[2] + b[2],
  a[3] + b[3],
  a[4] + b[4]
]

/** Connected parts of the question, in order of their first want. */
export function partsOf(problem: Problem, root: Alternative): Part[] {
  const parent = problem.wants.map((_, w) => w)
  const find = (w: number): number => (parent[w] === w ? w : (parent[w] = find(parent[w]!)))
  const join = ([first, ...others]: readonly number[]) => {
    for (const w of others) parent[find(w)] = find(first!)
  }
  for (const piece of problem.pieces) join(piece.wants)
  for (const cap of problem.caps) join([...cap.wants])
  for (const share of problem.shares) join([...share.oneSide, ...share.otherSide])
  for (const choice of root.choices) join(choice.of.flatMap(wantsUnder))
  for (const { pieces, wants } of problem.demands ?? [])
    join([
      ...new Set([...pieces.keys()].flatMap((p) => problem.pieces[p]!.wants.filter((w) => wants.has(w))))
    ])
  const parts = new Map<number, Part>()
  const asked = new Set(wantsUnder(root))
  problem.wants.forEach((_, w) => {
    if (!asked.has(w)) return
    const key = find(w)
    if (!parts.has(key)) parts.set(key, { wants: [], pieces: [], root: { wants: [], choices: [] } })
    parts.get(key)!.wants.push(w)
  })
  problem.pieces.forEach((piece, p) => {
    if (piece.wants.length) parts.get(find(piece.wants[0]!))!.pieces.push(p)
  })
  for (const [key, part] of parts) {
    const choices = root.choices.filter((choice) => {
      const [first] = choice.of.flatMap(wantsUnder)
      return first !== undefined && find(first) === key
    })
    part.root = { wants: root.wants.filter((w) => find(w) === key), choices }
  }
  return [...parts.values()]
}

function wantsUnder(alternative: Alternative): number[] {
  return [...alternative.wants, ...alternative.choices.flatMap((choice) => choice.of.flatMap(wantsUnder))]
}

/** Every way to choose, each as its list of wants; in the program's own order. */
export function selections(alternative: Alternative): number[][] {
  let ways: number[][] = [[...alternative.wants]]
  for (const choice of alternative.choices) {
    const picked = combinations(choice.of.length, choice.least).flatMap((indices) =>
      indices.reduce<number[][]>(
        (all, i) => all.flatMap((one) => selections(choice.of[i]!).map((more) => [...one, ...more])),
        [[]]
      )
    )
    ways = ways.flatMap((one) => picked.map((more) => [...one, ...more]))
  }
  return ways
}

function combinations(n: number, k: number): number[][] {
  if (k === 0) return [[]]
  if (k > n) return []
  return [...combinations(n - 1, k - 1).map((rest) => [...rest, n - 1]), ...combinations(n - 1, k)].sort(
    (a, b) => {
      for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return a[i]! - b[i]!
      return 0
    }
  )
}
