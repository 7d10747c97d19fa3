import { describe, expect, it } from 'vitest'
import { filledIn, unknownFields } from './message'

const row = { name: 'Imke Varga', opens: Date.parse('2027-04-12T11:00:00Z'), needed: 21 }
const about = { term: 'Autumn 2027', zone: 'America/New_York' }

describe('a message to several', () => {
  it('has what differs filled in', () => {
    expect(
      filledIn('{first}, {term} opens for you {opens}; {needed} credits have no place.', row, about)
    ).toBe('Imke, Autumn 2027 opens for you Mon 12 Apr 2027, 7:00 am; 21 credits have no place.')
    expect(filledIn('{name}: {opens}', { ...row, opens: null }, about)).toBe(
      'Imke Varga: at a time that is not set yet'
    )
  })
  it('names fields that there are not, once each, and leaves them as they were written', () => {
    expect(unknownFields('{first} {frist} {frist} { name} {}')).toEqual(['frist', ' name', ''])
    expect(unknownFields('no fields, {first}')).toEqual([])
    expect(filledIn('{frist}', row, about)).toBe('{frist}')
    expect(unknownFields('{constructor}')).toEqual(['constructor'])
  })
  it('fills nothing into what it has filled in', () => {
    expect(filledIn('{name}', { ...row, name: '{term}' }, about)).toBe('{term}')
  })
})
