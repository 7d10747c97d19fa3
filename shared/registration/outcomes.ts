/** What came of a line of a run; a line that is `waiting` has not been tried yet, of one `notTried` the run was cut off. */
export const OUTCOMES = ['waiting', 'registered', 'exchanged', 'refused', 'unsettled', 'notTried'] as const
export type Outcome = (typeof OUTCOMES)[number]
