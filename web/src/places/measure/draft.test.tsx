// @vitest-environment happy-dom
import { act, renderHook } from '@testing-library/react'
import { afterEach, describe, expect, it } from 'vitest'
import * as v from 'valibot'
import type { Reading } from '@pelrin/contract'
import { drafts } from '../../drafts/drafts.ts'
import { useDraft } from './draft.ts'

const KEY = 'reading bike '
afterEach(() => drafts.remove(KEY))

const opened = (on: { fittingId?: string; arrived?: boolean; latest?: Reading } = {}) =>
  renderHook(() =>
    useDraft('bike', null, {
      latest: on.latest,
      baseline: false,
      fittingId: on.fittingId ?? 'fitting-1',
      arrived: () => on.arrived === true,
    }),
  ).result
const typed = (text: string, draft: ReturnType<typeof opened>): void =>
  act(() =>
    draft.current.change((before) => ({
      spots: before.spots.map((spot, i) => (i === 0 ? { ...spot, typed: text } : spot)),
    })),
  )

describe('a reading that is being typed', () => {
  it('comes back as it was, of the chain that was on when it was begun, with the time its last spot was read', () => {
    const first = opened()
    typed('305.6', first)
    const { takenAt, readingId } = first.current.draft
    expect(Math.abs(Date.parse(takenAt!) - Date.now())).toBeLessThan(5_000)
    // Another chain is on by the time the page is opened again.
    const again = opened({ fittingId: 'fitting-2' })
    expect(again.current.restored).toBe(true)
    expect(again.current.draft).toMatchObject({ readingId, takenAt, fittingId: 'fitting-1' })
    expect(again.current.draft.spots[0]!.typed).toBe('305.6')
  })
  it('begins on the run and under the tension this bike was last read, and else on the lower run under tension', () => {
    expect(opened().current.draft).toMatchObject({ run: 'lower', load: 'tensioned' })
    const latest = { conditions: { run: 'upper', load: 'slack', ruleCelsius: 12 } } as Reading
    expect(opened({ latest }).current.draft).toMatchObject({ run: 'upper', load: 'slack', ruleCelsius: '' })
  })
  it('that has arrived does not come back to be sent again', () => {
    typed('305.6', opened())
    const again = opened({ arrived: true })
    expect(again.current.restored).toBe(false)
    expect(again.current.draft.spots[0]!.typed).toBe('')
    expect(drafts.read(KEY, v.unknown())).toBeUndefined()
  })
  it('that is torn, or of another version, is begun anew', () => {
    for (const torn of [null, 'x', { readingId: 'r' }, { readingId: 'r', fittingId: 'f', spots: [], odometer: {} }]) {
      drafts.put(KEY, torn)
      expect(opened().current.restored).toBe(false)
    }
  })
  it('and kept its own time when it was refused keeps it whatever is changed in it', () => {
    const draft = opened()
    act(() => draft.current.change({ takenAt: '2026-05-04T09:30:00.000Z', keepsTime: true }))
    typed('305.4', draft)
    expect(draft.current.draft.takenAt).toBe('2026-05-04T09:30:00.000Z')
  })
})
