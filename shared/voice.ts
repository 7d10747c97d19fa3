/**
 * Sentences are written to the student. To somebody else who reads them they speak of the student: the
 * singular "they" takes the same verbs as "you", so only the pronouns change.
 */
import { capital } from '#shared/words'

/** What makes the "you" that follows it an object. */
const OBJECT_AFTER = /^(for|of|to|from|with|by|stops|placed|move|register|suits)$/i
const PRONOUN = /(?:(\S+) )?\b(you|your|yours)\b(?=([.,;:!?]|$)|)/gi

/** The sentence as it is said about a student: `Your advisor` becomes `Their advisor`, `for you` `for them`. */
export function aboutThem(text: string): string {
  return text.replace(PRONOUN, (_, before: string | undefined, pronoun: string, ends: string | undefined) => {
    const isObject = ends !== undefined || (before !== undefined && OBJECT_AFTER.test(before))
    const words: Record<string, string> = { you: isObject ? 'them' : 'they', your: 'their', yours: 'theirs' }
    const said = words[pronoun.toLowerCase()]!
    const begun = pronoun[0] === 'Y' ? capital(said) : said
    return before === undefined ? begun : `${before} ${begun}`
  })
}
