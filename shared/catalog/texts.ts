/** What is said of courses and their rules. */
import type { OfferingPattern } from '#core/catalog'
import { isBranch, type Branch, type Rule, type RuleLeaf } from '#core/requisites'
import { SEASON_WORDS, STANDING_WORDS } from '#shared/words'

/** `Autumn and spring, odd years` */
export function patternText({ seasons, years }: OfferingPattern): string {
  if (!seasons.length) return 'not planned to run again'
  const list = seasons.map((season) => SEASON_WORDS[season])
  const text = list.length < 2 ? list[0]! : `${list.slice(0, -1).join(', ')} and ${list.at(-1)}`
  return `${text}${years === 'every' ? '' : `, ${years} years`}`
}

export function leafText(leaf: RuleLeaf): string {
  switch (leaf.kind) {
    case 'course':
      return [
        leaf.course,
        ...(leaf.leastGrade ? [` with ${leaf.leastGrade} or better`] : []),
        ...(leaf.sameTerm ? [`${leaf.leastGrade ? ',' : ''} in the same term or before`] : [])
      ].join('')
    case 'test':
      return `a ${leaf.test.toLowerCase()} test score of ${leaf.least}`
    case 'average':
      return `an average of ${leaf.least}${leaf.courses ? ` in ${leaf.courses.join(', ')}` : ''}`
    case 'standing':
      return leaf.standing === 'graduate' ? 'graduate standing' : `${STANDING_WORDS[leaf.standing]} standing`
    case 'credits':
      return `${leaf.credits} credits earned by then`
    case 'program':
      return `program ${leaf.program}`
    case 'permission':
      return 'permission of the department'
  }
}

/** `A, B and C`, `A or B`; what is a list within a list stands in brackets. */
/** How many parts have to hold: `all of`, `one of`, `2 of`. */
export const branchWords = (branch: Branch<unknown>): string =>
  branch.kind === 'some' ? `${branch.least} of` : branch.kind === 'all' ? 'all of' : 'one of'

export function ruleText(rule: Rule): string {
  if (!isBranch(rule)) return leafText(rule)
  const words = rule.of.map((part) => (isBranch(part) ? `(${ruleText(part)})` : leafText(part)))
  if (rule.kind === 'some') return `${rule.least} of ${words.slice(0, -1).join(', ')} and ${words.at(-1)}`
  return `${words.slice(0, -1).join(', ')} ${rule.kind === 'all' ? 'and' : 'or'} ${words.at(-1)}`
}

export function leavesText(leaves: readonly RuleLeaf[], joint = 'and'): string {
  const words = leaves.map(leafText)
  return words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} ${joint} ${words.at(-1)}`
}
