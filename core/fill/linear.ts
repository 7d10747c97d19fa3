/**
 * A mixed-integer linear model, written down row by row, and what a solver says of it. Which solver that is,
 * its caller decides: models are text in the CPLEX LP format, which every general solver reads.
 */
export type Sum = readonly (readonly [factor: number, name: string])[]

type Sign = '<=' | '>=' | '='

export interface Limits {
  /** Relative distance from the best within which an answer will do; 0 asks for the best. */
  gap: number
  /** Nodes of the search tree at most, so that the same question ends alike on every machine. */
  nodes: number
  seconds: number
}

export type Solved =
  | { kind: 'solved'; best: boolean; value: (name: string) => number }
  | { kind: 'infeasible' }
  /** The limits were reached before anything was found. */
  | { kind: 'unknown' }

export type Solve = (model: LinearModel, limits: Limits) => Solved

/** Terms on a line of the text; readers take lines of some hundred characters. */
const ON_LINE = 12

export class LinearModel {
  private readonly rows: { sum: Sum; sign: Sign; right: number }[] = []
  private readonly binaries = new Set<string>()
  /** Continuous, from 0 to their bound. */
  private readonly bounded = new Map<string, number>()
  private cost: Sum = []

  binary(name: string): string {
    this.binaries.add(name)
    return name
  }

  /** A number from 0 to `most`. */
  upTo(name: string, most: number): string {
    this.bounded.set(name, most)
    return name
  }

  /** A row without a term has to hold by itself; one that does not makes the model infeasible. */
  row(sum: Sum, sign: Sign, right: number): void {
    const merged = mergedOf(sum)
    if (merged.length) this.rows.push({ sum: merged, sign, right })
    else if (!isMet(0, sign, right))
      this.rows.push({ sum: [[1, this.upTo('never', 0)]], sign: '>=', right: 1 })
  }

  minimize(cost: Sum): void {
    this.cost = cost
  }

  /** Whether values meet every row: a solver that was stopped may give some that do not. */
  isMetBy(value: (name: string) => number): boolean {
    return this.rows.every(({ sum, sign, right }) =>
      isMet(
        sum.reduce((total, [factor, name]) => total + factor * value(name), 0),
        sign,
        right
      )
    )
  }

  get text(): string {
    const bounds = [...this.bounded].map(([name, most]) => `0 <= ${name} <= ${number(most)}`)
    const binaries = [...this.binaries]
    const lines = ['Minimize', `obj: ${textOf(mergedOf(this.cost)) || '0 zero'}`, 'Subject To']
    this.rows.forEach(({ sum, sign, right }, r) =>
      lines.push(`r${r}: ${textOf(sum)} ${sign} ${number(right)}`)
    )
    lines.push('Bounds', '0 <= zero <= 0', ...bounds)
    if (binaries.length) lines.push('Binary')
    for (let i = 0; i < binaries.length; i += ON_LINE) lines.push(binaries.slice(i, i + ON_LINE).join(' '))
    return [...lines, 'End', ''].join('\n')
  }
}

/** Solvers hold rows to about a millionth, and values to that; a row sums some dozens of them. */
const TOLERANCE = 1e-3

function isMet(left: number, sign: Sign, right: number): boolean {
  if (sign === '<=') return left <= right + TOLERANCE
  if (sign === '>=') return left >= right - TOLERANCE
  return Math.abs(left - right) <= TOLERANCE
}

/** A name comes once in a row. */
function mergedOf(sum: Sum): [number, string][] {
  const merged = new Map<string, number>()
  for (const [factor, name] of sum) merged.set(name, (merged.get(name) ?? 0) + factor)
  return [...merged].flatMap(([name, factor]) => (factor === 0 ? [] : [[factor, name] as [number, string]]))
}

function textOf(sum: Sum): string {
  const parts = sum.map(([factor, name]) => `${factor < 0 ? '-' : '+'} ${number(Math.abs(factor))} ${name}`)
  const lines: string[] = []
  for (let i = 0; i < parts.length; i += ON_LINE) lines.push(parts.slice(i, i + ON_LINE).join(' '))
  return lines.join('\n  ')
}

/** Hundredths of a credit are the smallest that occur; costs are rounded to a thousandth. */
const number = (value: number): string => String(Math.round(value * 1000) / 1000)
