/** The tag in what a scanner typed: the address a tag's code holds. Anything else is as it was typed. */
export function scannedTag(text: string): string {
  const tag = /^https?:\/\/[^/\s]+\/t\/([^/\s]+)$/i.exec(text.trim())?.[1]
  if (tag === undefined) return text
  try {
    return decodeURIComponent(tag)
  } catch {
    return text
  }
}
