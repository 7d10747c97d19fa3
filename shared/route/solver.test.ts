import { describe, expect, it } from 'vitest'
import { LinearModel, type Limits } from '#core/fill'
import { solverOf } from './solver'

describe('solverOf', () => {
  const limits: Limits = { gap: 0, nodes: 10, seconds: 1 }
  const model = new LinearModel()
  model.row(
    [
      [1, model.binary('a')],
      [1, model.binary('b')]
    ],
    '>=',
    1
  )
  /** A solver that gives this answer to everything. */
  const answering = (status: string, a: number) =>
    solverOf({
      solve: () => ({ Status: status, Columns: { a: { Primal: a }, b: { Primal: 0 } } }) as never
    })

  it('takes what a stopped solver found for an answer, not for the best', () => {
    expect(answering('Time limit reached', 1)(model, limits)).toMatchObject({ kind: 'solved', best: false })
    expect(answering('Optimal', 1)(model, limits)).toMatchObject({ kind: 'solved', best: true })
  })

  it('takes values that break a row for no answer, whatever the solver says', () => {
    expect(answering('Time limit reached', 0)(model, limits)).toEqual({ kind: 'unknown' })
    expect(answering('Time limit reached', NaN)(model, limits)).toEqual({ kind: 'unknown' })
    expect(answering('Optimal', 0)(model, limits)).toEqual({ kind: 'unknown' })
  })
})
