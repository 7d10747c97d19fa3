/** Which lines of a run go through together: courses of which one asks for the other in the same term. */
import type { Catalog } from '../catalog'
import { ruleOf, coursesIn } from '../requisites'
import type { Option } from '../week'

/** Lines in groups, in the order of their first line; most groups hold one. */
export function groupLines(lines: readonly Option[], catalog: Catalog): Option[][] {
  const groups: Option[][] = []
  for (const line of lines) {
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
    const rule = ruleOf(catalog.maybeCourse(a.course)?.prerequisite ?? '')
    return coursesIn(rule, { sameTerm: true }).includes(b.course)
  }
}
