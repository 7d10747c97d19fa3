import Papa from 'papaparse'
import { describe, expect, it } from 'vitest'
import { tableText } from './saveTable'

describe('a table that is saved', () => {
  it('is read as it was, whatever stands in its cells', async () => {
    const rows = [{ Name: 'Ada, "the first"', Note: 'two\r\nlines' }]
    expect(Papa.parse(await tableText(rows), { header: true, skipEmptyLines: true }).data).toEqual(rows)
  })
  it.each(['=1+1', '+1', '-1', '@cell', '\t=1', '=HYPERLINK("http://elsewhere.example")'])(
    'holds no formula: %s',
    async (cell) => {
      const { data } = Papa.parse<string[]>(await tableText([{ Note: cell }]))
      expect(data[1]![0]).toBe(`'${cell}`)
    }
  )
})
