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
    const value = (name: string) => found[name]?.Primal ?? 0
    // Stopped before it had an answer, it gives values all the same.
    if (!FOUND.includes(status) || !model.isMetBy(value)) return { kind: 'unknown' }
    return { kind: 'solved', best: status === 'Optimal', value }
  }
}
