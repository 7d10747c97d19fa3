/** How many weeks fit, exactly: course by course, with what leaves the same options open taken together. */
import { openOptions, optionsByCourse, OptionSet, type FindProblem } from './problem'

/** Sets of open options that are kept at once, at most. */
const STATES = 200_000

/** The number of weeks; undefined where that is more work, or a larger number, than can be had exactly. */
export function countWeeks(problem: FindProblem, most = STATES): number | undefined {
  const { options, groups } = problem
  const clashes = options.map((one) => OptionSet.of(options.length, one.clashes))
  const ofCourse = optionsByCourse(problem)
  const order = groups.flatMap((group, g) =>
    group.courses.map((course, i) => ({ course, g, last: group.courses.length - i - 1 }))
  )
  let states = new Map<string, { open: OptionSet; wanted: number; n: number }>()
  const add = (to: typeof states, open: OptionSet, { wanted, n }: { wanted: number; n: number }): void => {
    const key = `${wanted} ${open.key}`
    const known = to.get(key)
    if (known) known.n += n
    else to.set(key, { open, wanted, n })
  }
  add(states, openOptions(problem), { wanted: groups[0]?.take ?? 0, n: 1 })
  for (const [i, { course, g, last }] of order.entries()) {
    const next: typeof states = new Map()
    const own = OptionSet.of(options.length, ofCourse[course]!)
    for (const { open, wanted, n } of states.values()) {
      const rest = open.without(own)
      if (wanted <= last) add(next, rest, { wanted, n })
      if (wanted > 0)
        for (const o of ofCourse[course]!)
          if (open.has(o)) add(next, rest.without(clashes[o]!), { wanted: wanted - 1, n })
    }
    if (next.size > most) return undefined
    states = next
    if (order[i + 1] && order[i + 1]!.g !== g) {
      // The group is settled; the next one begins.
      const begun: typeof states = new Map()
      for (const { open, wanted, n } of states.values())
        if (wanted === 0) add(begun, open, { wanted: groups[order[i + 1]!.g]!.take, n })
      states = begun
    }
  }
  let total = 0
  for (const { wanted, n } of states.values()) if (wanted === 0) total += n
  return Number.isSafeInteger(total) ? total : undefined
}
