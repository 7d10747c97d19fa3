/** What is said of findings, changes and terms of a route. */
import type { Fault } from '#core/checking'
import type { Refused } from '#core/degree'
import type { Finding, RouteChange } from '#core/findings'
import type { ChangeFault, Blocker, PlanDifference, TermResult } from '#core/route'
import { ruleText } from '#shared/catalog/texts'
import { averageText, type TermNames, creditsText, count } from '#shared/words'

const AWAY_WORDS = { exchange: 'an exchange', leave: 'a leave' } as const

/** A finding as one sentence without its course: `needs STAT 330 before it, and ...`. */
export function findingText(finding: Finding, termName: TermNames): string {
  switch (finding.code) {
    case 'prerequisite':
      return `needs ${ruleText(finding.missing)} before it.`
    case 'corequisite':
      return `needs ${ruleText(finding.missing)}.`
    case 'notOffered':
      return finding.known === 'sections'
        ? `has no section in ${termName(finding.term)}.`
        : `does not usually run in ${termName(finding.term)}.`
    case 'alreadyThere':
      return 'is done, under way or planned already, and counts once.'
    case 'outside':
      return `would count toward nothing: ${REFUSED[finding.why]}.`
    case 'away':
      return `stands in ${termName(finding.term)}, which is marked as ${AWAY_WORDS[finding.why]}.`
    case 'begun':
      return `is planned for ${termName(finding.term)}, to which nothing can be added any more.`
    case 'notForYou':
      return `has sections in ${termName(finding.term)}, none of which is for you.`
    case 'permissionFirst':
      return `needs a permission for ${termName(finding.term)} first, from the instructor or the department.`
    case 'noWeek':
      return noWeekText(finding)
    case 'load':
      return `holds ${creditsText(finding.credits)}, ${finding.credits - finding.most} over the limit of ${finding.most}.`
    case 'lightLoad':
      return `holds ${creditsText(finding.credits)}, fewer than the ${finding.least} you want at least.`
    case 'hours':
      return `asks for ${finding.hours} hours of study a week; you have ${finding.most}.`
    case 'needLeft':
      return `is when you want to finish; ${creditsText(finding.credits)} still have no place.`
    case 'late':
      return `is when this route finishes; you want to finish by ${termName(finding.target)}.`
  }
}

/** `leaves no week: A and B clash whatever the section.`: why no week of a term fits. */
function noWeekText({
  courses,
  hours: kept
}: {
  courses: readonly string[]
  hours: readonly string[]
}): string {
  const all = [...courses, ...kept.map((name) => `free time ${name}`)]
  if (all.length === 1) return `leaves no week: ${all[0]} has no section without a clash of its own.`
  return `leaves no week that fits: ${all.slice(0, -1).join(', ')} and ${all.at(-1)} cannot hold together, whatever the section.`
}

/** Why a course counts nowhere. */
export const REFUSED: Record<Refused, string> = {
  notAccepted: 'no requirement accepts it',
  gradeTooLow: 'the grade is too low where it would count',
  full: 'what accepts it is full',
  otherKind: 'what is still missing there has to be of another kind',
  limited: 'a limit of the program keeps it out',
  sharing: 'it counts in another program already, and no more may be shared',
  again: 'one that it repeats, or that excludes it, gives the credit'
}

/** A fault of a catalog or a program as one sentence, without its place. */
export function faultText(fault: Fault): string {
  switch (fault.code) {
    case 'rule':
      return `${fault.problem} at position ${fault.at + 1} of "${fault.rule}"`
    case 'program':
    case 'circle':
      return fault.problem
    case 'unknownCourse':
      return `the catalog has no course ${fault.course}${fault.rule ? `, named in "${fault.rule}"` : ''}`
    case 'courseTwice':
      return `${fault.course} is there twice`
    case 'creditRange':
      return `${fault.most} credits at most are fewer than ${fault.least}`
    case 'outOfReach':
      return `asks for ${fault.asks} ${fault.measure}, and "${fault.rule}" can give ${fault.most} at most`
    case 'notOffered':
      return `no course of "${fault.rule}" is offered any more`
  }
}

/** What a finding is about, to stand before its sentence. */
export function findingSubject(finding: Finding, termName: TermNames): string {
  return 'course' in finding ? `${finding.course} in ${termName(finding.term)}` : termName(finding.term)
}

export function changeText(change: RouteChange, termName: TermNames): string {
  switch (change.kind) {
    case 'add':
      return `Add ${change.planned.course} to ${termName(change.planned.term)}`
    case 'remove':
      return `Take ${change.planned.course} off the route`
    case 'move':
      return `Move ${change.course} to ${termName(change.to)}`
    case 'edit': {
      const { from, to, course } = change
      if (from.locked !== to.locked) return `${to.locked ? 'Lock' : 'Unlock'} ${course}`
      return to.note === from.note ? `Set ${course} to ${creditsText(to.credits)}` : `Note on ${course}`
    }
    case 'several': {
      const [first, second] = change.changes
      if (change.changes.length === 2 && first!.kind === 'remove' && second!.kind === 'add')
        return second!.planned.term === first!.planned.term
          ? `Take ${second!.planned.course} instead of ${first!.planned.course}`
          : `Take ${second!.planned.course} in ${termName(second!.planned.term)} instead of ${first!.planned.course}`
      return change.changes.length === 1
        ? changeText(first!, termName)
        : `${count(change.changes.length, 'change')} at once`
    }
  }
}

export const CHANGE_FAULTS: Record<ChangeFault, string> = {
  alreadyInTerm: 'This course is in that term already.',
  notInTerm: 'This course is not in that term any more. Reload to see the route as it is.',
  termClosed: 'Nothing can be added to that term any more.',
  nothingChanged: 'It says that already.'
}

/** `15 of 16 cr earned · GPA 3.21`: what a term came to. */
export function resultText({ earned, attempted, average }: TermResult): string {
  const credits = earned === attempted ? `${earned} cr earned` : `${earned} of ${attempted} cr earned`
  return average === undefined ? credits : `${credits} · GPA ${averageText(average)}`
}

/** Why a course may not go into a term, in the few words that fit a cell. */
export function blockerText(blocker: Blocker, termName: string): string {
  switch (blocker.code) {
    case 'past':
      return `Nothing can be added to ${termName} any more.`
    case 'away':
      return `${termName} is marked as ${AWAY_WORDS[blocker.why]}.`
    case 'notOffered':
      return blocker.known === 'sections'
        ? `No section in ${termName}.`
        : `Does not usually run in ${termName}.`
    case 'prerequisite':
      return `Needs ${ruleText(blocker.missing)} before ${termName}.`
    case 'corequisite':
      return `Needs ${ruleText(blocker.missing)}.`
    case 'notForYou':
      return `No section of it in ${termName} is for you.`
    case 'permissionFirst':
      return `Needs a permission for ${termName} first.`
  }
}

/** What changed from one plan to another, change by change; empty where nothing did. */
export function changesText(
  { added, removed, moved }: PlanDifference,
  shortTerm: (code: string) => string
): string {
  return [
    ...added.map((p) => `${p.course} added to ${shortTerm(p.term)}`),
    ...removed.map((p) => `${p.course} taken out of ${shortTerm(p.term)}`),
    ...moved.map((m) => `${m.course} moved from ${shortTerm(m.from)} to ${shortTerm(m.to)}`)
  ].join('; ')
}
