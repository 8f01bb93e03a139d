import { expect, it } from 'vitest'
import { carryList } from '../index.ts'

it('a rider has the spare link and the tools for this bike along, and nothing that does not belong to it', () => {
  expect(carryList({ type: 'derailleur', openedBy: 'pliers', piece: 0 })).toEqual([
    'spare',
    'chain-tool',
    'link-pliers',
    'gloves',
  ])
  expect(carryList({ type: 'hub-gear', openedBy: 'hand', piece: 4 })).toEqual([
    'spare',
    'chain-tool',
    'spare-piece',
    'axle-spanner',
    'gloves',
  ])
  // Nobody said how it is opened: pliers open any.
  expect(carryList({ type: 'derailleur', openedBy: null, piece: 1 })).toContain('link-pliers')
})
