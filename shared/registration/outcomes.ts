/**
 * What a line of a receipt was to do; `offer` is the answer to an offered seat, `giveUp` what another line took its place
 * of, `release` is done by a rule of the term.
 */
export const LINE_ACTIONS = ['register', 'drop', 'leave', 'offer', 'release', 'giveUp'] as const
export type LineAction = (typeof LINE_ACTIONS)[number]

/** What came of a line of a run; a line that is `waiting` has not been tried yet, of one `notTried` the run was cut off. */
export const OUTCOMES = [
  'waiting',
  'registered',
  'exchanged',
  'inLine',
  'dropped',
  'released',
  'left',
  'declined',
  'refused',
  'unsettled',
  'notTried'
] as const
export type Outcome = (typeof OUTCOMES)[number]

/** Whether a line ended in a seat. */
export const isSeat = (outcome: Outcome): boolean => outcome === 'registered' || outcome === 'exchanged'

/** Whether a seat or a place in line was given up for it, which somebody else may wait for. */
export const freesSeats = (outcome: Outcome): boolean =>
  outcome === 'exchanged' || outcome === 'dropped' || outcome === 'left'
