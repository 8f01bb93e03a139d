import { v7 } from 'uuid'
import { endpoints, fileRoutes, may, Role, type Access, type Endpoint, type FileRoute } from '@pelrin/contract'
import { HOSTILE, placesIn, sampleOf, withAt } from '../../server/src/testing/shapes.ts'
import { Answers, type Found } from './found.ts'
import type { Target } from './target.ts'

const pathOf = (path: string): string => `/api/v1${path.replace(/:(\w+)/g, () => v7())}`
const HEADERS = (): Record<string, string> => ({ 'idempotency-key': v7(), 'if-match': '"1"' })

/** Every address, with every role and with none, held against the table of rights. */
export async function everyAddress(target: Target): Promise<Found> {
  const routes = [...(Object.values(endpoints) as (Endpoint | FileRoute)[]), ...Object.values(fileRoutes)]
  const faults: string[] = []
  let done = 0
  for (const role of [...Role.options, null]) {
    const device = role === null ? null : await target.signIn(role)
    for (const { name, method, path, access } of routes as {
      name: string
      method: string
      path: string
      access: Access
    }[]) {
      if (['signOut', 'makeBackup', 'gaugeEvents', 'signIn', 'door'].includes(name)) continue
      const asked = device
        ? device.raw(method, pathOf(path), HEADERS())
        : fetch(target.base + pathOf(path), { method, headers: HEADERS() })
      const { status, body } = await asked
      await body?.cancel()
      done++
      const wanted = role === null ? status === 401 : (status === 403) !== (access === 'anyone' || may(role, access))
      if (!wanted || status >= 500) faults.push(`${name} as ${role ?? 'nobody'}: ${status}`)
    }
  }
  return { what: 'every address with every role', done, faults }
}

/** Hostile values at every place of every body, as often as is asked for. */
export async function hostileBodies(target: Target, requests: number): Promise<Found> {
  const device = await target.signIn('owner')
  const answers = new Answers()
  const all = (Object.values(endpoints) as Endpoint[]).filter(
    ({ name, body }) => body && !['signIn', 'switchPerson', 'proveAgain'].includes(name),
  )
  for (let turn = 0; answers.done < requests; turn++)
    for (const { name, method, path, body } of all) {
      const sample = sampleOf(body!)
      const places = placesIn(sample)
      const at = places[turn % Math.max(1, places.length)] ?? []
      const text = JSON.stringify(withAt(sample, at, HOSTILE[(turn * 7 + places.length) % HOSTILE.length]))
      await answers.take(`${name} ${text.slice(0, 160)}`, () =>
        device.raw(method, pathOf(path), { ...HEADERS(), 'content-type': 'application/json' }, text),
      )
      if (answers.done >= requests) break
    }
  return answers.found('hostile bodies')
}

/** Files that are none, or worse, by every way in. */
export async function hostileFiles(target: Target, each: number): Promise<Found> {
  const device = await target.signIn('owner')
  const answers = new Answers()
  const bytes = (n: number, seed: number): Uint8Array<ArrayBuffer> =>
    Uint8Array.from({ length: n }, (_, i) => (i * 31 + seed * 17 + (i % 7) * seed) & 0xff)
  const files: ((i: number) => string | Uint8Array<ArrayBuffer>)[] = [
    (i) => bytes(200 + i * 37, i),
    (i) => `<gpx>${'<trk><trkseg>'.repeat(i * 40)}`,
    (i) => `<?xml version="1.0"?><!DOCTYPE x [<!ENTITY a "${'b'.repeat(i)}">]><gpx>&a;</gpx>`,
    (i) => `PK\u0003\u0004${'\u0000'.repeat(i)}`,
    (i) => `\u000e\u0010d\b${'x'.repeat(i)}.FIT${'\u0001'.repeat(i * 3)}`,
    (i) => `name;phone\n${'"'.repeat(i)};=cmd|' /C calc'!A0\n${'x;'.repeat(i * 50)}\n`,
    (i) => `tag,at,what\n${'9'.repeat(i)},2026-11-31,\ud800\n`,
    (i) =>
      `{"pelrin":"archive","version":1}\n{"table":"${['people', 'audit', 'shops', 'sessions'][i % 4]}","row":{"id":${i}}}\n`,
  ]
  const paths = [
    ['/bikes/%/imports', 'files'],
    ['/catalogue/preview', 'files'],
    ['/import/customers/preview', 'files'],
    ['/import/rides/preview', 'files'],
    ['/archive', null],
  ] as const
  const { body } = await device.ask(endpoints.find, { query: { q: 'causeway' } })
  for (let i = 1; i <= each; i++)
    for (const [n, file] of files.entries())
      for (const [path, field] of paths) {
        const content = file(i)
        const form = new FormData()
        if (field !== null) form.append(field, new Blob([content]), `f${n}`)
        await answers.take(`${path} file ${n}, ${i}`, () =>
          fetch(`${target.base}/api/v1${path.replace('%', body[0]!.id)}`, {
            method: 'POST',
            headers: { cookie: device.cookie, 'idempotency-key': v7() },
            body: field === null ? content : form,
          }),
        )
      }
  return answers.found('hostile files')
}
