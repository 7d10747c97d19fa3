/**
 * How a curriculum hangs together: for each course, how many wait for it and how long its chain is.
 *
 * Definitions, from memory: Heileman, Abdallah, Slim and Hickman, Curricular Analytics (2018). The
 * *blocking factor* of a course is the number of courses that can be reached from it; its *delay factor*
 * is the number of courses on the longest path through it; the *complexity* of a course is their sum,
 * that of a curriculum the sum over its courses.
 */
import type { Catalog } from '../catalog'
import type { CourseCode } from '../ids'
import { coursesIn, ruleOf } from '../requisites'

export interface Factors {
  blocking: number
  delay: number
}

/** Edges from a course to those that name it as a prerequisite, within the given courses. */
export type CourseGraph = ReadonlyMap<CourseCode, readonly CourseCode[]>

/** The graph of some courses. A choice between prerequisites draws an edge from each that is among them. */
export function graphOf(courses: readonly CourseCode[], catalog: Catalog): CourseGraph {
  const among = new Set(courses)
  const graph = new Map<CourseCode, CourseCode[]>(courses.map((code) => [code, []]))
  for (const code of courses) {
    const rule = ruleOf(catalog.maybeCourse(code)?.prerequisite ?? '')
    const together = new Set(coursesIn(rule, { sameTerm: true }))
    for (const before of new Set(coursesIn(rule)))
      if (among.has(before) && before !== code && !together.has(before)) graph.get(before)!.push(code)
  }
  return graph
}

/**
 * The factors of every course of a graph without cycles.
 * @throws RangeError naming the courses of a cycle.
 */
export function factorsOf(graph: CourseGraph): Map<CourseCode, Factors> {
  const order = sorted(graph)
  const into = new Map<CourseCode, number>(order.map((code) => [code, 1]))
  for (const code of order)
    for (const next of graph.get(code)!) into.set(next, Math.max(into.get(next)!, into.get(code)! + 1))
  const from = new Map<CourseCode, number>()
  const reach = new Map<CourseCode, ReadonlySet<CourseCode>>()
  for (const code of order.toReversed()) {
    const next = graph.get(code)!
    from.set(code, 1 + Math.max(0, ...next.map((other) => from.get(other)!)))
    reach.set(code, new Set(next.flatMap((other) => [other, ...reach.get(other)!])))
  }
  return new Map(
    order.map((code) => [
      code,
      { blocking: reach.get(code)!.size, delay: into.get(code)! + from.get(code)! - 1 }
    ])
  )
}

/** Courses so that each comes after those it needs. */
function sorted(graph: CourseGraph): CourseCode[] {
  const order: CourseCode[] = []
  const state = new Map<CourseCode, 'open' | 'done'>()
  const path: CourseCode[] = []
  const visit = (code: CourseCode): void => {
    if (state.get(code) === 'done') return
    path.push(code)
    if (state.get(code) === 'open')
      throw new RangeError(`prerequisites go round: ${path.slice(path.indexOf(code)).join(' needs ')}`)
    state.set(code, 'open')
    for (const next of graph.get(code)!) visit(next)
    state.set(code, 'done')
    path.pop()
    order.push(code)
  }
  for (const code of graph.keys()) visit(code)
  return order.reverse()
}
