/**
 * The best week put to a general MILP solver (HiGHS): the first measure, then the second with the first held.
 * It shares no code with the search it judges, only the types of the question. Measures that are sums over
 * options, and days with classes, can be asked.
 */
import type { Highs } from 'highs'
import type { FindProblem } from '../problem'

export function judgeWeeks(highs: Highs, problem: FindProblem): number[] | undefined {
  const found: number[] = []
  for (let m = 0; m < problem.measures.length; m++) {
    const answer = highs.solve(programOf(problem, m, found))
    if (answer.Status !== 'Optimal') return undefined
    found.push(Math.round(answer.ObjectiveValue))
  }
  return found
}

function programOf(problem: FindProblem, wanted: number, held: readonly number[]): string {
  const { options, groups, kept, measures } = problem
  const out = new Set(kept.flat())
  const rows: string[] = []
  const row = (terms: string[], end: string) => rows.push(` c${rows.length}: ${terms.join(' + ')} ${end}`)
  const names = options.map((_, o) => `x${o}`)
  const of = (course: number) => names.filter((_, o) => options[o]!.course === course && !out.has(o))
  const days = new Set(options.flatMap((one) => one.parts.map((part) => part.day)))
  for (const group of groups) {
    row(group.courses.flatMap((course) => of(course)).concat('0 y1'), `= ${group.take}`)
    for (const course of group.courses) if (of(course).length > 1) row(of(course), '<= 1')
  }
  options.forEach((one, o) => {
    for (const other of one.clashes) if (other > o) row([names[o]!, names[other]!], '<= 1')
    for (const day of new Set(one.parts.map((part) => part.day)))
      rows.push(` c${rows.length}: y${day} - x${o} >= 0`)
  })
  for (const o of out) row([names[o]!], '= 0')
  const sumOf = (m: number): string[] => {
    const measure = measures[m]!
    if (measure.kind === 'days') return [...days].map((day) => `y${day}`).concat('0 x0')
    if (measure.kind === 'dayOff') return [`${days.has(measure.day) ? 1 : 0} y${measure.day}`, '0 x0']
    if (measure.kind === 'each') return options.map((one, o) => `${one.costs[m]!} x${o}`)
    throw new RangeError(`the solver is not asked about ${measure.kind}`)
  }
  held.forEach((value, m) => row(sumOf(m), `<= ${value}`))
  const binary = [...names, ...[1, 2, 3, 4, 5, 6, 7].map((day) => `y${day}`)]
  return `Minimize\n obj: ${sumOf(wanted).join(' + ')}\nSubject To\n${rows.join('\n')}\nBinary\n ${binary.join(' ')}\nEnd\n`
}
