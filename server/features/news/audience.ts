/** Who hears which news: what somebody may not see, they do not hear of. */
import type { Who } from '#shared/accounts/responses'
import { asDecider } from '#shared/advising/asking'
import type { News } from '#shared/news/responses'
import type { Reader } from '#server/db/connect'
import { advisedBy } from '#server/features/advising/advisedBy'

/** Whether somebody hears of it, as their students stand now. */
export async function readAudience(db: Reader, who: Who): Promise<(news: News) => boolean> {
  const students = new Set<number>()
  if (who.role === 'programAdvisor' || who.role === 'supportAdvisor') {
    const rows = await advisedBy(db, who.id)
    for (const { student } of rows) students.add(student)
  }
  return ({ student, kind }) => {
    if (kind === 'requests') return asDecider(who.role) !== undefined
    if (student === null) return true
    if (student === who.student) return kind !== 'advisors'
    return kind !== 'own' && (who.role === 'registrar' || students.has(student))
  }
}

/** Of a row of news those that say something of their own: a term's seats once, and nothing that a later one says too. */
export function withoutRepeats<T extends { news: News }>(heard: readonly T[]): T[] {
  const last = new Map(heard.map((one) => [sayingOf(one.news), one]))
  return heard.filter((one) => last.get(sayingOf(one.news)) === one)
}

const sayingOf = ({ kind, student, by, change, route, term }: News) =>
  kind === 'seats' || kind === 'clock'
    ? `${kind} ${term}`
    : `${kind} ${student} ${by} ${change} ${route} ${term}`
