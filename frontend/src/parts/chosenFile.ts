import type { Refusal } from '../api/client'
import limits from './limits.json'

/** The file that was chosen in a field, which is emptied for the next one; a refusal where it is larger than is read. */
export function chosenFile(event: Event, hint: string, largest = limits.file): { file?: File; refusal?: Refusal } {
  const field = event.target as HTMLInputElement
  const file = field.files?.[0]
  field.value = ''
  if (!file) return {}
  const size = largest >= 2 ** 20 ? `${largest / 2 ** 20} MB` : `${Math.round(largest / 1000)} kB`
  if (file.size > largest)
    return { refusal: { message: `The file is larger than ${size}.`, hint, position: 0, length: 0 } }
  return { file }
}

/** How a document is sent: as it is. */
export const asDocument = (file: File) => ({
  body: file as never,
  bodySerializer: (body: unknown) => body as Blob,
  headers: { 'Content-Type': 'application/json' },
})
