import type { WeeksCounted, WeeksFound } from '#shared/week/finding'
import type { WeeksAsked, WeeksNews } from './weeks.worker'

/** A search for weeks in a worker of its own: what it has found so far, and how far it is. */
export function useWeekSearch() {
  const found = shallowRef<WeeksFound & { ms: number | undefined }>()
  const counted = shallowRef<WeeksCounted>()
  /** Steps of a search under way. */
  const steps = ref<number>()
  const failure = ref<string>()
  let worker: Worker | undefined
  let isBusy = false

  function send(message: WeeksAsked): void {
    if (isBusy) end()
    if (!worker) {
      worker = new Worker(new URL('./weeks.worker.ts', import.meta.url), { type: 'module' })
      worker.onmessage = ({ data }: MessageEvent<WeeksNews>) => hear(data)
      worker.onerror = () => {
        end()
        failure.value = 'Finding broke off. Try again.'
      }
    }
    isBusy = true
    steps.value = 0
    failure.value = undefined
    worker.postMessage(message)
  }
  let expectsCount = false
  function hear(news: WeeksNews): void {
    if (news.kind === 'so far') {
      steps.value = news.found.steps
      found.value = { ...news.found, ms: undefined }
    } else if (news.kind === 'best') {
      found.value = { ...news.found, ms: news.ms }
      steps.value = undefined
      isBusy = expectsCount
    } else {
      counted.value = news.counted
      isBusy = expectsCount = false
    }
  }
  function end(): void {
    worker?.terminate()
    worker = undefined
    isBusy = false
    steps.value = undefined
  }

  /** Begins anew; how many weeks there are is counted after the best are found. */
  function begin(message: WeeksAsked): void {
    counted.value = undefined
    expectsCount = true
    send(plain(message))
  }
  /** Nothing can be found. */
  function none(): void {
    end()
    found.value = { weeks: [], proved: true, steps: 0, ms: 0 }
    counted.value = undefined
  }
  /** Goes on from what is known; false where a worker that was ended, or still counts, knows nothing to go on from. */
  function goOn(message: WeeksAsked): boolean {
    if (!worker || isBusy) return false
    send(plain(message))
    return true
  }

  /** Finds for the view that asks, until none is left. */
  const hold = heldByViews(end)
  return { found, counted, steps, failure, begin, none, goOn, hold, end }
}

/** Without what makes it watched: only plain values can be sent to a worker. */
const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T
