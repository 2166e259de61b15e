/** The aliases that stand in a text, a line each or parted by commas. */
export function aliasesIn(text: string): string[] {
  return text
    .split(/[\n,;]+/)
    .map((one) => one.trim())
    .filter(Boolean)
}
