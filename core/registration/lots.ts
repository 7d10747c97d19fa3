/**
 * Things in an order drawn by lot: each order is as likely as any other, as long as `below` draws evenly.
 *
 * Source: D. E. Knuth, The Art of Computer Programming, volume 2, algorithm P (from memory).
 *
 * @param below an integer of at least 0 and below the one given, which is at least 1
 */
export function drawLots<Thing>(things: readonly Thing[], below: (bound: number) => number): Thing[] {
  const drawn = [...things]
  for (let left = drawn.length; left > 1; left--) {
    const at = below(left)
    ;[drawn[left - 1], drawn[at]] = [drawn[at]!, drawn[left - 1]!]
  }
  return drawn
}
