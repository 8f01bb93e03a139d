import { useVirtualizer } from '@tanstack/react-virtual'
import type { InfiniteData, UseInfiniteQueryResult } from '@tanstack/react-query'
import { useEffect, useMemo, useRef, type RefObject } from 'react'
import { useOnPaper } from './useOnPaper.ts'

/** A list asked for page by page, of which only the rows in sight are drawn. */
export interface Endless<Page, Row> {
  /** All that has come so far. */
  readonly rows: readonly Row[]
  /** The first page, with what it says of the whole. */
  readonly first: Page | undefined
  readonly scroller: RefObject<HTMLDivElement | null>
  /** Those to draw: those in sight, on paper all that came; each with how far down it stands, px. */
  readonly drawn: readonly { readonly index: number; readonly start: number }[]
  /** How high all of them are, px. */
  readonly heightPx: number
  readonly show: (index: number) => void
  readonly comingMore: boolean
}

/**
 * @param query what answers in pages
 * @param rowsOf what is in a page; one function, made once
 * @param rowPx how high each row is
 */
export function useEndless<Page, Row>(
  query: UseInfiniteQueryResult<InfiniteData<Page>>,
  rowsOf: (page: Page) => readonly Row[],
  rowPx: number,
): Endless<Page, Row> {
  const { data, hasNextPage, isFetchingNextPage, fetchNextPage } = query
  const rows = useMemo(() => data?.pages.flatMap(rowsOf) ?? [], [data, rowsOf])
  const scroller = useRef<HTMLDivElement>(null)
  const onPaper = useOnPaper()
  // oxlint-disable-next-line react/incompatible-library -- what it gives is read in this very pass; nothing memoizes it.
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowPx,
    overscan: 12,
  })
  const lastShown = virtual.getVirtualItems().at(-1)?.index ?? 0
  useEffect(() => {
    // Asked for before its place comes into sight.
    if (hasNextPage && !isFetchingNextPage && lastShown >= rows.length - 20) void fetchNextPage()
  }, [hasNextPage, isFetchingNextPage, fetchNextPage, lastShown, rows.length])
  return {
    rows,
    first: data?.pages[0],
    scroller,
    drawn: onPaper ? rows.map((_, index) => ({ index, start: index * rowPx })) : virtual.getVirtualItems(),
    heightPx: virtual.getTotalSize(),
    show: (index) => virtual.scrollToIndex(index),
    comingMore: isFetchingNextPage,
  }
}
