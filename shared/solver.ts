/** The general solver behind filling: HiGHS, loaded by whoever fills, since each place finds its file elsewhere. */
import type { Highs } from 'highs'
import type { Solve } from '#core/fill'

const FOUND = ['Optimal', 'Time limit reached', 'Solution limit reached', 'Iteration limit reached']

export function solverOf(highs: Pick<Highs, 'solve'>): Solve {
  return (model, { gap, nodes, seconds }) => {
    const { Status: status, Columns: columns } = highs.solve(model.text, {
      mip_rel_gap: gap,
      mip_max_nodes: nodes,
      time_limit: seconds
    })
    if (status === 'Infeasible' || status === 'Primal infeasible or unbounded') return { kind: 'infeasible' }
    const found: Record<string, { Primal?: number }> = columns
    const values = Object.values(found).map((one) => one.Primal)
    if (!FOUND.includes(status) || !values.every((one) => one !== undefined && Number.isFinite(one)))
      return { kind: 'unknown' }
    return {
      kind: 'solved',
      best: status === 'Optimal',
      value: (name) => found[name]?.Primal ?? 0
    }
  }
}
