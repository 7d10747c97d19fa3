/**
 * Seats that are not paid for: told twice, then given back. Nobody loses a seat without having been told, so the days count
 * from when it was told, however late that was. Days are day numbers of the campus.
 */

/** Days before the due date from which it is told for the first time. */
export const FIRST_NOTICE_DAYS = 14
/** And for the last time. */
const LAST_NOTICE_DAYS = 3
/** Days that the last notice leaves. */
const GRACE = 3

export interface Unpaid {
  due: number
  today: number
  /** The last day on which courses can be added: what is lost can be had anew until then, so it is given back until then only. */
  lastAdd: number
  /** Days on which it was told, in order, since something is owed. */
  notices: readonly number[]
}

/** What is to be done today about somebody who owes for a term. */
export function unpaidStep(unpaid: Unpaid): 'none' | 'notice' | 'release' {
  const { due, today, lastAdd, notices } = unpaid
  const left = due - today
  if (today > lastAdd) return 'none'
  const [first, last] = notices
  if (first === undefined) return left <= FIRST_NOTICE_DAYS ? 'notice' : 'none'
  if (last === undefined) return left <= LAST_NOTICE_DAYS && today > first ? 'notice' : 'none'
  return today >= releaseDay(unpaid)! ? 'release' : 'none'
}

/** The day on which seats are given back if nothing is paid until then; undefined where they no longer are. */
export function releaseDay({ due, today, lastAdd, notices }: Unpaid): number | undefined {
  const first = notices[0] ?? Math.max(today, due - FIRST_NOTICE_DAYS)
  const last = notices[1] ?? Math.max(today, due - LAST_NOTICE_DAYS, first + 1)
  const day = Math.max(due + 1, last + GRACE)
  return day <= lastAdd ? day : undefined
}
