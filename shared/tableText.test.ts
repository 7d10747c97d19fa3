import Papa from 'papaparse'
import { describe, expect, it } from 'vitest'
import { tableText } from './tableText'

describe('a table that is saved', () => {
  it('is read as it was, whatever stands in its cells', () => {
    const rows = [{ Name: 'Ada, "the first"', Note: 'two\r\nlines' }]
    expect(Papa.parse(tableText(rows, Papa), { header: true, skipEmptyLines: true }).data).toEqual(rows)
  })
  it.each(['=1+1', '+1', '-1', '@cell', '\t=1', '=HYPERLINK("http://elsewhere.example")'])(
    'holds no formula: %s',
    (cell) => {
      const { data } = Papa.parse<string[]>(tableText([{ Note: cell }], Papa))
      expect(data[1]![0]).toBe(`'${cell}`)
    }
  )
})
