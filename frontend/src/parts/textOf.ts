/** The text of a *file* as it was saved: in UTF-16 as its first bytes tell, else in UTF-8, else in the western letters of older programs. */
export async function textOf(file: Blob): Promise<string> {
  const bytes = new Uint8Array(await file.arrayBuffer())
  return new TextDecoder(encodingOf(bytes)).decode(bytes)
}

function encodingOf(bytes: Uint8Array): string {
  const [first, second] = bytes
  if ((first === 0xff && second === 0xfe) || second === 0) return 'utf-16le'
  if ((first === 0xfe && second === 0xff) || first === 0) return 'utf-16be'
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes)
    return 'utf-8'
  } catch {
    return 'windows-1252'
  }
}
