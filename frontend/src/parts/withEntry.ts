/** What was *chosen* with another entry under *key*; without it where it is nothing: an empty text, none. */
export function withEntry<T>(chosen: Record<string, T>, key: string, entry: T | null): Record<string, T> {
  const { [key]: _old, ...others } = chosen
  return entry ? { ...others, [key]: entry } : others
}
