import type Papa from 'papaparse'

/**
 * Rows as CSV: RFC 4180 with CRLF between records; what would be reckoned as a formula in a spreadsheet stays a text (OWASP,
 * CSV injection). Written by a package that may come later.
 */
export const tableText = (rows: readonly object[], { unparse }: Pick<typeof Papa, 'unparse'>): string =>
  `${unparse([...rows], { newline: '\r\n', escapeFormulae: true })}\r\n`
