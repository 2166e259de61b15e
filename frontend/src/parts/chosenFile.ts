import type { Refusal } from '../api/client'

/** Why a file is not read that has more than *largest* bytes. */
export function tooLarge(largest: number, hint: string): Refusal {
  const size = largest >= 2 ** 20 ? `${largest / 2 ** 20} MB` : `${Math.round(largest / 1000)} kB`
  return { message: `The file is larger than ${size}.`, hint, position: 0, length: 0 }
}

/** How a document is sent: as it is. */
export const asDocument = (file: File) => ({
  body: file as never,
  bodySerializer: (body: unknown) => body as Blob,
  headers: { 'Content-Type': 'application/json' },
})
