/**
 * The registration decision: the one place that says whether a student may register a section.
 * Search, rehearsal and the run itself ask it, with the instant it is to hold for.
 *
 * A group goes through together or not at all: a section with its components, and courses that ask
 * for each other. All reasons are collected. A cancelled section is not judged further.
 */
import type { Refusal } from '../findings'
import type { CourseCode } from '../ids'
import type { RuleLeaf } from '../requisites'
import { PERMISSION_KINDS, permits, type Option, type PermissionKind } from '../week'
import { courseRefusals } from './courseRefusals'
import type { RegistrationFacts } from './facts'
import { OptionDecision } from './optionDecision'
import { standingSignOff } from './signOff'

export interface LineDecision {
  course: CourseCode
  refusals: Refusal[]
  /** Holds only if these are finished as hoped. */
  assumed: RuleLeaf[]
  /** Rules that would stand against it and that a permission sets aside. */
  setAside: PermissionKind[]
}

/** Decides for each option of a group; a refused one takes the others with it. */
export function decide(facts: RegistrationFacts, group: readonly Option[]): LineDecision[] {
  const general = generalRefusals(facts)
  const lines = group.map((option): LineDecision => {
    const { refusals, assumed, setAside } = new OptionDecision(facts, option, group).judge()
    const isLate = permits(facts.permissions, 'late', option.main.code)
    if (isLate && general.some((one) => one.code === 'closed')) setAside.add('late')
    return {
      course: option.course,
      refusals: [...general.filter((one) => !isLate || one.code !== 'closed'), ...refusals],
      assumed,
      setAside: PERMISSION_KINDS.filter((kind) => setAside.has(kind))
    }
  })
  const failed = lines.find((line) => line.refusals.length)
  if (failed) {
    for (const line of lines) {
      if (!line.refusals.length) line.refusals.push({ code: 'together', with: failed.course })
    }
  }
  return lines
}

/** Reasons that have nothing to do with a section: time, holds, sign-off, the terms of registration. */
export function generalRefusals(
  facts: Pick<RegistrationFacts, 'now' | 'opens' | 'closes' | 'holds' | 'signOff' | 'agreed' | 'placing'>
): Refusal[] {
  const refusals: Refusal[] = []
  if (facts.now >= facts.closes) refusals.push({ code: 'closed', since: facts.closes })
  else if (facts.opens === null || facts.now < facts.opens)
    refusals.push({ code: 'notOpen', opens: facts.opens })
  for (const { title, office, amount, stopsRegistration } of facts.holds) {
    if (stopsRegistration) refusals.push({ code: 'hold', title, office, amount })
  }
  const { policy, given, changed } = facts.signOff
  const stands = standingSignOff(given, facts.now) !== null
  const isLost = policy === 'anew' && stands && changed
  if (policy !== 'none' && (!stands || isLost))
    refusals.push({ code: 'signOff', ended: isLost ? null : (given?.until ?? null), changed: isLost })
  if (!facts.agreed) refusals.push({ code: 'notAgreed' })
  const aside: ReadonlySet<string> = facts.placing?.setAside ?? new Set()
  return refusals.filter((one) => !aside.has(one.code))
}

/** The decision about a course whose sections are not known yet: what can be said without one. */
export function decideWithoutSection(facts: RegistrationFacts, course: CourseCode): LineDecision {
  const { refusals, assumed } = courseRefusals(facts, course, {
    others: [],
    gone: new Set(),
    consented: false
  })
  return { course, refusals: [...generalRefusals(facts), ...refusals], assumed, setAside: [] }
}
