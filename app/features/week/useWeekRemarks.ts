import type { CourseCode } from '#core/ids'
import { missingParts, type Section } from '#core/week'
import { clashText, sectionHours, sectionName, SINCE_WORDS, wayText } from '#shared/week/texts'
import { KIND_WORDS } from '#shared/words'

export interface WeekRemark {
  key: string
  text: string
  /** It keeps the week from being registered as it stands. */
  grave: boolean
}

/** Picks beside a block that has a section of their course as well. */
function useLeftBlocks(sections: Ref<readonly Section[]>, picked: Ref<readonly Section[]>) {
  return computed(() => {
    const blocks = new Set(picked.value.flatMap((one) => one.block ?? []))
    return picked.value.flatMap(({ course, block: own, parent }) =>
      parent !== null
        ? []
        : [...blocks]
            .filter(
              (block) =>
                block !== own && sections.value.some((one) => one.course === course && one.block === block)
            )
            .map((block) => ({ course, block }))
    )
  })
}

/** What is held until something else is registered in its place, or beside it. */
function useExchangeRemarks(picked: Ref<readonly Section[]>) {
  const standing = useStanding()
  const weeks = useWeeks()
  /** The sections of a course that are not in the other list, by number: what an exchange is about. */
  function namesOf(list: readonly Section[], course: CourseCode): string {
    const other = list === picked.value ? standing.heldSections : picked.value
    const own = list.filter((one) => one.course === course && !other.some((there) => there.code === one.code))
    return own
      .map((one) => `${one.kind === 'lecture' ? '' : `${KIND_WORDS[one.kind]} `}${one.number}`)
      .join(' and ')
  }
  return computed(() =>
    [...weeks.week.exchanged].map((course): WeekRemark => {
      const [given, taken] = [namesOf(standing.heldSections, course), namesOf(picked.value, course)]
      return {
        key: `exchange ${course}`,
        text: given
          ? `${course}: you hold ${given} until ${taken} is registered instead.`
          : `${course}: ${taken} is to be registered beside what you hold of it.`,
        grave: false
      }
    })
  )
}

/** What the student should know of the week on screen: one sentence each. */
export function useWeekRemarks(
  sections: Ref<readonly Section[]>,
  { now, picked, week, ways, since, clashesAmong }: ReturnType<typeof useShownWeek>
) {
  const standing = useStanding()
  const weeks = useWeeks()

  const leftBlocks = useLeftBlocks(sections, picked)
  const exchanges = useExchangeRemarks(picked)
  return computed((): WeekRemark[] => {
    const list: WeekRemark[] = []
    const seen = new Set<string>()
    for (const clash of clashesAmong(week.value)) {
      const pair = [clash.own.code, clash.with.code].sort().join()
      if (seen.has(pair)) continue
      seen.add(pair)
      list.push({ key: pair, text: `${clash.own.course} ${clashText(clash)}.`, grave: true })
    }
    for (const one of now(weeks.week.wanted))
      for (const what of since.value.get(one.code) ?? [])
        list.push({
          key: `${one.code} ${what}`,
          text: `${sectionName(one)} ${SINCE_WORDS[what]}${what === 'moved' ? `: now ${sectionHours(one)}` : ''}. Pick again, or another one.`,
          grave: what !== 'moved'
        })
    for (const [course, kinds] of missingParts(standing.heldSections, sections.value))
      if (!weeks.week.exchanged.has(course))
        list.push({
          key: `part ${course}`,
          text: `You hold ${course} without its ${kinds.map((kind) => KIND_WORDS[kind]).join(' and ')}. Exchange it for one with all its parts.`,
          grave: true
        })
    list.push(...exchanges.value)
    for (const { course, block } of leftBlocks.value)
      list.push({
        key: `block ${course}`,
        text: `${course} is apart from the rest of block ${block}.`,
        grave: false
      })
    for (const way of ways.value)
      list.push({
        key: `${way.from.code} ${way.to.code} ${way.day}`,
        text: `${wayText(way)}.`,
        grave: weeks.habits.travelHolds
      })
    return list
  })
}
