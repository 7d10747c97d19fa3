import { formatDayLetters } from '#core/formats'
import type { Section } from '#core/week'
import { clockTime } from '#shared/when'
import { KIND_WORDS } from '#shared/words'

/** Sections as rows of a table that is saved: one for each time at which they meet. */
export function useSectionRows() {
  const college = useCollege()
  return (one: Section, more: Readonly<Record<string, string | number>> = {}) => {
    const about = {
      Course: one.course,
      Section: one.number,
      Code: one.code,
      Kind: KIND_WORDS[one.kind],
      Title: college.catalogContext?.catalog.maybeCourse(one.course)?.title ?? '',
      Credits: one.credits,
      ...more,
      Instructors: one.instructors.join(', '),
      Campus: college.placeName(one)
    }
    const none = { Days: '', Start: '', End: '', From: '', To: '', Room: '' }
    if (!one.meetings.length) return [{ ...about, ...none }]
    return one.meetings.map((meeting) => ({
      ...about,
      Days: formatDayLetters(meeting.days),
      Start: clockTime(meeting.start),
      End: clockTime(meeting.end),
      From: meeting.from,
      To: meeting.to,
      Room: meeting.room ?? ''
    }))
  }
}
