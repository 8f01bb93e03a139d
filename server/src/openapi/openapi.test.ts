import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { ASSUMPTIONS } from '@pelrin/core'
import OpenApiParser from '@apidevtools/swagger-parser'
import { Validator } from '@seriousme/openapi-schema-validator'
import * as v from 'valibot'
import { endpoints, fileRoutes } from '@pelrin/contract'
import { problems } from '@pelrin/contract/messages'
import { startShop, type RunningShop } from '../testing/shop.ts'

let shop: RunningShop
beforeAll(async () => {
  shop = await startShop()
})
afterAll(() => shop.close())

interface Document {
  openapi: string
  tags: { name: string }[]
  paths: Record<
    string,
    Record<
      string,
      {
        tags: string[]
        parameters?: { name: string; in: string }[]
        requestBody?: unknown
        responses: Record<string, unknown>
      }
    >
  >
}

const document = async (): Promise<Document> =>
  (await (await fetch(`${shop.base}/api/v1/openapi.json`)).json()) as Document

describe('the API document', () => {
  it('names every endpoint with what it takes', async () => {
    const { openapi, paths } = await document()
    expect(openapi).toBe('3.1.0')
    for (const endpoint of Object.values(endpoints)) {
      const operation = paths[`/api/v1${endpoint.path.replace(/:(\w+)/g, '{$1}')}`]?.[endpoint.method.toLowerCase()]
      expect(operation, endpoint.name).toBeDefined()
      const names = operation?.parameters?.map((parameter) => parameter.name) ?? []
      expect(names.includes('Idempotency-Key')).toBe('creates' in endpoint && endpoint.creates === true)
      expect(operation?.requestBody !== undefined).toBe(endpoint.body !== undefined)
    }
  })
  it('names every address of files and streams, with the type of what goes in and comes out', async () => {
    const { paths } = await document()
    for (const { path, method, gives } of Object.values(fileRoutes)) {
      const operation = paths[`/api/v1${path.replace(/:(\w+)/g, '{$1}')}`]?.[method.toLowerCase()]
      const done = operation?.responses['200'] as { content: Record<string, unknown> } | undefined
      expect(Object.keys(done?.content ?? {}), path).toEqual([gives])
    }
  })
  it('passes two validators that know nothing of each other', async () => {
    const first = await new Validator().validate((await document()) as never)
    expect(first.errors ?? []).toEqual([])
    expect(first.valid).toBe(true)
    await OpenApiParser.validate((await document()) as never)
  })
  it('shows a body for each that takes one, which the server would read', async () => {
    const { paths } = await document()
    const wrong = Object.values(endpoints).flatMap(({ name, path, method, body }) => {
      if (!body) return []
      const operation = paths[`/api/v1${path.replace(/:(\w+)/g, '{$1}')}`]?.[method.toLowerCase()]
      const taken = operation?.requestBody as { content: { 'application/json': { example: unknown } } } | undefined
      const example = taken?.content['application/json'].example
      return v.safeParse(body, example).success ? [] : [`${name}: ${JSON.stringify(example)}`]
    })
    expect(wrong).toEqual([])
  })
  it('has every operation under its capability, with the ways it can be refused', async () => {
    const { paths, tags } = await document()
    const known = new Set(tags.map(({ name }) => name))
    for (const [path, operations] of Object.entries(paths))
      for (const [method, operation] of Object.entries(operations)) {
        expect(
          operation.tags.every((tag) => known.has(tag)),
          path,
        ).toBe(true)
        expect(operation.responses).toHaveProperty('400')
        expect('404' in operation.responses, `${method} ${path}`).toBe(path.includes('{'))
      }
  })
  it('has a page on which every problem is found by its type', async () => {
    const page = await (await fetch(`${shop.base}/docs/problems`)).text()
    for (const code of Object.keys(problems)) expect(page).toContain(`id="${code}"`)
    const { problem } = await shop.device.ask(endpoints.rack, { query: { cursor: 'x' } })
    const [address, anchor] = problem.type.split('#')
    expect((await fetch(shop.base + address!)).status).toBe(200)
    expect(page).toContain(`id="${anchor}"`)
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
