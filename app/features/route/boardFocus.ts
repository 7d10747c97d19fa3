/** Walking a board with the arrow keys. */

/** Moves the focus to the nearest course in that direction. @returns whether there is one */
export function walk(board: HTMLElement, key: string): boolean {
  const here = document.activeElement as HTMLElement | null
  if (!here || !board.contains(here)) return false
  const from = here.getBoundingClientRect()
  const center = (r: DOMRect) => [r.left + r.width / 2, r.top + r.height / 2] as const
  const [x, y] = center(from)
  let best: { element: HTMLElement; far: number } | undefined
  for (const element of board.querySelectorAll<HTMLElement>('td button')) {
    const [ox, oy] = center(element.getBoundingClientRect())
    const along = { ArrowLeft: x - ox, ArrowRight: ox - x, ArrowUp: y - oy, ArrowDown: oy - y }[key]!
    const across = key === 'ArrowLeft' || key === 'ArrowRight' ? Math.abs(oy - y) : Math.abs(ox - x)
    if (along < 8) continue
    const far = along + across * 3
    if (!best || far < best.far) best = { element, far }
  }
  best?.element.focus()
  return best !== undefined
}
