import { expect, it } from 'vitest'
import { termCode } from '#core/ids'
import { codeNextYear, lastYear } from './terms'

it.each([
  ['AU27', 'AU28'],
  ['AU99', 'AU00'],
  ['W2028', 'W2029'],
  ['2027H', '2028H'],
  ['27Q1', '28Q1'],
  ['20271', '20281'],
  ['Q12028', 'Q12029'],
  ['T1', 'T1']
])('a term %s is %s a year later', (code, next) => expect(codeNextYear(termCode(code))).toBe(next))

it('offers no year after one whose codes name none', () => {
  const term = (code: string, start: string) => ({ code: termCode(code), start })
  expect(lastYear([term('T1', '2027-09-01'), term('W28', '2028-01-10')])).toEqual([term('W28', '2028-01-10')])
})
