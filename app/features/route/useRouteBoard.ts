import type { TermStanding } from '#core/calendar'
import { phaseOf, type Term, type TermPhase } from '#core/catalog'
import type { AreaResult, Audit, NeedResult, Attempt } from '#core/degree'
import { slackOf, termHours, termLoad, termResult, type Slack, type TermResult } from '#core/route'
import { OUTSIDE_HUE, type AreaHue } from '#shared/tokens'
import { areaKey } from '~/ui/useHues'
import { shortDay } from '#shared/when'
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

export interface BoardTerm {
  term: Term
  phase: TermPhase
  /** Courses may still be put into it. */
  plannable: boolean
  load: number
  most: number
  hours: number
  hoursMost: number | undefined
  away: 'exchange' | 'leave' | undefined
  /** Where it stands, in a word or two. */
  note: string
  /** Of a term that is over. */
  result: TermResult | undefined
}

/** The matrix: requirement areas down, terms across, every course once; `past` terms too, or folded into one. */
export function useRouteBoard(past = ref(false)) {
  const student = useStudent()
  const college = useCollege()
  const { hues } = useHues()
  const filling = useFilling()
  const suggestions = useSuggestions()
  const summers = ref(false)
  /** With what is kept of a proposal, while there is one. */
  const reading = computed(() => filling.preview ?? student.reading)

  const findings = computed(() => reading.value?.findings ?? [])
  const withFinding = computed(
    () => new Set(findings.value.flatMap((f) => ('course' in f ? [`${f.course} ${f.term}`] : [])))
  )

  /** While a proposal is looked at, what of it is kept. */
  const proposed = computed(() => (filling.proposal ? filling.kept : new Set<string>()))
  const onRoute = computed(
    () => new Map((student.picture?.route.courses ?? []).map((planned) => [keyOf(planned), planned]))
  )

  /** By planned course, how far it could move. */
  const slack = computed(() =>
    reading.value
      ? new Map(slackOf(reading.value.context).map((one) => [one.course, one]))
      : new Map<string, Slack>()
  )

  function boardCourse(attempt: Attempt, also?: string, need?: NeedResult): BoardCourse {
    const planned = attempt.term
      ? onRoute.value.get(keyOf({ course: attempt.course, term: attempt.term }))
      : undefined
    return {
      attempt,
      title: college.shelf?.catalog.maybeCourse(attempt.course)?.title ?? '',
      also,
      finding: withFinding.value.has(`${attempt.course} ${attempt.term}`),
      proposed: proposed.value.has(keyOf({ course: attempt.course, term: attempt.term! })),
      tight: isTight(slack.value.get(attempt.course), attempt.term),
      note: planned?.note ?? null,
      locked: planned?.locked ?? false,
      need
    }
  }

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
    const repeats = now.attempts.repeats.map((p) =>
      boardCourse({
        ...p,
        key: `${p.course}@${p.term} again`,
        status: 'planned',
        grade: null,
        origin: 'here',
        detail: 'plain',
        placedByOffice: false
      })
    )
    if (outside.length || repeats.length || suggestions.hasOutside) {
      const hue = { hue: OUTSIDE_HUE, doubled: false }
      found.push({
        key: 'outside',
        title: 'Outside the degree',
        hue,
        area: undefined,
        courses: [...outside, ...repeats],
        open: []
      })
    }
    return found
  })

  const terms = computed((): BoardTerm[] => {
    const now = reading.value
    if (!now || !college.shelf) return []
    const busy = new Set(now.attempts.counted.map((t) => t.term))
    const { today, shelf } = college
    const ahead = shelf.terms.filter((t) => phaseOf(t, today) !== 'past')
    const last = Math.max(
      ahead.findLastIndex((t) => busy.has(t.code)),
      0
    )
    const regular = ahead.filter((t) => t.season !== 'summer')
    const least = ahead.indexOf(regular[Math.min(4, regular.length - 1)]!)
    const wanted = ahead.filter(
      (t, i) => i <= Math.max(last, least) && (t.season !== 'summer' || busy.has(t.code) || summers.value)
    )
    const over = past.value ? shelf.terms.filter((t) => phaseOf(t, today) === 'past' && busy.has(t.code)) : []
    return [...over, ...wanted].map((term) => {
      const phase = phaseOf(term, today)
      return {
        term,
        phase,
        plannable: now.context.plannable.has(term.code),
        load: termLoad(now.attempts, term.code),
        most: now.context.loadMost(term),
        hours: termHours(now.attempts, term.code),
        hoursMost: now.context.hoursMost?.(term),
        away: now.context.away?.get(term.code),
        note: noteOf(term, phase, now.context.away?.get(term.code)),
        result: phase === 'past' ? termResult(student.picture!.record, term.code, shelf.catalog) : undefined
      }
    })
  })

  function noteOf(term: Term, phase: TermPhase, away: BoardTerm['away']): string {
    if (phase === 'past')
      return reading.value?.standings.find((one) => one.term.code === term.code)?.state === 'gradesDue'
        ? 'grades due'
        : ''
    if (away) return `away: ${away}`
    if (reading.value?.finish?.code === term.code) return 'finish'
    return student.say(termNote(reading.value?.standings.find((one) => one.term.code === term.code)))
  }

  /** Courses of past terms, by row, folded into one column; those of no term, where past terms have their own. */
  const behind = computed(() => {
    const over = new Set(
      past.value
        ? []
        : (college.shelf?.terms ?? []).filter((t) => phaseOf(t, college.today) === 'past').map((t) => t.code)
    )
    const isBehind = (t: Attempt) => t.term === null || over.has(t.term)
    const attempts = (reading.value?.attempts.counted ?? []).filter(isBehind)
    return {
      isBehind,
      terms: new Set(attempts.flatMap((t) => t.term ?? [])).size,
      credits: attempts.reduce((sum, t) => sum + t.credits, 0)
    }
  })

  return { rows, terms, behind, summers, findings, slack }
}

/** Where a term that is not over stands for the student. */
function termNote(standing: TermStanding | undefined): string {
  if (!standing) return ''
  const { state, adding, opens } = standing
  if (state === 'underWay') return adding === 'open' ? 'under way, open for you' : 'under way'
  if (adding === 'notYet') return `opens ${shortDay(opens!, useCollege().zone)}`
  return adding === 'open' ? 'open for you' : ''
}

function isTight(slack: Slack | undefined, term: string | null): boolean {
  return slack?.earliest !== undefined && slack.earliest.code === term && slack.latest!.code === term
}
