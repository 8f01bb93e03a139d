/** So much longer than English other languages run, of a sentence's length. */
const LONGER = 0.35

/**
 * A catalogue every text of which is told apart from data, and a third longer: between brackets, with letters behind. What stands on a
 * screen without brackets is not from the catalogue; what is cut off here will be in some language.
 *
 * @param texts a catalogue, or a part of it; what stands between double braces stays
 */
export function pseudo<Texts>(texts: Texts): Texts {
  if (typeof texts === 'string') return pseudoText(texts) as Texts
  if (Array.isArray(texts)) return texts.map((one: unknown) => pseudo(one)) as Texts
  return Object.fromEntries(Object.entries(texts as object).map(([key, one]) => [key, pseudo(one as unknown)])) as Texts
}

function pseudoText(text: string): string {
  const said = text.replace(/\{\{\w+\}\}/g, '')
  if (said.trim() === '') return text
  const more = Math.ceil(said.length * LONGER)
  // In words no longer than those of a language: they break where its would.
  const words = Array.from({ length: Math.ceil(more / 7) }, (_, i) => 'ö'.repeat(Math.min(6, more - 7 * i)))
  return `⟦${text}${more <= 3 ? 'ö'.repeat(more) : ` ${words.join(' ')}`}⟧`
}
