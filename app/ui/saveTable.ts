import type Papa from 'papaparse'

/**
 * Hands rows to the browser to save as CSV: RFC 4180 with CRLF between records, the mark at the front tells spreadsheets that
 * it is UTF-8, and what would be reckoned there as a formula stays a text (OWASP, CSV injection).
 */
export async function saveTable(name: string, rows: readonly object[]): Promise<void> {
  const written = await import('papaparse').catch(() => undefined)
  if (!written)
    return useNotice().say('The table was not saved: a part of the page could not be fetched. Try again.')
  saveFile(name, `\ufeff${tableText(rows, written.default)}`, 'text/csv')
}

/** Written by a package that comes when a table is saved. */
export const tableText = (rows: readonly object[], { unparse }: Pick<typeof Papa, 'unparse'>): string =>
  `${unparse([...rows], { newline: '\r\n', escapeFormulae: true })}\r\n`
