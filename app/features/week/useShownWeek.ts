import { SAFE_SEATS } from '#core/find'
import {
  changesSince,
  clashesWith,
  figuresOf,
  ribbonOf,
  sectionsOf,
  shortWays,
  studyHours,
  type Option,
  type Section
} from '#core/week'
import { clockTime, dayMonth, duration } from '#shared/when'
import { count, creditsText, moneyText } from '#shared/words'

/** What stands in the week beside an option that is looked at: what it would replace steps aside. */
function usePreviewed(
  preview: Ref<Option | undefined>,
  [held, picked]: readonly [Ref<Section[]>, Ref<Section[]>]
) {
  const weeks = useWeeks()
  const isThere = (option: Option) =>
    sectionsOf(option).every((s) => [...held.value, ...picked.value].some((p) => p.code === s.code))
  const shownPreview = computed(() => {
    const option = preview.value
    return option && !isThere(option) && !weeks.isFixed(option.course) ? sectionsOf(option) : []
  })
  const beside = (list: Section[]) =>
    shownPreview.value.length ? list.filter((s) => s.course !== preview.value!.course) : list
  const shownPicked = computed(() => beside(picked.value))
  const shownHeld = computed(() => beside(held.value))
  return { shownPreview, shownPicked, shownHeld }
}

/** What the week comes to, in a line, and what its drawing needs to be read. */
function useWeekSummary(week: Ref<readonly Section[]>, wanted: () => readonly Section[]) {
  const standing = useStanding()
  const mains = computed(() => week.value.filter((s) => s.parent === null))
  const summary = computed(() => {
    const { days, firstStart, lastEnd, between, campusChanges } = figuresOf(week.value, standing.holidays)
    const credits = mains.value.reduce((sum, s) => sum + s.credits, 0)
    const fees = week.value.reduce((sum, one) => sum + one.fee, 0)
    const risky = wanted().filter((one) => one.capacity - one.taken < SAFE_SEATS).length
    const parts = [creditsText(credits), count(days, 'day')]
    if (firstStart !== null) parts.push(`${clockTime(firstStart)} to ${clockTime(lastEnd!)}`)
    parts.push(`${duration(between)} between classes`)
    parts.push(`${studyHours(mains.value)} h study`)
    if (campusChanges) parts.push(count(campusChanges, 'campus change'))
    if (fees) parts.push(`fees ${moneyText(fees)}`)
    if (risky) parts.push(`${risky} at risk`)
    return parts.join(' · ')
  })
  const note = computed(() => {
    const holidays = standing.term?.holidays ?? []
    const halves = week.value.some((s) => s.half !== 'full')
      ? 'upper lane first half · lower lane second half · '
      : ''
    return `${halves}no classes ${holidays.map((h) => dayMonth(h.date)).join(', ')}`
  })
  return { summary, note }
}

/** The week on screen: what is held and picked as the seats stand now, with an option that is looked at among it. */
export function useShownWeek(
  sections: Ref<readonly Section[]>,
  preview: Ref<Option | undefined>,
  travel: (from: string, to: string) => number | undefined
) {
  const standing = useStanding()
  const weeks = useWeeks()

  /** Sections as the seats stand now, where they are read; picked ones that are not among them as they came. */
  const fresh = computed(() => new Map(sections.value.map((one) => [one.code, one])))
  const now = (list: readonly Section[]) => list.map((one) => fresh.value.get(one.code) ?? one)
  const held = computed(() => now(weeks.week.staying))
  const picked = computed(() => now(weeks.picked))
  const week = computed(() => [...held.value, ...picked.value])
  const shown = usePreviewed(preview, [held, picked])
  const clashesAmong = (list: readonly Section[]) =>
    list.flatMap((s) => clashesWith({ course: s.course, sections: [s] }, list, standing.holidays))
  const clashing = computed(
    () =>
      new Set<string>(
        clashesAmong([...shown.shownHeld.value, ...shown.shownPicked.value, ...shown.shownPreview.value]).map(
          (c) => c.own.code
        )
      )
  )
  /** One scale of hours for the ribbon and every option, so that they line up. */
  const scale = computed(() => {
    const { from, to } = ribbonOf([...week.value, ...sections.value.filter((one) => !one.officeOnly)])
    return { from, to }
  })
  const ways = computed(() => shortWays(week.value, travel, standing.holidays))
  const since = computed(() => {
    const then = weeks.draft?.asPicked ?? {}
    return new Map(
      now(weeks.week.wanted).map((one) => [one.code as string, changesSince(one, then[one.code] ?? null)])
    )
  })
  return {
    ...{ now, held, picked, week, clashesAmong, clashing, scale, ways, since },
    ...shown,
    ...useWeekSummary(week, () => now(weeks.week.wanted))
  }
}
