/**
 * Which lines of a run go through together: courses of which one asks for the other in the same term, those that
 * a student wants only together or an advisor lets in only together, and what gives back a seat with what takes the hours that it frees.
 */
import { ruleOf, coursesIn } from '../requisites'
import { clashesWith, sectionsOf, type Option } from '../week'
import type { RegistrationFacts } from './facts'
import { givenBack } from './step'

/**
 * Lines in groups, in the order of their first line; most groups hold one. Exchanges come first, so that what
 * they free is there for the others.
 */
export function groupLines(
  lines: readonly Option[],
  facts: Pick<
    RegistrationFacts,
    'catalog' | 'heldSections' | 'exchanging' | 'givingUp' | 'holidays' | 'onlyWith' | 'signOff'
  >
): Option[][] {
  const exchanges = lines.filter((line) => givenBack(facts, line.course).length)
  const { policy, given } = facts.signOff
  const conditions = policy === 'none' ? [] : (given?.conditions ?? [])
  const groups: Option[][] = []
  for (const line of new Set([...exchanges, ...lines])) {
    const bound = groups.filter((group) => group.some((other) => asks(line, other) || asks(other, line)))
    const [first, ...rest] = bound
    if (!first) {
      groups.push([line])
      continue
    }
    first.push(line, ...rest.flat())
    for (const group of rest) groups.splice(groups.indexOf(group), 1)
  }
  return groups

  function asks(a: Option, b: Option): boolean {
    if (facts.onlyWith.get(a.course) === b.course) return true
    if (conditions.some((one) => one.is === 'onlyWith' && one.course === a.course && one.other === b.course))
      return true
    const rule = ruleOf(a.main.prerequisite ?? facts.catalog.maybeCourse(a.course)?.prerequisite ?? '')
    if (coursesIn(rule, { sameTerm: true }).includes(b.course)) return true
    const stays = new Set(sectionsOf(b).map((section) => section.code))
    const freed = givenBack(facts, b.course).filter((section) => !stays.has(section.code))
    return clashesWith({ course: a.course, sections: sectionsOf(a) }, freed, facts.holidays).length > 0
  }
}
