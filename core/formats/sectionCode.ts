/**
 * Section codes: four characters of body and one check character by ISO 7064 MOD 37,36.
 *
 * None of the five is 0, O, 1 or I, which people misread; a body whose check character would be one
 * of them is never issued. The check catches every single wrong character and almost every swap of
 * neighbours.
 */
import type { SectionCode } from '../ids'

const ALPHABET = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ'
const MISREAD = /[01OI]/
const ISSUED = [...ALPHABET].filter((c) => !MISREAD.test(c))
const BODY = 4

/**
 * The check character that ISO 7064 MOD 37,36 (hybrid system) gives for a text of digits and capital
 * letters. @throws RangeError on any other character.
 */
export function checkCharacter(text: string): string {
  const modulus = ALPHABET.length
  let carry = modulus
  for (const character of text) {
    const value = ALPHABET.indexOf(character)
    if (value < 0) throw new RangeError(`expected digits and capital letters, got "${character}"`)
    const sum = (carry + value) % modulus || modulus
    carry = (sum * 2) % (modulus + 1)
  }
  return ALPHABET[(modulus + 1 - carry) % modulus]!
}

/**
 * The n-th section code that may be issued, counting from 0; undefined when that body's check
 * character would be misread. Distinct n give distinct codes. @throws RangeError past the last body.
 */
export function sectionCodeAt(n: number): SectionCode | undefined {
  if (!Number.isInteger(n) || n < 0 || n >= ISSUED.length ** BODY) {
    throw new RangeError(`expected a number below ${ISSUED.length ** BODY}, got ${n}`)
  }
  let body = ''
  for (let left = n, i = 0; i < BODY; i++, left = Math.floor(left / ISSUED.length)) {
    body = ISSUED[left % ISSUED.length] + body
  }
  const check = checkCharacter(body)
  return MISREAD.test(check) ? undefined : ((body + check) as SectionCode)
}

export type SectionCodeFault = 'length' | 'character' | 'check'

/** Reads what somebody typed: case and blanks are forgiven, a wrong character is not. */
export function parseSectionCode(
  text: string
): { ok: true; code: SectionCode } | { ok: false; fault: SectionCodeFault } {
  const code = text.replace(/\s/g, '').toUpperCase()
  if (code.length !== BODY + 1) return { ok: false, fault: 'length' }
  if (![...code].every((c) => ISSUED.includes(c))) return { ok: false, fault: 'character' }
  if (checkCharacter(code.slice(0, BODY)) !== code[BODY]) return { ok: false, fault: 'check' }
  return { ok: true, code: code as SectionCode }
}
