import { sectionsOf, type Option } from '#core/week'
import type { JudgedOption, OptionCourse } from './useWeekOptions'

/** Picks an option with what goes along with it, gives it back, or moves others out of its way. */
export function useOptionPicking(
  rows: Ref<readonly OptionCourse[]>,
  alongWith: (option: Option) => Option[],
  preview: Ref<Option | undefined>
) {
  const weeks = useWeeks()
  const student = useStudent()
  const standing = useStanding()
  const suggestionChanges = useSuggestionChanges()
  const notice = useNotice()

  function pick({ option, picked: there, yours }: JudgedOption) {
    if (!student.own) {
      preview.value = undefined
      const codes = sectionsOf(option).map((one) => one.code)
      void suggestionChanges.suggestSections(standing.term!.code, option.course, codes)
      return
    }
    if (yours) {
      preview.value = undefined
      void weeks.keepSeat(option.course)
      return
    }
    const along = alongWith(option)
    const all = [option, ...along]
    preview.value = undefined
    void weeks.pick(all.map((one) => ({ course: one.course, option: there ? undefined : one })))
  }
  function repair({ option, repair: found }: JudgedOption) {
    if (!found) return
    preview.value = undefined
    const before = found.moves.map(({ from }) => ({ course: from.course, option: from }))
    const old = rows.value.find((row) => row.course === option.course)?.open.find((one) => one.picked)?.option
    void weeks
      .pick([
        { course: option.course, option },
        ...found.moves.map(({ to }) => ({ course: to.course, option: to }))
      ])
      .then((done) => {
        if (done)
          notice.say(
            `${option.course} is picked; ${found.moves.map(({ to }) => to.course).join(' and ')} moved.`,
            {
              title: 'Undo',
              act: () => weeks.pick([{ course: option.course, option: old }, ...before]),
              holds: weeks.untilPicked()
            }
          )
      })
  }

  return { pick, repair }
}
