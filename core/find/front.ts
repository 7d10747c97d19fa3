/** What nothing beats: of points with two values each, of which less is better, those no other is as good as in both. */

/** Numbers of the points, by their first value; of points that are alike all. */
export function unbeaten(points: readonly (readonly [number, number])[]): number[] {
  const order = points.map((_, i) => i).sort((a, b) => compare(points[a]!, points[b]!) || a - b)
  const found: number[] = []
  for (const i of order) {
    const last = found.at(-1)
    if (last === undefined || points[i]![1] < points[last]![1] || compare(points[i]!, points[last]!) === 0)
      found.push(i)
  }
  return found
}

const compare = (a: readonly [number, number], b: readonly [number, number]) => a[0] - b[0] || a[1] - b[1]
