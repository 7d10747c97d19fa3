/**
 * A small linear-programming solver: maximise a sum under linear limits, all variables bounded.
 *
 * Method: the dual simplex for bounded variables on a condensed tableau (Lemke 1954; Wagner 1958).
 * Since every variable has two finite bounds, any objective can start from the slack basis: each
 * variable rests at the bound its cost prefers. Bounds may be changed between solutions, which is all
 * that branching needs; the basis stays.
 *
 * Units are the caller's. Numbers are floating point: bounds taken from here are rounded with `SLACK`
 * in the careful direction, and integer solutions are checked again by whoever asked. A vanishing,
 * fixed disturbance of the costs keeps it from cycling.
 */
export interface Row {
  /** Coefficients by variable. */
  terms: readonly (readonly [variable: number, factor: number])[]
  /** The sum is at most this. */
  most: number
}

/** By how much a worth may be off, through rounding and the disturbance of the costs. */
export const SLACK = 0.05
/** How near to a whole number a value has to be to count as one. */
export const WHOLE = 1e-5
const ZERO = 1e-11
const PIVOT = 1e-7
const COST = 1e-9
/** After so many pivots the tableau is made anew, against rounding. */
const FRESH = 1000
const FEASIBLE = 1e-7

export class Simplex {
  readonly low: Float64Array
  readonly high: Float64Array
  private readonly rows: number
  private readonly columns: number
  /** Condensed tableau: basic = value - sum of entry * nonbasic. */
  private readonly table: Float64Array
  /** Variable of each row, then of each column. Slacks follow the variables. */
  private readonly basic: Int32Array
  private readonly outside: Int32Array
  private readonly value: Float64Array
  private readonly atHigh: Uint8Array
  private readonly cost: Float64Array
  /** Columns in use by the pivot row. */
  private readonly filled: Int32Array

  private pivots = 0
  private objective: readonly (readonly [variable: number, factor: number])[] = []

  constructor(
    variables: number,
    private readonly limits: readonly Row[],
    high: readonly number[]
  ) {
    const rows = limits
    const m = rows.length
    const n = variables
    this.rows = m
    this.columns = n
    this.low = new Float64Array(n + m)
    this.high = new Float64Array(n + m)
    this.high.set(high)
    // A slack is bounded too, by what its row could leave at most; so every start is dual feasible.
    rows.forEach((row, i) => {
      this.high[n + i] = Math.max(
        0,
        row.terms.reduce((sum, [v, factor]) => sum - Math.min(0, factor * high[v]!), row.most)
      )
    })
    this.table = new Float64Array(m * n)
    this.basic = new Int32Array(m)
    this.outside = new Int32Array(n)
    this.value = new Float64Array(m)
    this.atHigh = new Uint8Array(n + m)
    this.cost = new Float64Array(n)
    this.filled = new Int32Array(n)
    this.begin()
  }

  /** The slack basis, from the limits as given. */
  private begin(): void {
    const { columns: n, table, value, basic, outside, atHigh, low, limits } = this
    this.pivots = 0
    table.fill(0)
    atHigh.fill(0)
    for (let j = 0; j < n; j++) outside[j] = j
    limits.forEach(({ terms, most }, i) => {
      basic[i] = n + i
      value[i] = most
      for (const [variable, factor] of terms) {
        table[i * n + variable]! += factor
        value[i]! -= factor * low[variable]!
      }
    })
  }

  /** Sets what is maximised. */
  maximise(terms: readonly (readonly [variable: number, factor: number])[]): void {
    const { rows: m, columns: n, table, basic, outside, cost } = this
    this.objective = terms
    const objective = new Float64Array(n + m)
    for (const [variable, factor] of terms) objective[variable]! += factor
    // A fixed disturbance, below SLACK in sum, against steps that gain nothing.
    for (let j = 0; j < n; j++)
      objective[j]! -= ((SLACK / 2 / n) * (1 + ((j * 7919) % 101))) / 102 / Math.max(1, this.high[j]!)
    for (let j = 0; j < n; j++) cost[j] = objective[outside[j]!]!
    for (let i = 0; i < m; i++) {
      const c = objective[basic[i]!]!
      if (c === 0) continue
      for (let j = 0; j < n; j++) cost[j]! -= c * table[i * n + j]!
    }
  }

  /** Puts every nonbasic variable where its cost wants it. */
  private rest(): void {
    const { columns: n, outside, cost, atHigh, high, low } = this
    for (let j = 0; j < n; j++) {
      const v = outside[j]!
      const wants = cost[j]! > 0 ? 1 : 0
      if (atHigh[v] === wants) continue
      this.shift(j, wants ? high[v]! - low[v]! : low[v]! - high[v]!)
      atHigh[v] = wants
    }
  }

  private shift(column: number, by: number): void {
    if (by === 0) return
    const { rows: m, columns: n, table, value } = this
    for (let i = 0; i < m; i++) value[i]! -= table[i * n + column]! * by
  }

