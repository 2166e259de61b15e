/**
 * The text of a *file* as it was saved: in UTF-16 as its first bytes tell, else in UTF-8, else in the western letters
 * of older programs.
 */
export async function textOf(file: Blob): Promise<string> {
  const bytes = new Uint8Array(await file.arrayBuffer())
  const [first, second] = bytes
  if ((first === 0xff && second === 0xfe) || second === 0) return new TextDecoder('utf-16le').decode(bytes)
  if ((first === 0xfe && second === 0xff) || first === 0) return new TextDecoder('utf-16be').decode(bytes)
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    return new TextDecoder('windows-1252').decode(bytes)
  }
}
