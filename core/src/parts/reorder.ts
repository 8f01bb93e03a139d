/** What the shelf holds of a part, in pieces. */
export interface OnShelf {
  readonly stock: number
  /** Put aside for bikes. */
  readonly kept: number
  /** Ordered, and not here yet. */
  readonly onOrder: number
  /** It is time to order when there are this many or fewer, free or coming; 0: never by itself. */
  readonly reorderPoint: number
}

/** How many are there that nobody put aside; negative where more was promised than there is. */
export const freeOnShelf = ({ stock, kept }: Pick<OnShelf, 'stock' | 'kept'>): number => stock - kept

/** How many to order so that what is free and what comes is above the reorder point; at least one, since somebody asks. */
export const orderQuantity = (part: OnShelf): number =>
  Math.max(1, part.reorderPoint + 1 - (freeOnShelf(part) + part.onOrder))

/** How many of an order's line have not come yet. */
export const outstandingOf = ({
  quantity,
  received,
}: {
  readonly quantity: number
  readonly received: number
}): number => Math.max(0, quantity - received)
