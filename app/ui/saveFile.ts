/** Hands a file to the browser to save. */
export const saveFile = (name: string, text: string, type: string): void =>
  saveBlob(name, new Blob([text], { type }))

export function saveBlob(name: string, content: Blob): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(content)
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 1000)
}
