/**
 * Hands rows to the browser to save as CSV: RFC 4180 with CRLF between records, the mark at the front tells spreadsheets that
 * it is UTF-8, and what would be reckoned there as a formula stays a text (OWASP, CSV injection).
 */
export async function saveTable(name: string, rows: readonly object[]): Promise<void> {
  saveFile(name, `\ufeff${await tableText(rows)}`, 'text/csv')
}

/** Written by a package that comes when a table is saved. */
export async function tableText(rows: readonly object[]): Promise<string> {
  const { default: Papa } = await import('papaparse')
  return `${Papa.unparse([...rows], { newline: '\r\n', escapeFormulae: true })}\r\n`
}
