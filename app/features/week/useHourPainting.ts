import type { Weekday } from '#core/time'

export interface PaintedHours {
  days: Weekday[]
  /** Minutes after midnight, half-open, by quarters of an hour. */
  start: number
  end: number
}
interface Point {
  day: Weekday
  at: number
}

const QUARTER = 15

/** Hours painted on a week whose days are rows: from where the pointer went down to where it is now. */
export function useHourPainting(
  list: Readonly<Ref<HTMLElement | undefined | null>>,
  rows: Readonly<Ref<readonly Weekday[]>>,
  scale: () => { from: number; span: number },
  done: (hours: PaintedHours) => void
) {
  const painted = ref<{ from: Point; to: Point }>()
  function pointAt(event: PointerEvent): Point | undefined {
    const lanes = [...(list.value?.querySelectorAll<HTMLElement>('.lane') ?? [])]
    const boxes = lanes.map((lane) => lane.getBoundingClientRect())
    const first = boxes[0]
    if (!first) return undefined
    const row = boxes.findIndex((box) => event.clientY < box.bottom)
    const part = Math.max(0, Math.min(1, (event.clientX - first.left) / first.width))
    const { from, span } = scale()
    return { day: rows.value[row < 0 ? rows.value.length - 1 : row]!, at: from + part * span }
  }
  const area = computed((): PaintedHours | undefined => {
    if (!painted.value) return undefined
    const { from, to } = painted.value
    const [first, last] = [Math.min(from.day, to.day), Math.max(from.day, to.day)]
    const start = Math.floor(Math.min(from.at, to.at) / QUARTER) * QUARTER
    const end = Math.max(start + QUARTER, Math.ceil(Math.max(from.at, to.at) / QUARTER) * QUARTER)
    return { days: rows.value.filter((day) => day >= first && day <= last), start, end }
  })
  function begin(event: PointerEvent) {
    if (event.button !== 0) return
    const from = pointAt(event)
    if (!from) return
    event.preventDefault()
    ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
    painted.value = { from, to: from }
  }
  function goOn(event: PointerEvent) {
    const to = painted.value && pointAt(event)
    if (to) painted.value = { ...painted.value!, to }
  }
  function end() {
    const hours = area.value
    painted.value = undefined
    if (hours) done(hours)
  }
  function cancel() {
    painted.value = undefined
  }
  return { area, begin, goOn, end, cancel }
}
