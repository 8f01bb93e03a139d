import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { orderQuantity, outstandingOf } from './reorder.ts'

const few = fc.integer({ min: 0, max: 400 })

describe('how many to order', () => {
  it('brings what is free or coming one above the reorder point, and is never none', () => {
    fc.assert(
      fc.property(few, few, few, few, (stock, kept, onOrder, reorderPoint) => {
        const quantity = orderQuantity({ stock, kept, onOrder, reorderPoint })
        const after = stock - kept + onOrder + quantity
        expect(quantity).toBeGreaterThanOrEqual(1)
        expect(after).toBeGreaterThan(reorderPoint)
        if (quantity > 1) expect(after).toBe(reorderPoint + 1)
      }),
    )
  })
  it('makes up for what was promised and is not there', () => {
    expect(orderQuantity({ stock: 1, kept: 4, onOrder: 0, reorderPoint: 2 })).toBe(6)
  })
})

describe('what of an order has not come', () => {
  it('is what was ordered less what came, and never less than none', () => {
    expect(outstandingOf({ quantity: 5, received: 2 })).toBe(3)
    expect(outstandingOf({ quantity: 5, received: 6 })).toBe(0)
  })
})
