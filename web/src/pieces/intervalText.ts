import type { TFunction } from 'i18next'
import { percent } from '../messages/format.ts'

/** What marks leave open, in words: over one, under one, or between two. */
export function intervalText(
  { over, under }: { readonly over?: number | null; readonly under?: number | null },
  t: TFunction,
): string {
  const edges = { over: percent(over ?? 0), under: percent(under ?? 0) }
  if (over != null && under != null) return t('verdict.between', edges)
  return over != null ? t('verdict.over', edges) : t('verdict.under', edges)
}

/** What a spot was read as, in words: its elongation, or what marks leave open. */
export const elongationText = (
  read: { readonly value?: number | null; readonly over?: number | null; readonly under?: number | null },
  t: TFunction,
): string => (read.value != null ? `${percent(read.value)} %` : intervalText(read, t))
