/**
 * How far a want is, as a small state machine. First it is said how firmly the want will be met;
 * then its pieces come in a fixed order, and each is taken or passed.
 *
 *     turn     0        1        2
 *     earned  ── 0 ─take─ 1 ─take─ 2    a state is the label and what has been taken, capped at what is
 *              \   \pass  0 ─take─ 1    asked for; each turn numbers its own states from 0
 *     planned ── 1 ...
 *
 * A want that is said to be met by a label takes no softer piece: its credit would be pure waste. A label
 * that can no longer be kept gives way to the next softer one.
 */
import { LEVELS, POSSIBLE, weightIn, type Piece, type Problem, type Want } from './problem'

/** NONE where a piece cannot be taken. */
export const NONE = -1
const SUBJECTS_MOST = 31
const ALL_BITS = 0x7fffffff

export interface Table {
  /** How many states it may start in, the firmest label first. */
  readonly starts: number
  /** One for each piece. */
  readonly turns: readonly TableTurn[]
  /** The labels of the states after the last piece. */
  readonly labels: readonly number[]
}

export interface TableTurn {
  readonly states: number
  /** Where a state leads when the piece is passed, and when it is taken. */
  readonly pass: Int32Array
  readonly take: Int32Array
  /** Units beyond what is asked for, when it is taken. */
  readonly waste: Int32Array
}

/** Wants of the same shape recur, within an audit and from one to the next. */
const known = new Map<string, Table>()
const KNOWN_MOST = 2000

/** `own` are the want's pieces in the order in which they are decided. */
export function tableOf(problem: Problem, w: number, own: readonly number[]): Table {
  const want = problem.wants[w]!
  const shape = shapeOf(problem, want, own)
  const before = known.get(shape)
  if (before) return before
  const table = new Builder(problem, want, own).table()
  if (known.size >= KNOWN_MOST) known.clear()
  known.set(shape, table)
  return table
}

/** All that the table depends on. */
function shapeOf({ pieces }: Problem, want: Want, own: readonly number[]): string {
  let shape = `${want.leftover ? 'l' : ''}${want.byCourse ? 'c' : ''}${want.amount}`
  for (const p of own)
    shape += want.byCourse ? ` ${pieces[p]!.status}` : ` ${pieces[p]!.status}.${pieces[p]!.weight}`
  if (want.subjects) shape += `|${want.subjects}: ${own.map((p) => pieces[p]!.subject).join(' ')}`
  for (const part of want.including)
    shape += `|${part.least}. ${own.map((p) => Number(part.pieces.has(p))).join('')}`
  return shape
}

/** What has been taken, or could still be. */
interface Amount {
  sum: number
  /** Of it what is not merely possible; the same where nothing is. */
  real: number
  /** Distinct subjects, as bits. */
  subjects: number
  parts: readonly number[]
}

interface State extends Amount {
  label: number
}

class Builder {
  private readonly pieces: readonly Piece[]
  /** Some pieces are merely possible: they waste nothing, so what is real is counted apart. */
  private readonly mixed: boolean
  private readonly subjectBit = new Map<number, number>()
  /** By label, then by turn: what the pieces from it on could still give. */
  private readonly ahead: readonly (readonly Amount[])[]

  constructor(
    problem: Problem,
    private readonly want: Want,
    private readonly own: readonly number[]
  ) {
    this.pieces = own.map((p) => problem.pieces[p]!)
    this.mixed = this.pieces.some((piece) => piece.status === POSSIBLE)
    if (want.subjects)
      for (const { subject } of this.pieces)
        if (!this.subjectBit.has(subject)) this.subjectBit.set(subject, this.subjectBit.size)
    if (this.subjectBit.size > SUBJECTS_MOST)
      throw new RangeError(`courses of more than ${SUBJECTS_MOST} subjects for one need that counts them`)
    this.ahead = Array.from({ length: LEVELS }, (_, label) => {
      const sums = [this.nothing()]
      for (let k = own.length - 1; k >= 0; k--)
        sums.unshift(this.pieces[k]!.status > label ? sums[0]! : this.with(sums[0]!, k))
      return sums
    })
  }

