import { refusalText, runTitleText } from '#shared/registration/texts'

/** The button of a run sheet: what it would do, why it cannot, and what it sends. */
export function useRunButton(
  { sheet, opened, closed, lines, ready, prepared, chosen, inLine, drops }: ReturnType<typeof useRunSheet>,
  { run, mayRun }: Pick<ReturnType<typeof useRun>, 'run' | 'mayRun'>
) {
  const student = useStudent()
  const college = useCollege()
  const standing = useStanding()
  /** How the student agreed, where the registrar registers for them. */
  const consent = ref('')
  const forThem = computed(() => mayRun.value && !student.own)
  /** Chosen lines that end in a seat, as far as can be said. */
  const seatsToCome = computed(() => chosen.value.filter((line) => !inLine.value.includes(line)))

  /** Courses whose seats go with them. */
  const gone = computed(
    () => new Set([...drops.value, ...seatsToCome.value.flatMap((line) => line.givesUp ?? [])])
  )

  /** Everything but the time itself stands in the way; the clock on the button, or a permission to be late, says the time. */
  const blocking = computed(
    () =>
      sheet.value?.general.filter(
        (one) => !(one.code === 'notOpen' && opened.value) && one.code !== 'closed'
      ) ?? []
  )
  const disabledWhy = computed(() => {
    if (!mayRun.value) return 'Only the student registers here.'
    if (closed.value && !chosen.value.length) return standing.closedWhy
    const first = blocking.value[0]
    if (first) return student.say(refusalText(first, college.zone))
    if (drops.value.size) return undefined
    if (!ready.value.length)
      return lines.value.some((line) => line.state === 'unsettled')
        ? 'No line is ready: pick sections on the Week first.'
        : 'Nothing is left to register.'
    if (!chosen.value.length) return 'No line is chosen.'
    return forThem.value && consent.value.trim().length < 5 ? 'Say how the student agreed to it.' : undefined
  })
  /** What the button does, in so many words. */
  const act = computed(() => {
    const exchanges = chosen.value.filter((line) => line.givesBack.length).length
    const waiting = inLine.value.length
    const fresh = chosen.value.length - exchanges - waiting
    const title = runTitleText({
      drop: drops.value.size,
      register: fresh,
      exchange: exchanges,
      wait: waiting
    })
    return title ?? 'Register 0'
  })
  function press() {
    if (disabledWhy.value) return
    void run({
      courses: chosen.value.map((line) => line.course),
      drop: [...drops.value],
      whole: prepared.value.whole && chosen.value.length > 1,
      ...(forThem.value ? { consent: consent.value.trim() } : {})
    })
  }

  return { consent, forThem, seatsToCome, gone, disabledWhy, act, press }
}
