/** A day and an hour as one says them. */
export const momentOf = (moment: string): string =>
  new Date(moment).toLocaleString('en-GB', { day: 'numeric', month: 'long', hour: '2-digit', minute: '2-digit' })
