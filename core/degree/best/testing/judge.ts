/**
 * The same question put to a general MILP solver (HiGHS), and to plain enumeration. For tests and the
 * benchmark: it shares no code with the search it judges, only the types of the question.
 */
import type { Highs } from 'highs'
import type { Problem } from '../problem'
import type { Alternative, Choice } from '../solve'

export interface Verdict {
  /** With what is planned, and with what could still be taken: nothing here. */
  opens: [number, number, number, number, number]
  waste: number
  /** Wants passed over; asked for only where no branches are to be chosen. */
  passed?: number
}

type Sum = Map<string, number>

/**
 * Opens settled by one weighted sum (weights far apart, numbers small), then the least waste, then, if
 * it is asked for, the fewest wants passed over.
 */
export function judge(highs: Highs, problem: Problem, root: Alternative, andOrder = false): Verdict {
  const rows: string[] = []
  const binary = new Set<string>()
  const general = new Set<string>()
  const row = (terms: [number, string][], sign: '<=' | '>=' | '=', right: number) => {
    if (!terms.length) return
    rows.push(` c${rows.length}: ${terms.map(text).join(' ')} ${sign} ${right}`)
  }
  const text = ([factor, name]: [number, string]) => `${factor < 0 ? '-' : '+'} ${Math.abs(factor)} ${name}`
  const yes = (name: string) => (binary.add(name), name)

  const { wants, pieces, caps, shares } = problem
  const on = (w: number) => yes(`on${w}`)
  const at = (p: number, w: number) => yes(`x${p}_${w}`)
  const met = (w: number, level: number) => yes(`y${w}_${level}`)

  // Which alternatives are chosen.
  let boxes = 0
  const under = (alternative: Alternative, owner: string | undefined): void => {
    for (const w of alternative.wants) {
      if (owner)
        row(
          [
            [1, on(w)],
            [-1, owner]
          ],
          '=',
          0
        )
      else row([[1, on(w)]], '=', 1)
    }
    for (const choice of alternative.choices) choose(choice, owner)
  }
  const choose = (choice: Choice, owner: string | undefined): void => {
    const picks = choice.of.map(() => yes(`z${boxes++}`))
    const all = picks.map((z): [number, string] => [1, z])
    if (owner) row([...all, [-choice.least, owner]], '=', 0)
    else row(all, '=', choice.least)
    choice.of.forEach((alternative, i) => under(alternative, picks[i]))
  }
  under(root, undefined)

  pieces.forEach((piece, p) => {
    row(
      piece.wants.map((w) => [1, at(p, w)]),
      '<=',
      1
    )
    for (const w of piece.wants)
      row(
        [
          [1, at(p, w)],
          [-1, on(w)]
        ],
        '<=',
        0
      )
  })
  const waste: [number, string][] = []
  wants.forEach((want, w) => {
    const own = pieces.flatMap((piece, p) => (piece.wants.includes(w) ? [p] : []))
    const worth = (p: number) => (want.byCourse ? 1 : pieces[p]!.weight)
    if (want.byCourse)
      row(
        own.map((p) => [1, at(p, w)]),
        '<=',
        want.amount
      )
    else {
      general.add(`s${w}`)
      row([...own.map((p): [number, string] => [worth(p), at(p, w)]), [-1, `s${w}`]], '<=', want.amount)
      waste.push([1, `s${w}`])
    }
    for (let level = 0; level < 4; level++) {
      const firm = own.filter((p) => pieces[p]!.status <= level)
      const y = met(w, level)
      row(
        [
          [1, y],
          [-1, on(w)]
        ],
        '<=',
        0
      )
      row([...firm.map((p): [number, string] => [worth(p), at(p, w)]), [-want.amount, y]], '>=', 0)
      for (const part of want.including)
        row(
          [
            ...firm.filter((p) => part.pieces.has(p)).map((p): [number, string] => [worth(p), at(p, w)]),
            [-part.least, y]
          ],
          '>=',
          0
        )
      if (want.subjects) {
        const subjects = [...new Set(firm.map((p) => pieces[p]!.subject))]
        for (const s of subjects)
          row(
            [
              [1, yes(`u${w}_${level}_${s}`)],
              ...firm.filter((p) => pieces[p]!.subject === s).map((p): [number, string] => [-1, at(p, w)])
            ],
            '<=',
            0
          )
        row(
          [...subjects.map((s): [number, string] => [1, `u${w}_${level}_${s}`]), [-want.subjects, y]],
          '>=',
          0
        )
      }
    }
  })
  const inside = (p: number, some: ReadonlySet<number>, factor: number): [number, string][] =>
    pieces[p]!.wants.filter((w) => some.has(w)).map((w) => [factor, at(p, w)])
  for (const cap of caps)
    row(
      [...cap.pieces].flatMap((p) => inside(p, cap.wants, pieces[p]!.weight)),
      '<=',
      cap.most
    )
  shares.forEach((share, n) => {
    const spent = share.pairs.map(({ one, other }, i): [number, string] => {
      const both = yes(`v${n}_${i}`)
      for (const p of one)
        for (const q of other)
          row([...inside(p, share.oneSide, 1), ...inside(q, share.otherSide, 1), [-1, both]], '<=', 1)
      return [pieces[one[0]!]!.weight, both]
    })
    row(spent, '<=', share.most)
  })

  const ask = (objective: [number, string][], extra: string[]): Sum => {
    const file = [
      'Minimize',
      ` obj: ${objective.map(text).join(' ') || '0 on0'}`,
      'Subject To',
      ...rows,
      ...extra,
      ...(general.size ? ['Bounds', ...[...general].map((name) => ` 0 <= ${name} <= 10000`)] : []),
      'Binary',
      ...[...binary].map((name) => ` ${name}`),
      'End'
    ].join('\n')
    const answer = highs.solve(file, { mip_rel_gap: 0, mip_abs_gap: 0.4 })
    if (answer.Status !== 'Optimal') throw new Error(`the judge ended ${answer.Status}`)
    return new Map(
      Object.entries(answer.Columns).map(([name, column]) => [name, (column as { Primal: number }).Primal])
    )
  }
  const opensAt = (point: Sum, level: number) =>
    wants.reduce(
      (sum, _, w) => sum + Math.round(point.get(`on${w}`)!) - Math.round(point.get(`y${w}_${level}`)!),
      0
    )
  const opens = (point: Sum): Verdict['opens'] => [
    opensAt(point, 0),
    opensAt(point, 1),
    opensAt(point, 2),
    opensAt(point, 3),
    opensAt(point, 3)
  ]
  const openTerms = (level: number, factor: number) =>
    wants.flatMap((_, w): [number, string][] => [
      [factor, on(w)],
      [-factor, met(w, level)]
    ])
  const merged = new Map<string, number>()
  for (let level = 0; level < 4; level++)
    for (const [factor, name] of openTerms(level, 48 ** level))
      merged.set(name, (merged.get(name) ?? 0) + factor)
  const best = opens(
    ask(
      [...merged].map(([name, factor]) => [factor, name]),
      []
    )
  )
  const kept = best
    .slice(0, 4)
    .map((open, level) => ` k${level}: ${openTerms(level, 1).map(text).join(' ')} <= ${open}`)
  const least = waste.length
    ? Math.round(
        sumOf(
          ask(waste, kept),
          waste.map(([, name]) => name)
        )
      )
    : 0
  if (!andOrder) return { opens: best, waste: least }
  if (waste.length) kept.push(` k4: ${waste.map(text).join(' ')} <= ${least}`)
  // A piece in a want of its own saves those that come after it, and itself.
  const saved = pieces.flatMap(({ wants: own }, p) =>
    own.map((w, turn): [number, string] => [own.length - turn, at(p, w)])
  )
  const all = pieces.reduce((sum, piece) => sum + piece.wants.length, 0)
  const last = ask(
    saved.map(([factor, name]) => [-factor, name]),
    kept
  )
  const total = saved.reduce((sum, [factor, name]) => sum + factor * Math.round(last.get(name)!), 0)
  return { opens: best, waste: least, passed: all - total }
}

function sumOf(point: Sum, names: readonly string[]): number {
  return names.reduce((sum, name) => sum + point.get(name)!, 0)
}
