/** What is to be done for one term: its plan, its sign-off, its week, its registration, its payment. */
import type { TermStanding } from '#core/calendar'
import { GENERAL_REFUSALS, pickedOptions, rehearse } from '#core/registration'
import { changesSince, type Section } from '#core/week'
import { preparedOf } from '#shared/registration/prepared'
import { signOffPolicyOf } from '#shared/advising/review'
import { hasChanged, sinceSignOff, sinceText } from '#shared/advising/signOff'
import type { TermView } from '#shared/catalog/responses'
import { goingWith } from '#shared/reading'
import { takesIntentions } from '#shared/route/intentions'
import { hasAgreed, registrationFacts, waitingIn } from '#shared/registration/registering'
import { refusalText } from '#shared/registration/texts'
import { termWeek } from '#shared/week/termWeek'
import { sectionHours, SINCE_WORDS, sectionName } from '#shared/week/texts'
import { ago, dayMonth, deadlineText, shortInstant, timeLeft } from '#shared/when'
import { count } from '#shared/words'
import type { TodoQuestion, Todo } from './task'
import { ofPayment } from './taskOfPayment'
import { ofOffice, ofParts } from './tasksOfSeats'

/** What a term asks for, from its sign-off to its grades. */
export function ofTerm(question: TodoQuestion, standing: TermStanding<TermView>): Todo[] {
  const { term, state, adding } = standing
  if (state === 'gradesDue')
    return [
      {
        id: `grades ${term.code}`,
        urgency: 'later',
        title: `Grades of ${term.name} are due`,
        text: `${count(standing.ungraded, 'course')} of ${term.name} ${standing.ungraded === 1 ? 'has' : 'have'} no grade yet.`,
        when: `over since ${dayMonth(term.end)}`,
        action: { label: 'See the degree', to: 'degree' }
      }
    ]
  const isAtWork = question.work?.term.code === term.code
  const open = adding === 'open' || adding === 'notYet'
  return [
    ...(open && isAtWork && !standing.unsettled && !standing.taken
      ? [nothingPlanned(question, standing)]
      : []),
    ...(open ? toRegister(question, standing) : []),
    ...(adding === 'none' && standing.unsettled && state === 'underWay' ? [noOpening(standing)] : []),
    ...ofSignOff(question, standing),
    ...(adding === 'ended' ? [] : ofWeek(question, standing)),
    ...ofParts(question, standing),
    ...ofOffice(question, standing),
    ...ofPayment(question, standing)
  ]
}

const whenOf = (
  { now }: Pick<TodoQuestion, 'now'>,
  { adding, opens }: Pick<TermStanding, 'adding' | 'opens'>
): string => (adding === 'notYet' ? `in ${timeLeft(opens! - now)}` : adding === 'open' ? 'now' : '')

function nothingPlanned(question: TodoQuestion, standing: TermStanding<TermView>): Todo {
  const { term, adding } = standing
  return {
    id: `plan ${term.code}`,
    urgency: 'attention',
    title: `Nothing is planned for ${term.name}`,
    text: 'Start from what your degree still needs.',
    when: adding === 'notYet' ? `opens ${whenOf(question, standing)}` : 'open for you',
    action: { label: 'See what is needed', to: 'degree' }
  }
}

function noOpening({ term, unsettled }: TermStanding<TermView>): Todo {
  return {
    id: `opening ${term.code}`,
    urgency: 'stops',
    title: `No opening of ${term.name} is for you`,
    text: `${count(unsettled, 'planned course')} cannot be registered. The registrar decides on openings.`,
    when: '',
    action: { label: 'See the term', to: 'register' }
  }
}

