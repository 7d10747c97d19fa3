import {
  draggable,
  dropTargetForElements,
  monitorForElements
} from '@atlaskit/pragmatic-drag-and-drop/element/adapter'
import { combine } from '@atlaskit/pragmatic-drag-and-drop/combine'

interface Arranged<Thing> {
  things: () => readonly Thing[]
  isFixed: () => boolean
  change: (next: Thing[]) => void
  /** Tells the new order at each step of a drag, too. */
  atOnce?: boolean
}

/**
 * A list that is put in order by dragging and by keys: its elements carry their place as `data-place`, and each has a
 * grip that the keys are pressed on. `change` is told the new order; while something is dragged, at each step where
 * `atOnce` is set, else when it is let go.
 */
export function useArranging<Thing>(
  list: Ref<HTMLElement | undefined>,
  { things, isFixed, change, atOnce = false }: Arranged<Thing>
) {
  /** The place of what is dragged. */
  const lifted = ref<number>()
  /** As they lie while one is dragged. */
  const lying = shallowRef<readonly Thing[]>()
  const shown = computed(() => lying.value ?? things())
  const own = Symbol('list')
  const placeOf = (element: Element) => Number((element as HTMLElement).dataset.place)

  let end: (() => void) | undefined
  function arrange() {
    end?.()
    const elements = isFixed() ? [] : [...(list.value?.querySelectorAll<HTMLElement>('[data-place]') ?? [])]
    end = combine(
      ...elements.flatMap((element) => [
        draggable({ element, getInitialData: () => ({ own, place: placeOf(element) }) }),
        dropTargetForElements({ element, getData: () => ({ over: placeOf(element) }) })
      ]),
      monitorForElements({
        canMonitor: ({ source }) => source.data.own === own,
        onDragStart: ({ source }) => {
          lifted.value = source.data.place as number
          lying.value = things()
        },
        onDropTargetChange: ({ location }) => {
          const over = location.current.dropTargets[0]?.data.over
          if (typeof over !== 'number' || lifted.value === undefined || over === lifted.value) return
          lying.value = moved(lying.value!, lifted.value, over)
          lifted.value = over
          if (atOnce) change([...lying.value])
        },
        onDrop: () => {
          const next = lying.value
          if (!atOnce && next && next.some((one, i) => one !== things()[i])) change([...next])
          lifted.value = undefined
          lying.value = undefined
        }
      })
    )
  }
  watch([list, () => things().length, isFixed], arrange, { flush: 'post', immediate: true })
  onUnmounted(() => end?.())

  /** Moves what stands at a place by so many, and keeps the focus on its grip. */
  async function step(from: number, by: number) {
    const to = from + by
    if (to < 0 || to >= things().length) return
    change(moved(things(), from, to))
    await nextTick()
    list.value?.querySelector<HTMLElement>(`[data-place="${to}"] .grip`)?.focus()
  }
  return { shown, lifted, step }
}

function moved<Thing>(things: readonly Thing[], from: number, to: number): Thing[] {
  const next = [...things]
  next.splice(to, 0, ...next.splice(from, 1))
  return next
}
