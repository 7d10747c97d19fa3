import type { TermStanding } from '#core/calendar'
import { phaseOf, type Term, type TermPhase } from '#core/catalog'
import type { Attempt } from '#core/degree'
import { termHours, termLoad, termResult, type TermResult } from '#core/route'
import type { Reading } from '#shared/reading'
import { shortDay } from '#shared/when'

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

/** Courses of past terms, by row, folded into one column; those of no term, where past terms have their own. */
function useBehind(reading: Readonly<Ref<Reading | undefined>>, past: Readonly<Ref<boolean>>) {
  const college = useCollege()
  return computed(() => {
    const over = new Set(
      past.value
        ? []
        : (college.catalogContext?.terms ?? [])
            .filter((t) => phaseOf(t, college.today) === 'past')
            .map((t) => t.code)
    )
    const isBehind = (t: Attempt) => t.term === null || over.has(t.term)
    const attempts = (reading.value?.attempts.counted ?? []).filter(isBehind)
    return {
      isBehind,
      terms: new Set(attempts.flatMap((t) => t.term ?? [])).size,
      credits: attempts.reduce((sum, t) => sum + t.credits, 0)
    }
  })
}

/** The columns of the board: the terms ahead, and those that are over, each for itself or folded into one. */
export function useBoardTerms(reading: Readonly<Ref<Reading | undefined>>, past: Readonly<Ref<boolean>>) {
  const student = useStudent()
  const college = useCollege()
  const summers = ref(false)

  /** The terms ahead as far as something stands in them, and a few more. */
  function shownAhead(busy: ReadonlySet<string | null>): Term[] {
    const ahead = college.catalogContext!.terms.filter((t) => phaseOf(t, college.today) !== 'past')
    const last = Math.max(
      ahead.findLastIndex((t) => busy.has(t.code)),
      0
    )
    const regular = ahead.filter((t) => t.season !== 'summer')
    const least = ahead.indexOf(regular[Math.min(4, regular.length - 1)]!)
    return ahead.filter(
      (t, i) => i <= Math.max(last, least) && (t.season !== 'summer' || busy.has(t.code) || summers.value)
    )
  }

  const terms = computed((): BoardTerm[] => {
    const now = reading.value
    if (!now || !college.catalogContext) return []
    const busy = new Set(now.attempts.counted.map((t) => t.term))
    const { today, catalogContext } = college
    const over = past.value
      ? catalogContext.terms.filter((t) => phaseOf(t, today) === 'past' && busy.has(t.code))
      : []
    return [...over, ...shownAhead(busy)].map((term) => {
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
        result:
          phase === 'past' ? termResult(student.view!.record, term.code, catalogContext.catalog) : undefined
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

  return { terms, behind: useBehind(reading, past), summers }
}

/** Where a term that is not over stands for the student. */
function termNote(standing: TermStanding | undefined): string {
  if (!standing) return ''
  const { state, adding, opens } = standing
  if (state === 'underWay') return adding === 'open' ? 'under way, open for you' : 'under way'
  if (adding === 'notYet') return `opens ${shortDay(opens!, useCollege().zone)}`
  return adding === 'open' ? 'open for you' : ''
}
