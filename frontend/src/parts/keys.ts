/** Whether a key goes into a field, and is no command. */
export const typing = (event: KeyboardEvent): boolean =>
  event.target instanceof HTMLInputElement || event.target instanceof HTMLTextAreaElement
