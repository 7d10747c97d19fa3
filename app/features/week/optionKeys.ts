/** Arrows go from option to option of a course, and from a course to the next that has some. */
export function toNextOption(event: KeyboardEvent): void {
  const side = { ArrowRight: 1, ArrowLeft: -1 }[event.key]
  const down = { ArrowDown: 1, ArrowUp: -1 }[event.key]
  if (!side && !down) return
  const here = (event.target as HTMLElement).closest<HTMLElement>('.choose')
  if (!here) return
  const list = here.closest('.options')
  const cards = [...(list?.querySelectorAll<HTMLElement>('.choose') ?? [])]
  const lists = [...document.querySelectorAll<HTMLElement>('.options')].filter((one) =>
    one.querySelector('.choose')
  )
  const next = side
    ? cards[cards.indexOf(here) + side]
    : lists[lists.indexOf(list as HTMLElement) + down!]?.querySelector<HTMLElement>('.choose')
  if (next) {
    event.preventDefault()
    next.focus()
  }
}
