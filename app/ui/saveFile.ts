/** Hands a file to the browser to save. */
export function saveFile(name: string, text: string, type: string): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(new Blob([text], { type }))
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 1000)
}

/** RFC 4180 with CRLF between records; the mark at the front tells spreadsheets that it is UTF-8. */
export const csvText = (lines: string) => `\ufeff${lines}\r\n`