  table(): Table {
    // A label that no piece of its own status brings is that of the firmer one; the softest one that
    // is brought takes every piece, so it gives way to an open want without anything lost.
    const brought = new Set(this.pieces.map((piece) => piece.status))
    let layer = new Layer()
    for (let label = 0; label < LEVELS; label++)
      if (brought.has(label)) layer.number(this.kept({ ...this.nothing(), label }, 0))
    if (!brought.size) layer.number(this.kept({ ...this.nothing(), label: 0 }, 0))
    const starts = layer.states.length
    const turns = this.pieces.map((piece, k): TableTurn => {
      const next = new Layer()
      const states = layer.states.length
      const pass = new Int32Array(states)
      const take = new Int32Array(states)
      const waste = new Int32Array(states)
      layer.states.forEach((state, i) => {
        pass[i] = next.number(this.kept(state, k + 1))
        const taken = this.attempt(state, k)
        take[i] = taken ? next.number(this.kept(taken, k + 1)) : NONE
        waste[i] = this.wasteOf(state, piece)
      })
      layer = next
      return { states, pass, take, waste }
    })
    return { starts, turns, labels: layer.states.map((state) => this.labelOf(state)) }
  }

  private wasteOf({ real }: State, piece: Piece): number {
    if (piece.status === POSSIBLE || this.want.leftover) return 0
    return Math.max(0, real + weightIn(this.want, piece) - this.want.amount)
  }

  private labelOf({ label, sum, real }: State): number {
    const { leftover, amount } = this.want
    if (!leftover) return label
    return sum + real >= amount ? 0 : LEVELS
  }

  private nothing(): Amount {
    return { sum: 0, real: 0, subjects: 0, parts: this.want.including.map(() => 0) }
  }

  private attempt(state: State, k: number): State | undefined {
    const { label, sum } = state
    const { amount, byCourse, leftover } = this.want
    const piece = this.pieces[k]!
    if (leftover) return this.filling(state, weightIn(this.want, piece))
    if (byCourse && sum >= amount) return undefined
    if (piece.status > label && weightIn(this.want, piece) > 0) return undefined
    return { label, ...this.with(state, k) }
  }

  /**
   * What is left over is taken while the want is not full: in some order, so the largest may come last. `real` is the
   * largest here, and `sum` what the others come to.
   */
  private filling(state: State, weight: number): State | undefined {
    const sum = state.sum + Math.min(state.real, weight)
    return sum < this.want.amount ? { ...state, sum, real: Math.max(state.real, weight) } : undefined
  }

  private with(amount: Amount, k: number): Amount {
    const { want } = this
    const piece = this.pieces[k]!
    const weight = weightIn(want, piece)
    const sum = Math.min(want.amount, amount.sum + weight)
    const real = piece.status === POSSIBLE ? amount.real : Math.min(want.amount, amount.real + weight)
    return {
      sum,
      real: this.mixed ? real : sum,
      subjects: want.subjects ? amount.subjects | (1 << this.subjectBit.get(piece.subject)!) : 0,
      parts: amount.parts.map((there, i) => {
        const { least, pieces } = want.including[i]!
        return pieces.has(this.own[k]!) ? Math.min(least, there + weight) : there
      })
    }
  }

  /** The state before the k-th piece with the firmest label that can still be kept, and no idle detail. */
  private kept(state: State, k: number): State {
    if (this.want.leftover) return state
    let { label } = state
    while (label < LEVELS && !this.inReach(state, label, k)) label++
    if (label === LEVELS) return { label, sum: state.sum, real: state.real, subjects: 0, parts: [] }
    const subjects =
      this.want.subjects && bits(state.subjects) >= this.want.subjects ? ALL_BITS : state.subjects
    return { label, sum: state.sum, real: state.real, subjects, parts: state.parts }
  }

  private inReach({ sum, subjects, parts }: State, label: number, k: number): boolean {
    const { want } = this
    const left = this.ahead[label]![k]!
    const room = want.byCourse ? want.amount - sum : Infinity
    if (sum + left.sum < want.amount) return false
    if (want.subjects - bits(subjects) > room || bits(subjects | left.subjects) < want.subjects) return false
    return want.including.every(({ least }, i) => {
      const missing = least - parts[i]!
      return missing <= room && missing <= left.parts[i]!
    })
  }
}

/** The states of one turn, numbered as they come. */
class Layer {
  readonly states: State[] = []
  private readonly ids = new Map<number | string, number>()

  number(state: State): number {
    const { label, sum, real, subjects, parts } = state
    const short = sum * (LEVELS + 1) + label
    const key =
      subjects || parts.length || real !== sum ? `${short} ${real} ${subjects} ${parts.join('.')}` : short
    const found = this.ids.get(key)
    if (found !== undefined) return found
    const id = this.states.push(state) - 1
    this.ids.set(key, id)
    return id
  }
}

function bits(mask: number): number {
  let left = mask
  let count = 0
  for (; left; count++) left &= left - 1
  return count
}
