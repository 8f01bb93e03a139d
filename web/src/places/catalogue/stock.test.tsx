// @vitest-environment happy-dom
import { screen } from '@testing-library/react'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { endpoints, type CatalogueItem } from '@pelrin/contract'
import { Answers, inApp } from '../../testing/inApp.tsx'
import { CataloguePlace } from './CataloguePlace.tsx'
import { until } from '../../testing/until.ts'

const part = (stock: number): CatalogueItem => ({
  ...{ id: 'part', kind: 'chain', maker: 'Varrow', name: 'Eleven', speeds: [11], teeth: [], price: 2450, stock },
  ...{ kept: 0, onOrder: 0, reorderPoint: 1, low: false, version: 1, keptFor: [], offer: null },
  cells: { kind: 'chain', maker: 'Varrow', name: 'Eleven' },
  movements: [],
})

let server: Answers
beforeEach(() => {
  server = new Answers()
    .to(endpoints.catalogue, { parts: [], next: null, total: 0, low: 0 })
    .to(endpoints.systems, [])
    .to(endpoints.cataloguePart, part(2))
    .to(endpoints.moveStock, part(1))
})
afterEach(() => vi.unstubAllGlobals())

it('a form that was written is gone at once, however long the lists take, and the next key opens its own', async () => {
  const { user } = inApp(<CataloguePlace />, { at: '/catalogue/part', path: '/catalogue/:id' })
  await screen.findByRole('heading', { name: 'Varrow Eleven' })
  // Whatever is asked for anew after the write takes its time.
  server.to(endpoints.catalogue, () => new Promise(() => undefined))
  server.to(endpoints.cataloguePart, () => new Promise(() => undefined))
  await user.keyboard('u')
  await user.type(screen.getByRole('textbox', { name: 'How many were used?' }), '1{Enter}')
  await until(() => expect(screen.queryByRole('textbox', { name: 'How many were used?' })).toBeNull())
  expect(server.of(endpoints.moveStock)[0]?.body).toMatchObject({ kind: 'used', quantity: 1 })
  await user.keyboard('i')
  expect(screen.getByRole('textbox', { name: 'How many came?' })).toBeTruthy()
})
