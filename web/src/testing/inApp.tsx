import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { cleanup, configure, fireEvent, render, screen } from '@testing-library/react'
import { userEvent, type UserEvent } from '@testing-library/user-event'
import type { ReactElement } from 'react'
import { createMemoryRouter, RouterProvider } from 'react-router'
import { vi } from 'vitest'
import type { Endpoint, Problem, Session } from '@pelrin/contract'
import type * as v from 'valibot'
import { SurroundingsContext } from '../app/surroundings.ts'
import { RoleContext } from '../keys/role.ts'
import { TypingProvider } from '../keys/typing.tsx'
import { messages } from '../messages/index.ts'
import { problemText } from '../messages/said.ts'

// Whether something is hidden by a style is not what these tests are about, and takes most of their time to find out.
configure({ defaultHidden: true })

/** What was asked of the server that is not there. */
export interface Asked {
  readonly name: string
  readonly params: Readonly<Record<string, string>>
  readonly query: Readonly<Record<string, string>>
  readonly body: unknown
  readonly headers: Readonly<Record<string, string>>
}
type AnyEndpoint = Endpoint<
  v.GenericSchema | undefined,
  v.GenericSchema | undefined,
  v.GenericSchema | undefined,
  v.GenericSchema | undefined
>
interface Answer {
  readonly status: number
  readonly body: unknown
}
type Reply = (asked: Asked) => Answer | Promise<Answer>

/** A server that answers what a test says, and keeps what it was asked. */
export class Answers {
  readonly asked: Asked[] = []
  private readonly replies = new Map<string, { endpoint: AnyEndpoint; reply: Reply }>()

  constructor() {
    vi.stubGlobal('fetch', (url: string, init: RequestInit) => this.answer(url, init))
  }
  /** From now on an endpoint answers with this, or with what this makes of what is asked. */
  to(endpoint: AnyEndpoint, body: unknown): this {
    const reply: Reply = async (asked) => ({
      status: 200,
      body: typeof body === 'function' ? await (body as (asked: Asked) => unknown)(asked) : body,
    })
    this.replies.set(endpoint.name, { endpoint, reply })
    return this
  }
  /** From now on an endpoint refuses, naming fields by their codes. */
  refuse(endpoint: AnyEndpoint, status: number, code: string, fields: Readonly<Record<string, string>> = {}): this {
    const at = Object.entries(fields).map(([path, one]) => ({ path, code: one, detail: `At ${path}: ${one}.` }))
    const problem = {
      ...{ status, code, detail: `Refused: ${code}.`, requestId: 'r' },
      ...(at.length === 0 ? {} : { fields: at }),
    } as unknown as Problem
    this.replies.set(endpoint.name, { endpoint, reply: () => ({ status, body: problem }) })
    return this
  }
  /** From now on nobody answers. */
  away(endpoint: AnyEndpoint): this {
    this.replies.set(endpoint.name, { endpoint, reply: () => Promise.reject(new TypeError('no connection')) })
    return this
  }
  /** What was asked of one endpoint, in order. */
  of(endpoint: AnyEndpoint): Asked[] {
    return this.asked.filter(({ name }) => name === endpoint.name)
  }

  private async answer(url: string, { method = 'GET', body, headers }: RequestInit): Promise<Response> {
    const { pathname, searchParams } = new URL(url, 'http://stand')
    for (const { endpoint, reply } of this.replies.values()) {
      const params = endpoint.method === method ? paramsOf(endpoint.path, pathname.slice('/api/v1'.length)) : null
      if (!params) continue
      const asked: Asked = {
        name: endpoint.name,
        params,
        query: Object.fromEntries(searchParams),
        body: typeof body === 'string' ? JSON.parse(body) : undefined,
        headers: headers as Record<string, string>,
      }
      this.asked.push(asked)
      const answer = await reply(asked)
      return new Response(JSON.stringify(answer.body), { status: answer.status })
    }
    throw new TypeError(`nobody answers ${method} ${pathname}`)
  }
}

function paramsOf(path: string, asked: string): Record<string, string> | null {
  const found = new RegExp(`^${path.replace(/:(\w+)/g, '(?<$1>[^/]+)')}$`).exec(asked)
  return found && { ...found.groups }
}

const person = (id: string, name: string, role: Session['person']['role']): Session['person'] => ({
  id,
  name,
  initials: name
    .split(' ')
    .map(([first]) => first)
    .join(''),
  role,
})
const TOVE = person('0192c7f2-5340-7b38-85ad-0000000000a1', 'Tove Sandell', 'owner')
const RUAN = person('0192c7f2-5340-7b38-85ad-0000000000a2', 'Ruan Pike', 'mechanic')

/** What the shop of the tests says of itself. */
export const SHOP: Session['shop'] = {
  ...{ id: 'shop', version: 1, code: 'saltmarsh', name: 'Saltmarsh Row Cycles' },
  ...{ timeZone: 'Europe/London', currency: 'GBP', locale: 'en-GB', distanceUnit: 'km', temperatureUnit: 'C' },
  opening: [...Array.from({ length: 5 }, () => ({ from: '09:00', to: '17:30' })), { from: '09:00', to: '13:00' }, null],
  stands: 3,
  careWays: ['wet-oil', 'dry-oil', 'drip-wax', 'immersion-wax'],
}

/** What a problem is said to be, by its code. */
export const sentenceOf = (code: string): string => problemText(messages.t, code)

/** Who is at the bench in tests of places. */
export const sessionOf = (at: 'tove' | 'ruan' = 'tove'): Session => ({
  shop: SHOP,
  person: at === 'tove' ? TOVE : RUAN,
  peopleHere: [TOVE, RUAN],
  people: [TOVE, RUAN],
  device: { id: 'device', name: 'Bench 1' },
  provedUntil: null,
  rebuilding: null,
})

export interface InApp {
  readonly user: UserEvent
  /** What was said in passing. */
  readonly told: string[]
  readonly client: QueryClient
  /** Where the application is now: path and search. */
  readonly at: () => string
}

/** Fills a field at once: key by key each draws all of a form anew. */
export const fill = (field: HTMLElement, value: string): boolean => fireEvent.change(field, { target: { value } })

/** Fills a field of a day, YYYY-MM-DD. */
export function fillDay(label: string, day: string): void {
  const field = screen.getAllByLabelText(label).find((one) => one instanceof HTMLInputElement)!
  fill(field, day.split('-').reverse().join('/'))
}

/** A piece of the interface as it stands in the application: with keys, addresses, a session and whatever answers. */
export function inApp(
  element: ReactElement,
  { session = sessionOf(), at = '/', path = '*' }: { session?: Session; at?: string; path?: string } = {},
): InApp {
  cleanup()
  const told: string[] = []
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } })
  const inside = (shown: ReactElement): ReactElement => (
    <SurroundingsContext value={{ session, tell: (text) => void told.push(text) }}>
      <RoleContext value={session.person.role}>
        <TypingProvider>{shown}</TypingProvider>
      </RoleContext>
    </SurroundingsContext>
  )
  const router = createMemoryRouter(
    [{ path, element: inside(element) }, ...(path === '*' ? [] : [{ path: '*', element: inside(<main />) }])],
    { initialEntries: [at] },
  )
  const user = userEvent.setup({ delay: null, pointerEventsCheck: 0 })
  render(
    <QueryClientProvider client={client}>
      <RouterProvider router={router} />
    </QueryClientProvider>,
  )
  return { user, told, client, at: () => router.state.location.pathname + router.state.location.search }
}
