/**
 * Keeps something for the views on screen that ask for it, until none is left: one may come before the other goes.
 * @returns asks for it, from the setup of a view
 */
export function heldByViews(end: () => void): () => void {
  let views = 0
  return () => {
    views++
    onUnmounted(() => {
      if (!--views) end()
    })
  }
}
