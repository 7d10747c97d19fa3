import { until, useSessionStorage, useTimeoutFn } from '@vueuse/core'
import type { CourseCode, TermCode } from '#core/ids'
import type { Receipt } from '#shared/registration/responses'

/** What a run is to do. */
export interface RunLinesAsked {
  courses?: CourseCode[]
  drop?: CourseCode[]
  leave?: CourseCode[]
  whole?: boolean
  /** How the student agreed, where somebody else registers. */
  consent?: string
}

/** A run, or the answer to an offer, under the key by which it is one however often it is asked for. */
interface AskedRun {
  key: string
  student: number
  term: TermCode
  path: string
  body: object
}

/** The run that was asked for and has no answer yet; it outlasts a reload and a change of places. */
const useAskedRun = () =>
  useSessionStorage<AskedRun | null>('ridgeway.asked', null, {
    serializer: { read: (text) => JSON.parse(text) as AskedRun | null, write: JSON.stringify }
  })

/** Asks for a run from elsewhere, and goes to Register, which makes it and shows its receipt. */
export function useRunFromElsewhere() {
  const student = useStudent()
  const standing = useStanding()
  const asked = useAskedRun()
  return async (lines: RunLinesAsked) => {
    const { id } = student.view!.student
    const term = standing.term!.code
    // One that is on its way is answered first.
    asked.value ??= { key: newKey(), student: id, term, path: 'runs', body: { term, ...lines } }
    await navigateTo(`/students/${id}/register`)
  }
}

const FIRST_WAIT_MS = 500
const LONGEST_WAIT_MS = 8_000

/** Its answer did not arrive, so what came of it is not known. */
const isLost = ({ status }: Failure) => status === 0 || status === 429 || status >= 500

/** Waits until what was changed just before has been sent: it belongs to a run. */
async function sentBefore(): Promise<void> {
  const student = useStudent()
  await until(() => Boolean(student.onTheWay?.pending.length) && student.onTheWay?.state === 'sending').toBe(
    false
  )
}

/** The run on its way, as far as it is of what is on screen. */
function useRunOnScreen(asked: Ref<AskedRun | null>) {
  const student = useStudent()
  const standing = useStanding()
  const mayRun = computed(() => student.own || student.view?.relation === 'registrar')
  /** The run of the student and term on screen that has no answer yet. */
  const mine = computed(() => {
    const run = asked.value
    const isHere = run?.student === student.view?.student.id && run?.term === standing.term?.code
    return run && isHere && mayRun.value ? run : null
  })
  return { mine, mayRun }
}

/**
 * Makes a run. Where its answer does not arrive the same run is asked for again, over a reload too, until it does: the
 * receipt says what came of it, and no line is tried twice.
 */
export function useRun(after: () => Promise<void>) {
  const student = useStudent()
  const standing = useStanding()
  const asked = useAskedRun()
  const { mine, mayRun } = useRunOnScreen(asked)
  const running = computed(() => mine.value !== null)
  const receipt = shallowRef<Receipt>()
  const message = ref<string>()
  let wait = FIRST_WAIT_MS
  let sending = false

  async function send() {
    const run = mine.value
    if (!run || sending) return
    sending = true
    try {
      await sentBefore()
      const { path, body, key } = run
      const answer = await api<Receipt>(`/api/students/${run.student}/${path}`, { method: 'POST', body, key })
      if (mine.value?.key === key) receipt.value = answer
      message.value = undefined
      await after()
      asked.value = null
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      if (isLost(error)) return askAgain()
      asked.value = null
      message.value = error.message
    } finally {
      sending = false
    }
  }
  const again = useTimeoutFn(send, () => wait, { immediate: false })
  function askAgain() {
    message.value =
      'No answer of this run has arrived, so it is not known yet what is registered. It is asked for again; leave this page open.'
    again.start()
    wait = Math.min(LONGEST_WAIT_MS, wait * 2)
  }

  async function ask(path: string, body: object) {
    if (running.value) return
    wait = FIRST_WAIT_MS
    message.value = undefined
    const { id } = student.view!.student
    asked.value = { key: newKey(), student: id, term: standing.term!.code, path, body }
    await send()
  }
  const run = (lines: RunLinesAsked) => ask('runs', { term: standing.term!.code, ...lines })
  const answer = (offer: number, given: 'accept' | 'decline', givingUp: CourseCode[] = []) =>
    ask(`offers/${offer}`, { answer: given, givingUp })
  // Of a page or a term that was left before the answer came.
  watch([() => student.view?.student.id, () => standing.term?.code], () => {
    receipt.value = undefined
    message.value = undefined
  })
  // Of this page before a reload, or asked for elsewhere.
  watch(
    () => mine.value?.key,
    (key) => key && void send(),
    { immediate: true }
  )
  return { run, answer, running, receipt, message, mayRun }
}
