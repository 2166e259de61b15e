import { marked } from 'marked'

import guide from '../../../docs/guide.md?raw'

/** A section of the guide: its name, its words, and the same as HTML. */
export interface Place {
  name: string
  text: string
  html: string
}

/** The sections of the guide as it is written for all to read, without its pictures; a link is its words. */
export const PLACES: Place[] = guide
  .split(/^## /m)
  .slice(1)
  .map((section) => {
    const [name = '', ...lines] = section.split('\n')
    const text = lines
      .filter((line) => !line.startsWith('!['))
      .join('\n')
      .replace(/\[([^\]]+)\]\([^)]+\)/g, '$1')
    return { name, text, html: marked.parse(text, { async: false }) }
  })
