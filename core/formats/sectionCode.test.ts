import { Mod37_36 } from '@konfirm/iso7064'
import { describe, expect, it } from 'vitest'
import { checkCharacter, parseSectionCode, sectionCodeAt } from './sectionCode'

describe('section codes', () => {
  it('computes the published example of ISO 7064 MOD 37,36', () => {
    // Published with the Global Release Identifier standard: A12425GABC1234002 has check character M.
    expect(checkCharacter('A12425GABC1234002')).toBe('M')
  })
  it('agrees with a reference library on a thousand bodies', () => {
    const bodies = Array.from({ length: 1000 }, (_, n) => (n * 1_299_709).toString(36).toUpperCase())
    expect(new Set(bodies).size).toBe(1000)
    for (const body of bodies) expect(checkCharacter(body)).toBe(Mod37_36.checksum(body))
  })
  it('issues distinct codes of five characters without 0, O, 1 and I', () => {
    const codes = Array.from({ length: 5000 }, (_, n) => sectionCodeAt(n * 97)).filter((c) => c !== undefined)
    expect(codes.length).toBeGreaterThan(4000)
    expect(new Set(codes).size).toBe(codes.length)
    for (const code of codes) expect(code).toMatch(/^[2-9A-HJ-NP-Z]{5}$/)
  })
  it('reads back what it issued, typed in lower case with a blank', () => {
    const code = sectionCodeAt(123_457)!
    const typed = `${code.slice(0, 2)} ${code.slice(2)}`.toLowerCase()
    expect(parseSectionCode(typed)).toEqual({ ok: true, code })
  })
  it('refuses every single wrong character', () => {
    const code = sectionCodeAt(123_457)!
    let tried = 0
    for (let at = 0; at < code.length; at++) {
      for (const other of '23456789ABCDEFGHJKLMNPQRSTUVWXYZ') {
        if (other === code[at]) continue
        tried++
        expect(parseSectionCode(code.slice(0, at) + other + code.slice(at + 1)).ok).toBe(false)
      }
    }
    expect(tried).toBe(5 * 31)
  })
  it('says what is wrong', () => {
    expect(parseSectionCode('ABC')).toEqual({ ok: false, fault: 'length' })
    expect(parseSectionCode('ABC0D')).toEqual({ ok: false, fault: 'character' })
  })
  it('refuses a number past the last body', () => {
    expect(() => sectionCodeAt(32 ** 4)).toThrow(RangeError)
  })
})
