/** Have the browser save *text* as a file. */
export function download(text: string, name: string, type = 'text/plain'): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(new Blob([text], { type }))
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 1000)
}