  /** Narrows or widens the bounds of a variable; the basis stays. */
  bound(variable: number, low: number, high: number): void {
    if (this.low[variable] === low && this.high[variable] === high) return
    const column = this.outside.indexOf(variable)
    if (column >= 0) {
      const was = this.atHigh[variable] ? this.high[variable]! : this.low[variable]!
      const now = this.atHigh[variable] ? high : low
      this.shift(column, now - was)
    }
    this.low[variable] = low
    this.high[variable] = high
  }

  /** Solves from where it stands. False when no point keeps all limits. */
  solve(): boolean {
    const { rows: m, columns: n, basic, value, low, high } = this
    const most = 50 * (m + n)
    if (this.pivots > FRESH) {
      this.begin()
      this.maximise(this.objective)
    }
    // A variable that was held fast may rest at the wrong end once it is let go.
    this.rest()
    for (let turn = 0; ; turn++) {
      if (turn > most) throw new Error(`the simplex method did not end within ${most} pivots`)
      let row = -1
      let worst = FEASIBLE
      for (let i = 0; i < m; i++) {
        const v = basic[i]!
        const off = Math.max(low[v]! - value[i]!, value[i]! - high[v]!)
        if (off > worst) {
          worst = off
          row = i
        }
      }
      if (row < 0) return true
      const leaving = basic[row]!
      const up = value[row]! < low[leaving]!
      const column = this.entering(row, up)
      if (column < 0) return false
      this.pivot(row, column, up ? low[leaving]! : high[leaving]!, !up)
    }
  }

  /**
   * The column to enter, by the two-pass ratio test (Harris 1973): the largest pivot among those that
   * keep the costs right within a tolerance. -1 when the row cannot be mended.
   */
  private entering(row: number, up: boolean): number {
    const { columns: n, table, outside, atHigh, cost, low, high } = this
    const start = row * n
    let least = Infinity
    for (let pass = 0; ; pass++) {
      let column = -1
      let size = 0
      for (let j = 0; j < n; j++) {
        const entry = table[start + j]!
        const length = Math.abs(entry)
        const v = outside[j]!
        if (length < PIVOT || low[v] === high[v]) continue
        // Raising the leaving variable needs an entering one that rises where the entry is negative.
        if ((atHigh[v] === 0) === (up ? entry > 0 : entry < 0)) continue
        const ratio = Math.abs(cost[j]!) / length
        if (pass === 0) least = Math.min(least, ratio + COST / length)
        else if (ratio <= least && length > size) {
          size = length
          column = j
        }
      }
      if (pass === 1 || least === Infinity) return column
    }
  }

  /** Exchanges a basic and a nonbasic variable; the one that leaves rests at `target`. */
  private pivot(row: number, column: number, target: number, leavesHigh: boolean): void {
    const { rows: m, columns: n, table, basic, outside, value, atHigh, cost, low, high } = this
    this.pivots++
    const start = row * n
    const entry = table[start + column]!
    const entering = outside[column]!
    const leaving = basic[row]!
    const by = (value[row]! - target) / entry
    const now = (atHigh[entering] ? high[entering]! : low[entering]!) + by
    for (let i = 0; i < m; i++) if (i !== row) value[i]! -= table[i * n + column]! * by
    value[row] = now
    const inverse = 1 / entry
    const { filled } = this
    let count = 0
    for (let j = 0; j < n; j++) {
      const here = table[start + j]!
      if (here === 0) continue
      table[start + j] = Math.abs(here) < ZERO ? 0 : here * inverse
      filled[count++] = j
    }
    table[start + column] = inverse
    for (let i = 0; i < m; i++) {
      if (i === row) continue
      const factor = table[i * n + column]!
      if (factor === 0) continue
      const at = i * n
      if (3 * count > n) for (let j = 0; j < n; j++) table[at + j]! -= factor * table[start + j]!
      else for (let k = 0; k < count; k++) table[at + filled[k]!]! -= factor * table[start + filled[k]!]!
      table[at + column] = -factor * inverse
    }
    const factor = cost[column]!
    if (factor !== 0) {
      for (let k = 0; k < count; k++) cost[filled[k]!]! -= factor * table[start + filled[k]!]!
      cost[column] = -factor * inverse
    }
    basic[row] = entering
    outside[column] = leaving
    atHigh[leaving] = leavesHigh ? 1 : 0
  }

  /** The value of every variable, slacks left out. */
  point(): Float64Array {
    const point = new Float64Array(this.columns)
    for (let v = 0; v < this.columns; v++) point[v] = this.atHigh[v] ? this.high[v]! : this.low[v]!
    for (let i = 0; i < this.rows; i++)
      if (this.basic[i]! < this.columns) point[this.basic[i]!] = this.value[i]!
    return point
  }
}