function toRegister(question: TodoQuestion, standing: TermStanding<TermView>): Todo[] {
  const { studentRecord } = question
  const { term, adding } = standing
  const planned = studentRecord.route.courses.filter((one) => one.term === term.code)
  // What waits in a line is done as far as it can be.
  const waiting = waitingIn(studentRecord, term.code)
  const unsettled = standing.unsettled - planned.filter((one) => waiting.has(one.course)).length
  if (unsettled <= 0) return []
  const { picked } = termWeek(studentRecord, term.code, goingWith(studentRecord, term.code))
  const settled = new Set(picked.map((one) => one.course))
  const held = new Set(studentRecord.held.filter((one) => one.term === term.code).map((one) => one.course))
  const without = planned.filter(
    (one) => !held.has(one.course) && !settled.has(one.course) && !waiting.has(one.course)
  ).length
  const itself = adding === 'notYet' && preparedOf(studentRecord.prepared, term.code).armed
  const task: Todo = {
    id: `opening ${term.code}`,
    urgency: adding === 'open' ? 'attention' : 'plain',
    title: adding === 'open' ? `${term.name} is open for you` : `${term.name} opens for you`,
    text: `${
      without
        ? `${count(unsettled, 'course')} to register, ${without} without a section.`
        : `${count(unsettled, 'course')} on the run sheet, each with a section.`
    }${itself ? ' The sheet runs by itself.' : ''}`,
    when: whenOf(question, standing),
    action: without ? { label: 'Pick sections', to: 'week' } : { label: 'Run sheet', to: 'register' }
  }
  return hasAgreed(studentRecord, term) ? [task] : [task, toAccept(standing)]
}

function toAccept({ term, adding }: TermStanding<TermView>): Todo {
  return {
    id: `agreement ${term.code}`,
    urgency: adding === 'open' ? 'attention' : 'plain',
    title: `Accept the terms of registration of ${term.name}`,
    text: 'Nothing is registered for you before. It takes one reading, on Register.',
    when: adding === 'open' ? 'before you register' : `before ${term.name} opens`,
    action: { label: 'Read them', to: 'register' }
  }
}

function ofSignOff(question: TodoQuestion, standing: TermStanding<TermView>): Todo[] {
  const { studentRecord, now, catalogContext } = question
  const { term, adding, unsettled } = standing
  const policy = signOffPolicyOf(studentRecord, term)
  if (policy === 'none' || adding === 'ended') return []
  const since = sinceSignOff(studentRecord, term.code, now)
  if (since && hasChanged(since))
    return [
      {
        id: `changed ${term.code}`,
        urgency: policy === 'anew' && adding === 'open' ? 'stops' : 'attention',
        title: `${term.name} has changed since it was signed off`,
        text: `${sinceText(since)}. ${
          policy === 'anew'
            ? 'It has to be signed off anew; until then nothing is registered.'
            : `${since.signOff.by} sees it too.`
        }`,
        when: '',
        action: { label: policy === 'anew' ? 'Ask for review' : 'See the route', to: 'route' }
      }
    ]
  if (since || !unsettled) return []
  const review = studentRecord.reviews.find((one) => one.term === term.code)
  if (review?.answer?.missing)
    return [
      {
        id: `not yet ${term.code}`,
        urgency: adding === 'open' ? 'stops' : 'attention',
        title: `${term.name} is not signed off yet: something is missing`,
        text: `${review.answer.by}: “${review.answer.missing}”`,
        when: ago(review.answer.at, now, catalogContext.zone),
        action: { label: 'See the route', to: 'route' }
      }
    ]
  const asked = review && !review.answer ? review.askedAt : undefined
  const advisor = studentRecord.advisors.find((one) => one.purpose === 'program')
  return [
    {
      id: `sign-off ${term.code}`,
      urgency: adding === 'open' ? 'stops' : 'attention',
      title: `${term.name} is not signed off yet`,
      text: asked
        ? `You asked ${advisor?.name ?? 'your advisor'} for a review.`
        : 'Registration needs the sign-off of your advisor. Ask for a review of your route.',
      when: asked ? `asked ${ago(asked, now, catalogContext.zone)}` : '',
      action: { label: asked ? 'See the route' : 'Ask for review', to: 'route' }
    }
  ]
}

/** Days before intentions are due from which it is told. */
const INTENTIONS_SOON = 21

