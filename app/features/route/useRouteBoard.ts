import type { AreaResult, Attempt, Audit, NeedResult, PlannedCourse } from '#core/degree'
import type { Finding } from '#core/findings'
import { slackOf, type Slack } from '#core/route'
import { OUTSIDE_HUE, type AreaHue } from '#shared/tokens'
import { areaKey } from '~/ui/useHues'
import { keyOf } from './filling'

export interface BoardCourse {
  attempt: Attempt
  title: string
  /** Another area in which it counts as well. */
  also: string | undefined
  finding: boolean
  /** Proposed by filling, not on the route yet. */
  proposed: boolean
  /** It could stand in no other term without moving the finish or what waits for it. */
  tight: boolean
  note: string | null
  locked: boolean
  /** What it counts toward. */
  need: NeedResult | undefined
}

export interface BoardRow {
  key: string
  title: string
  hue: AreaHue
  /** Undefined for what lies outside. */
  area: AreaResult | undefined
  courses: BoardCourse[]
  open: NeedResult[]
}

/** Courses as they stand on the board, with what is known of each. */
function useBoardCourses(findings: Ref<readonly Finding[]>, slack: Ref<ReadonlyMap<string, Slack>>) {
  const student = useStudent()
  const college = useCollege()
  const filling = useFilling()
  const withFinding = computed(
    () => new Set(findings.value.flatMap((f) => ('course' in f ? [`${f.course} ${f.term}`] : [])))
  )

  /** While a proposal is looked at, what of it is kept. */
  const proposed = computed(() => (filling.proposal ? filling.kept : new Set<string>()))
  const onRoute = computed(
    () => new Map((student.view?.route.courses ?? []).map((planned) => [keyOf(planned), planned]))
  )

  function boardCourse(attempt: Attempt, also?: string, need?: NeedResult): BoardCourse {
    const planned = attempt.term
      ? onRoute.value.get(keyOf({ course: attempt.course, term: attempt.term }))
      : undefined
    return {
      attempt,
      title: college.catalogContext?.catalog.maybeCourse(attempt.course)?.title ?? '',
      also,
      finding: withFinding.value.has(`${attempt.course} ${attempt.term}`),
      proposed: proposed.value.has(keyOf({ course: attempt.course, term: attempt.term! })),
      tight: isTight(slack.value.get(attempt.course), attempt.term),
      note: planned?.note ?? null,
      locked: planned?.locked ?? false,
      need
    }
  }
  return boardCourse
}

/** The matrix: requirement areas down, terms across, every course once; `past` terms too, or folded into one. */
export function useRouteBoard(past = ref(false)) {
  const student = useStudent()
  const { hues } = useHues()
  const filling = useFilling()
  const suggestions = useSuggestions()
  /** With what is kept of a proposal, while there is one. */
  const reading = computed(() => filling.preview ?? student.reading)

  const findings = computed(() => reading.value?.findings ?? [])
  /** By planned course, how far it could move. */
  const slack = computed(() =>
    reading.value
      ? new Map(slackOf(reading.value.context).map((one) => [one.course, one]))
      : new Map<string, Slack>()
  )

  const boardCourse = useBoardCourses(findings, slack)

  const rows = computed((): BoardRow[] => {
    const now = reading.value
    if (!now) return []
    const shown = new Set<string>()
    const found: BoardRow[] = []
    now.audits.forEach((audit: Audit, i) => {
      const later = now.audits.slice(i + 1)
      for (const area of audit.areas) {
        const courses = area.needs
          .flatMap((need) => need.evidence)
          .filter((attempt) => !shown.has(attempt.key))
        for (const attempt of courses) shown.add(attempt.key)
        found.push({
          key: areaKey(audit, area.area.id),
          title: i === 0 ? area.area.title : `${area.area.title}, ${audit.program.spec.shortTitle}`,
          hue: hues.value.get(areaKey(audit, area.area.id))!,
          area,
          courses: courses.map((t) =>
            boardCourse(
              t,
              later.find((a) => a.whereItCounts.has(t.key))?.program.spec.shortTitle,
              audit.whereItCounts.get(t.key)
            )
          ),
          open: area.needs.filter((need) => need.state === 'needed')
        })
      }
    })
    const outside = now.attempts.counted.filter((t) => !shown.has(t.key)).map((t) => boardCourse(t))
    const courses = [...outside, ...now.attempts.repeats.map((p) => boardCourse(repeated(p)))]
    return courses.length || suggestions.hasOutside ? [...found, outsideRow(courses)] : found
  })

  return { rows, ...useBoardTerms(reading, past), findings, slack }
}

function isTight(slack: Slack | undefined, term: string | null): boolean {
  return slack?.earliest !== undefined && slack.earliest.code === term && slack.latest!.code === term
}

/** A course planned again beside one that counts. */
const repeated = (planned: PlannedCourse): Attempt => ({
  ...planned,
  key: `${planned.course}@${planned.term} again`,
  status: 'planned',
  grade: null,
  origin: 'here',
  detail: 'plain',
  placedByOffice: false
})

const outsideRow = (courses: BoardCourse[]): BoardRow => ({
  key: 'outside',
  title: 'Outside the degree',
  hue: { hue: OUTSIDE_HUE, doubled: false },
  area: undefined,
  courses,
  open: []
})
