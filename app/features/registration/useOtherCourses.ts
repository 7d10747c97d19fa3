import { candidatesFor } from '#core/degree'
import { choiceOf } from '#core/registration'
import { clashesWith, optionsAmong, seatsLeft, sectionsOf, type Option } from '#core/week'
import { candidateQuestion } from '#shared/degree/candidateQuestion'
import type { SheetLine } from '#shared/registration/responses'

/** As many as are suggested; each with one choice of sections. */
const MOST = 3
/** As many courses are looked at for them. */
const LOOKED_AT = 12

/** Other courses for what a line's course counts toward, that fit beside the rest of the week and have seats. */
export function useOtherCourses(line: () => SheetLine) {
  const student = useStudent()
  const college = useCollege()
  const standing = useStanding()
  const offers = useOffers()

  return computed((): Option[] => {
    const { reading } = student
    const { term, holidays } = standing
    const offer = term && offers.byTerm.get(term.code)?.sections
    // A seat that is held is exchanged within its course.
    if (!reading || !college.catalogContext || !offer || standing.heldCourses.has(line().course)) return []
    const key = reading.attempts.counted.find((one) => one.course === line().course && one.term === term.code)
    const need = key && reading.audits.map((audit) => audit.whereItCounts.get(key.key)).find(Boolean)
    if (!need) return []
    const { list } = candidatesFor(need, candidateQuestion(reading, college.catalogContext, term))
    const rest = [...standing.heldSections, ...standing.pickedSections].filter(
      (one) => one.course !== line().course
    )
    const fits = (option: Option) =>
      seatsLeft(option) > 0 &&
      sectionsOf(option).every((one) => !one.officeOnly && !one.cancelled) &&
      !clashesWith({ course: option.course, sections: sectionsOf(option) }, rest, holidays).length
    return list
      .filter((one) => one.runs && !one.missing)
      .slice(0, LOOKED_AT)
      .flatMap(({ course }) => {
        const own = optionsAmong(
          offer.filter((one) => one.course === course.code),
          holidays
        ).filter(fits)
        return own.sort((a, b) => seatsLeft(b) - seatsLeft(a)).slice(0, 1)
      })
      .slice(0, MOST)
  })
}

/** The choice that sections of a term make, of whichever course. */
export function useChoice() {
  const standing = useStanding()
  const offers = useOffers()
  return (sections: readonly string[]): Option | undefined =>
    choiceOf(offers.byTerm.get(standing.term?.code ?? '')?.sections ?? [], sections)
}
