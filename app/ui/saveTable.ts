import Papa from 'papaparse'

/**
 * Hands rows to the browser to save as CSV: RFC 4180 with CRLF between records, the mark at the front tells spreadsheets that
 * it is UTF-8, and what would be reckoned there as a formula stays a text (OWASP, CSV injection).
 */
export const saveTable = (name: string, rows: readonly object[]): void =>
  saveFile(name, `\ufeff${tableText(rows)}`, 'text/csv')

export const tableText = (rows: readonly object[]): string =>
  `${Papa.unparse([...rows], { newline: '\r\n', escapeFormulae: true })}\r\n`
