import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { ASSUMPTIONS } from '@pelrin/core'
import { endpoints } from '@pelrin/contract'
import { startShop, type RunningShop } from '../testing/shop.ts'

let shop: RunningShop
beforeAll(async () => {
  shop = await startShop()
})
afterAll(() => shop.close())

interface Document {
  openapi: string
  paths: Record<
    string,
    Record<
      string,
      { parameters?: { name: string; in: string }[]; requestBody?: unknown; responses: Record<string, unknown> }
    >
  >
}

describe('the API document', () => {
  it('names every endpoint with what it takes', async () => {
    const document = (await (await fetch(`${shop.base}/api/v1/openapi.json`)).json()) as Document
    expect(document.openapi).toBe('3.1.0')
    for (const endpoint of Object.values(endpoints)) {
      const operation =
        document.paths[`/api/v1${endpoint.path.replace(/:(\w+)/g, '{$1}')}`]?.[endpoint.method.toLowerCase()]
      expect(operation, endpoint.name).toBeDefined()
      const names = operation?.parameters?.map((parameter) => parameter.name) ?? []
      expect(names.includes('Idempotency-Key')).toBe('creates' in endpoint && endpoint.creates === true)
      expect(operation?.requestBody !== undefined).toBe(endpoint.body !== undefined)
    }
  })
  it('declares every value a shop may set, with its range and what is shipped', async () => {
    const { components } = (await (await fetch(`${shop.base}/api/v1/openapi.json`)).json()) as {
      components: { schemas: { Assumptions: { properties: Record<string, object> } } }
    }
    const { properties } = components.schemas.Assumptions
    expect(Object.keys(properties)).toEqual(ASSUMPTIONS.map(({ key }) => key))
    expect(properties['verdict.changeAt']).toMatchObject({ type: 'number', minimum: 0.2, maximum: 0.9, default: 0.5 })
  })
  it('can be read on a page without inline script', async () => {
    const page = await (await fetch(`${shop.base}/docs/api`)).text()
    expect(page).not.toMatch(/<script>(?!<\/script>)/)
    for (const [, source] of page.matchAll(/(?:src|href)="([^"]+)"/g))
      expect((await fetch(shop.base + (source ?? ''))).status, source).toBe(200)
  })
})

describe('an address there is not', () => {
  it('is answered as a problem under /api, with the request’s id', async () => {
    const response = await shop.device.raw('GET', '/api/v1/nothing')
    expect(response.status).toBe(404)
    expect(response.headers.get('content-type')).toContain('application/problem+json')
    const problem = (await response.json()) as { requestId: string }
    expect(problem.requestId).toBe(response.headers.get('x-request-id'))
  })
  it('says when only the method is wrong', async () => {
    expect((await shop.device.raw('PATCH', '/api/v1/readings')).status).toBe(405)
  })
})
