/** What somebody of the crowd wants: sections as people choose them, with what they would take instead. */
import type { CourseCode, SectionCode } from '#core/ids'
import { clashesWith, optionsAmong, seatsLeft, sectionsOf, type Option, type Section } from '#core/week'
import type { Fallback } from '#shared/registration/fallbacks'

export interface Wish {
  course: CourseCode
  sections: SectionCode[]
  fallbacks: Fallback[]
}

const NINE = 9 * 60
const FOUR = 16 * 60
/** So many of a hundred name another section, and so many a place in line. */
const OTHERS = 0.5
const LINES = 0.4

/** Few want early mornings, evenings and Fridays; tastes differ by as much as two of those. */
function dislike(option: Option, random: () => number): number {
  const meetings = sectionsOf(option).flatMap((one) => one.meetings)
  const early = meetings.some((one) => one.start < NINE)
  const late = meetings.some((one) => one.end > FOUR)
  const friday = meetings.some((one) => one.days.includes(5))
  return Number(early) + Number(late) + Number(friday) + 2 * random()
}

/** Sections for as many of the courses as fit together, in this order. */
export function wishesFor(
  courses: readonly CourseCode[],
  offer: readonly Section[],
  holidays: ReadonlySet<number>,
  random: () => number
): Wish[] {
  const week: Section[] = []
  const wishes: Wish[] = []
  for (const course of courses) {
    const options = optionsAmong(
      offer.filter((one) => one.course === course),
      holidays
    )
      .filter((option) => sectionsOf(option).every((one) => !one.officeOnly && !one.cancelled))
      .filter((option) => !clashesWith({ course, sections: sectionsOf(option) }, week, holidays).length)
      .map((option) => ({ option, dislike: dislike(option, random) + (seatsLeft(option) > 0 ? 0 : 4) }))
      .sort((a, b) => a.dislike - b.dislike)
    const [first, second] = options
    if (!first) continue
    const codes = ({ option }: { option: Option }) => sectionsOf(option).map((one) => one.code)
    week.push(...sectionsOf(first.option))
    wishes.push({
      course,
      sections: codes(first),
      fallbacks: [
        ...(second && random() < OTHERS ? [{ kind: 'sections' as const, sections: codes(second) }] : []),
        ...(random() < LINES ? [{ kind: 'line' as const }] : [])
      ]
    })
  }
  return wishes
}
