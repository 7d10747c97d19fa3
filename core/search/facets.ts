/**
 * Filters whose price is known. One pass over the items; an item that fails exactly one test is what
 * that test alone hides, so dropping it brings back just those.
 */

export interface Faceted<T, K> {
  /** What passes every test, in the order given. */
  kept: T[]
  /** For each test, how many more would be kept without it. */
  excluded: ReadonlyMap<K, number>
  /** The test whose removal brings back most, the first of equals; undefined when none brings anything. */
  costliest: K | undefined
}

export function filterByFacets<T, K>(
  items: readonly T[],
  tests: ReadonlyMap<K, (item: T) => boolean>
): Faceted<T, K> {
  const excluded = new Map<K, number>([...tests.keys()].map((key) => [key, 0]))
  const kept: T[] = []
  for (const item of items) {
    let failed: K | undefined
    let failures = 0
    for (const [key, test] of tests) {
      if (test(item)) continue
      failed = key
      if (++failures > 1) break
    }
    if (failures === 0) kept.push(item)
    else if (failures === 1) excluded.set(failed!, excluded.get(failed!)! + 1)
  }
  let costliest: K | undefined
  for (const [key, n] of excluded)
    if (n > (costliest === undefined ? 0 : excluded.get(costliest)!)) costliest = key
  return { kept, excluded, costliest }
}
