import { tableText } from '#shared/tableText'

/** Hands rows to the browser to save as CSV; the mark at the front tells spreadsheets that it is UTF-8. */
export async function saveTable(name: string, rows: readonly object[]): Promise<void> {
  const written = await import('papaparse').catch(() => undefined)
  if (!written)
    return useNotice().say('The table was not saved: a part of the page could not be fetched. Try again.')
  saveFile(name, `\ufeff${tableText(rows, written.default)}`, 'text/csv')
}
