import type { RouteChange } from '#core/findings'
import type { CourseCode, SectionCode, TermCode } from '#core/ids'
import type { SuggestionsAnswer } from '#shared/advising/suggestions'
import type { Change } from '#shared/record/changes'
import { changeText } from '#shared/route/texts'
import { count } from '#shared/words'

/** Accepts or declines suggestions for the route on screen; what could not be accepted is said. */
async function answerSuggestions(
  suggestions: number[],
  answer: 'accepted' | 'declined',
  words: string | null = null
): Promise<boolean> {
  const notice = useNotice()
  const { send, sayWaits, byMe } = useChanges()
  const { id, version } = useStudent().view!.route
  const change: Change = { kind: 'answerSuggestions', route: id, suggestions, answer, words, ...byMe() }
  const outcome = await send(change, version)
  if (outcome.is === 'refused') return false
  if (outcome.is === 'waits') sayWaits(change)
  else {
    const { gone, made } = outcome.answer as SuggestionsAnswer
    const left = gone.length ? ` ${gone.length} could not be made and still wait.` : ''
    const text = `${count(suggestions.length - gone.length, 'suggestion')} ${answer}.${left}`
    if (made) notice.say(text, useRouteChanges().undoStep('Undo the last'))
    else notice.say(text)
  }
  return true
}

/** What an advisor proposes of a route and of a week, and what the student answers. */
export function useSuggestionChanges() {
  const student = useStudent()
  const college = useCollege()
  const notice = useNotice()
  const { send, make, byMe } = useChanges()

  const isWaiting = (all: readonly { id: number; state: string }[] | undefined, id: number) =>
    all?.some((one) => one.id === id && one.state === 'waiting') ?? false

  /** Proposes a change to the student, in place of making it. */
  async function suggest(route: number | null, seen: number, change: RouteChange): Promise<boolean> {
    const outcome = await send({ kind: 'suggest', route, change, why: null, ...byMe() }, seen)
    if (outcome.is === 'refused') return false
    const text = changeText(change, college.shortTerm)
    if (outcome.is === 'waits') notice.say(`Suggestion: ${text}. It waits for the connection.`)
    else {
      const { suggestion } = outcome.answer as { suggestion: number }
      notice.say(`Suggested: ${text}.`, {
        title: 'Take it back',
        act: () => make({ kind: 'withdrawSuggestion', suggestion }),
        holds: () => isWaiting(student.view?.suggestions, suggestion)
      })
    }
    return true
  }

  /** Proposes sections of a course to the student, in place of picking them. */
  async function suggestSections(
    term: TermCode,
    course: CourseCode,
    sections: SectionCode[]
  ): Promise<boolean> {
    const outcome = await send({ kind: 'suggestSections', term, course, sections })
    if (outcome.is === 'refused') return false
    if (outcome.is === 'waits') notice.say(`Suggestion for ${course}. It waits for the connection.`)
    else {
      const { suggestion } = outcome.answer as { suggestion: number }
      notice.say(`Suggested for ${course}.`, {
        title: 'Take it back',
        act: () => make({ kind: 'withdrawSections', suggestion }),
        holds: () => isWaiting(student.view?.sectionSuggestions, suggestion)
      })
    }
    return true
  }

  return {
    suggest,
    suggestSections,
    answerSuggestions,
    withdrawSections: (suggestion: number) => make({ kind: 'withdrawSections', suggestion }),
    answerSections: (suggestion: number, answer: 'accepted' | 'declined') =>
      make({ kind: 'answerSections', suggestion, answer, ...byMe() }),
    explainSuggestion: (suggestion: number, why: string | null) =>
      make({ kind: 'explainSuggestion', suggestion, why }),
    withdrawSuggestion: (suggestion: number) => make({ kind: 'withdrawSuggestion', suggestion })
  }
}
