/** Codes of sections. */
import { max } from 'drizzle-orm'
import { sectionCodeAt } from '#core/formats'
import type { Transaction } from '#server/db/connect'
import * as t from '#server/db/schema/index'

/** Codes that no section has, far from those issued before them, so that a slip of the hand is no other section. */
export async function freeCodes(tx: Transaction, wanted: number): Promise<string[]> {
  const [{ highest } = { highest: 0 }] = await tx.select({ highest: max(t.section.id) }).from(t.section)
  const taken = new Set((await tx.select({ code: t.section.code }).from(t.section)).map((row) => row.code))
  const found: string[] = []
  for (let n = (highest ?? 0) + 1; found.length < wanted; n++) {
    const code = sectionCodeAt((n * 257) % 32 ** 4)
    if (!code || taken.has(code)) continue
    taken.add(code)
    found.push(code)
  }
  return found
}
