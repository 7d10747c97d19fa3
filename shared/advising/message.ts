/** A message to several students, with what differs filled in. */
import type { Instant } from '#core/time'
import { instantText } from '#shared/when'
import type { DeskRow } from './responses'

/** What stands in braces, and what it becomes. */
export const FIELDS = {
  name: 'the whole name',
  first: 'the first name',
  term: 'the term that is worked on',
  opens: 'when they may register',
  needed: 'credits without a place'
} as const
type Field = keyof typeof FIELDS

const IN_BRACES = /\{([^{}]*)\}/g
const isField = (name: string): name is Field => Object.hasOwn(FIELDS, name)

/** Fields of a message that there are not. */
export const unknownFields = (text: string): string[] => [
  ...new Set([...text.matchAll(IN_BRACES)].map((found) => found[1]!).filter((name) => !isField(name)))
]

/** The message as one student reads it; a field that there is not stays as it was written. */
export function filledIn(
  text: string,
  { name, opens, needed }: Pick<DeskRow, 'name' | 'opens' | 'needed'>,
  { term, zone }: { term: string; zone: string }
): string {
  const values: Record<Field, string> = {
    name,
    first: name.split(' ')[0]!,
    term,
    opens: opensText(opens, zone),
    needed: String(needed)
  }
  return text.replace(IN_BRACES, (whole, field: string) => (isField(field) ? values[field] : whole))
}

const opensText = (opens: Instant | null, zone: string): string =>
  opens === null ? 'at a time that is not set yet' : instantText(opens, zone)
