/** What a program of an office may be let do: each token has some of these and nothing else. */
export const SCOPES = [
  'offer.read',
  'offer.change',
  'students.read',
  'record.change',
  'holds.change',
  'openings.read',
  'files.read',
  'files.change'
] as const
export type Scope = (typeof SCOPES)[number]

export const SCOPE_WORDS: Record<Scope, string> = {
  'offer.read': 'read the catalog, programs, terms, sections, seats and what is wanted',
  'offer.change': 'make, change, move and cancel sections',
  'students.read': 'find students and read their records, which is logged',
  'record.change': 'enter credit, scores and grades on records',
  'holds.change': 'see, place and lift holds',
  'openings.read': 'read openings and who is ready',
  'files.read': 'take everything along as files',
  'files.change': 'bring sets of files, take them over and back'
}