export function ofIntentions({ studentRecord, now, catalogContext }: TodoQuestion, term: TermView): Todo[] {
  const due = term.intentionsDueAt
  if (due === null || !takesIntentions(term, now) || due - now > INTENTIONS_SOON * 86_400_000) return []
  const planned = studentRecord.route.courses.filter((one) => one.term === term.code).length
  if (!planned || studentRecord.intentions.some((one) => one.term === term.code)) return []
  return [
    {
      id: `intentions ${term.code}`,
      urgency: 'plain',
      title: `Hand in what you mean to take in ${term.name}`,
      text: `${count(planned, 'course')} planned. Seats are planned from what is handed in; it binds nobody.`,
      when: `until ${deadlineText(due, catalogContext.zone)}`,
      action: { label: 'See the route', to: 'route' }
    }
  ]
}

/** What is picked: to be exchanged, changed since it was picked, impossible to register. */
function ofWeek(question: TodoQuestion, standing: TermStanding<TermView>): Todo[] {
  const { studentRecord, catalogContext } = question
  const { term, adding, opens } = standing
  const draft = goingWith(studentRecord, term.code)
  const waiting = waitingIn(studentRecord, term.code)
  const { wanted: picks, exchanged } = termWeek(studentRecord, term.code, draft)
  const wanted = picks.filter((one) => !waiting.has(one.course))
  const before =
    adding === 'notYet' ? `before ${shortInstant(opens!, catalogContext.zone)}` : whenOf(question, standing)
  const found = [...exchanged].map((course): Todo => ({
    id: `exchange ${term.code} ${course}`,
    urgency: adding === 'open' ? 'attention' : 'plain',
    title: `${course} is to be exchanged`,
    text: 'You hold your seat until the run sheet has taken the other one.',
    when: whenOf(question, standing),
    action: { label: 'Run sheet', to: 'register' }
  }))
  const told = new Set<string>()
  for (const section of wanted)
    for (const what of changesSince(section, draft?.asPicked[section.code] ?? null)) {
      told.add(section.course)
      found.push({
        id: `${what} ${section.code}`,
        urgency: 'attention',
        title: `${sectionName(section)} ${SINCE_WORDS[what]}`,
        text:
          what === 'moved'
            ? `It is now ${sectionHours(section)}. Pick it again if that suits you, or another one.`
            : 'Pick another section of it before you register.',
        when: before,
        action: { label: 'See the week', to: 'week' }
      })
    }
  for (const { course, text } of impossiblePicks(question, standing, wanted))
    if (!told.has(course))
      found.push({
        id: `impossible ${term.code} ${course}`,
        urgency: 'attention',
        title: `${course} cannot be registered as it is picked`,
        text,
        when: before,
        action: { label: 'See the week', to: 'week' }
      })
  return found
}

/** Picks that the run would refuse as of the opening, with the first reason for each. */
function impossiblePicks(
  { studentRecord, catalogContext, now }: TodoQuestion,
  { term, opens }: TermStanding<TermView>,
  wanted: readonly Section[]
): { course: string; text: string }[] {
  const offer = catalogContext.offers.get(term.code)?.sections
  const draft = goingWith(studentRecord, term.code)
  if (!offer || !draft || !wanted.length) return []
  const { held, exchanged } = termWeek(studentRecord, term.code, draft)
  const facts = registrationFacts(studentRecord, catalogContext, {
    term: term.code,
    now: Math.max(now, opens ?? now),
    heldSections: held,
    exchanging: exchanged,
    offer
  })
  const courses = new Set(wanted.map((one) => one.course))
  // Seats as they came with the picks: those of the whole offer may be older.
  const fresh = new Map(studentRecord.sections.map((one) => [one.code, one]))
  const options = pickedOptions(
    offer.map((one) => fresh.get(one.code) ?? one),
    draft.sections
  )
  const lines = [...options.values()].filter((one) => courses.has(one.course))
  return [...rehearse(facts, lines).values()].flatMap(({ course, refusals }) => {
    const first = refusals.find((one) => !GENERAL_REFUSALS.has(one.code))
    return first ? [{ course, text: refusalText(first, catalogContext.zone) }] : []
  })
}
