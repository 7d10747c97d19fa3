import type { Must } from '#shared/week/finding'
import { conflictText, daysAndHours } from '#shared/week/texts'
import { count } from '#shared/words'

/** What cannot hold together: one by one, and in a sentence. */
function useMustConflict(mustText: (must: Must) => string) {
  const standing = useStanding()
  const finding = useFinding()
  /** What cannot hold together, one by one. */
  const inConflict = computed((): Must[] => {
    const { kept = [], groups = [] } = finding.counted?.conflict ?? {}
    return [
      ...kept.map((number): Must => ({ kind: 'kept', number })),
      ...groups
        .filter(
          (number) => !finding.groups[number]?.courses.some((course) => standing.heldCourses.has(course))
        )
        .map((number): Must => ({ kind: 'group', number }))
    ]
  })
  const conflict = computed(() => {
    const found = finding.counted?.conflict
    return (
      found &&
      conflictText({
        courses: found.groups.map((number) => mustText({ kind: 'group', number })),
        hours: found.kept.map((number) => finding.hard[number]?.name ?? '')
      })
    )
  })
  return { inConflict, conflict }
}

/** What must hold of the weeks that are found: in words, what each of it takes away, and what cannot hold together. */
export function useMusts() {
  const standing = useStanding()
  const finding = useFinding()

  const withoutOf = (must: Must) =>
    finding.counted?.without.find((one) => JSON.stringify(one.must) === JSON.stringify(must))
  function mustText(must: Must): string {
    if (must.kind === 'kept') {
      const one = finding.hard[must.number]
      return one ? `${one.name}, ${daysAndHours(one)} kept free` : ''
    }
    if (must.kind === 'fixed') {
      const one = finding.sections.find((other) => other.code === must.section)
      return one ? `${one.course} stays ${one.number}` : must.section
    }
    if (must.kind === 'travel') return 'Time to get from campus to campus'
    if (must.kind === 'seats') return 'A seat left in every section'
    const group = finding.groups[must.number]
    return !group
      ? ''
      : group.courses.length === 1
        ? group.courses[0]!
        : `${group.take} of ${group.courses.join(', ')}`
  }
  const isHeld = (must: Must) =>
    must.kind === 'fixed' && standing.heldSections.some((one) => one.code === must.section)
  /** What would open more weeks, the most first; seats that are held are not let go here. */
  const openers = computed(() => {
    const fit = finding.counted?.fit ?? 0
    return (finding.counted?.without ?? [])
      .filter((one) => !isHeld(one.must) && (one.fit === undefined || one.fit > fit))
      .sort((a, b) => (b.fit ?? Infinity) - (a.fit ?? Infinity))
  })
  const takesAway = (must: Must): string => {
    const fit = finding.counted?.fit
    const without = withoutOf(must)
    if (!without || fit === undefined) return ''
    return without.fit === undefined
      ? 'takes away more than can be counted'
      : `takes away ${count(without.fit - fit, 'week')}`
  }
  return { mustText, takesAway, openers, ...useMustConflict(mustText) }
}
