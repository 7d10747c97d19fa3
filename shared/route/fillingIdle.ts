/** What of a filling nothing asks for. */
import type { Audit, NeedResult, PlannedCourse } from '#core/degree'
import { blockers } from '#core/route'
import type { Reread } from './filling'

/** Leaves out what counts nowhere, or as free choice that is filled without it, and is asked for by nothing. */
export function withoutIdle(
  planned: readonly PlannedCourse[],
  placed: readonly PlannedCourse[],
  reread: Reread
): PlannedCourse[] {
  let kept = [...planned]
  const worth = (some: readonly PlannedCourse[]) => {
    const { audits, context } = reread([...placed, ...some])
    const blocked = context.planned.filter((one) => {
      const term = context.terms.find((t) => t.code === one.term)!
      return blockers(context, one.course, term).length > 0
    })
    const missing = openNeeds(audits).reduce((sum, need) => sum + need.missing + weightOf(need.lacks), 0)
    return { audits, missing, blocked: blocked.length }
  }
  let now = worth(kept)
  // Once more after any have gone: what asked for another may be gone by then.
  for (let before; before !== kept;) {
    before = kept
    for (const one of before) {
      if (now.audits.some((audit) => countsAsAsked(audit, `${one.course}@${one.term}`))) continue
      const fewer = kept.filter((other) => other !== one)
      const then = worth(fewer)
      if (then.missing > now.missing || then.blocked > now.blocked) continue
      kept = fewer
      now = then
    }
  }
  return kept
}

/** What a need lacks beside its amount. */
const weightOf = ({ subjects, parts }: NeedResult['lacks']) =>
  subjects + parts.reduce((sum, part) => sum + part.amount, 0)

/** Whether a course counts toward something else than free choice. */
function countsAsAsked(audit: Audit, key: string): boolean {
  const need = audit.whereItCounts.get(key)?.need
  const area = audit.areas.find((one) => one.area.id === need?.area)
  return area !== undefined && !area.area.free
}

export function openNeeds(audits: readonly Audit[]): NeedResult[] {
  return audits.flatMap((audit) =>
    audit.areas.flatMap((area) => area.needs.filter((need) => need.state === 'needed'))
  )
}
