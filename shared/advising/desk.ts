/** Who of an advisor's students needs them, and why. */
import type { Instant } from '#core/time'
import type { DeskRow } from './responses'

const WEEK_MS = 7 * 86_400_000

/** The student may register already, but for the sign-off. */
export function waitsAtTheGate({ adding, signedOffAt }: Pick<DeskRow, 'adding' | 'signedOffAt'>): boolean {
  return adding === 'open' && signedOffAt === null
}

/** They asked for a review of the term, and nothing speaks against signing it off as it is. */
export function isClear(row: DeskRow, term: string): boolean {
  const asked = row.reviews.some((one) => one.term === term)
  return (
    row.purpose === 'program' &&
    asked &&
    row.planned > 0 &&
    !row.findings &&
    !row.holds &&
    !row.waiversAsked &&
    !row.unread
  )
}

/** Reasons to look at a student, in order of urgency. */
export const DESK_REASONS = [
  'open',
  'soon',
  'asked',
  'words',
  'waivers',
  'overdue',
  'changed',
  'findings',
  'holds'
] as const
export type DeskReason = (typeof DESK_REASONS)[number]

export const DESK_WORDS: Record<DeskReason, string> = {
  open: 'open now, no sign-off',
  soon: 'open within a week, no sign-off',
  asked: 'asked for review',
  words: 'wrote something new',
  waivers: 'asked for a waiver',
  overdue: 'agreed and overdue',
  changed: 'changed since the sign-off',
  findings: 'routes with findings',
  holds: 'held from registering'
}

/** Every reason that applies to a student at an instant. */
export function deskReasons(row: DeskRow, now: Instant): DeskReason[] {
  const applies: Record<DeskReason, boolean> = {
    open: waitsAtTheGate(row),
    soon:
      row.signedOffAt === null && row.adding === 'notYet' && row.opens !== null && row.opens - now < WEEK_MS,
    asked: row.reviews.length > 0,
    words: row.unread > 0,
    overdue: row.overdue > 0,
    waivers: row.waiversAsked > 0,
    changed: row.changedSince,
    findings: row.findings > 0,
    holds: row.holds > 0
  }
  return DESK_REASONS.filter((reason) => applies[reason])
}
