import { STANDINGS, type Standing } from './rule'

/** Credits from which an undergraduate stands in the second, third and fourth year (common practice). */
const THRESHOLDS: readonly [number, Standing][] = [
  [90, 'senior'],
  [60, 'junior'],
  [30, 'sophomore']
]

/** Credits from which a standing is reached; none ever for that of graduates. */
export function standingCredits(standing: Standing): number {
  if (standing === 'graduate') return Infinity
  return THRESHOLDS.find(([, one]) => one === standing)?.[0] ?? 0
}

/** The standing that credits give, never below the one on record. */
export function standingBy(credits: number, onRecord: Standing): Standing {
  const byCredits = THRESHOLDS.find(([least]) => credits >= least)?.[1] ?? 'freshman'
  return STANDINGS.indexOf(byCredits) > STANDINGS.indexOf(onRecord) ? byCredits : onRecord
}
