/** What somebody reads of rendered markup: without styles and tags, blanks as one. */
export const textOf = (markup: string): string =>
  markup
    .replace(/<style[^>]*>.*?<\/style>/gs, '')
    .replace(/<[^>]*>/g, ' ')
    .replace(/\s+/g, ' ')
