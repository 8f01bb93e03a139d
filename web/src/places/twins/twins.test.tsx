// @vitest-environment happy-dom
import { screen } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { endpoints } from '@pelrin/contract'
import { bikeOf } from '../../testing/bikes.ts'
import { Answers, fill, inApp, sentenceOf } from '../../testing/inApp.tsx'
import { recordOf } from '../../testing/record.ts'
import { until } from '../../testing/until.ts'
import { TwinDialog } from './TwinDialog.tsx'
import { TwinsOfBike } from './TwinsOfBike.tsx'

const record = recordOf('b1', 'Ivo Marsh', { mergedInto: null, merged: [] })
let server: Answers
const close = vi.fn()
beforeEach(() => {
  close.mockClear()
  server = new Answers()
    .to(endpoints.find, [bikeOf('b1', 'Ivo Marsh'), bikeOf('b2', 'I. Marsh')])
    .to(endpoints.bike, recordOf('b2', 'I. Marsh'))
})
afterEach(() => vi.unstubAllGlobals())

describe('a bike that was entered twice', () => {
  it('is made one with the other entry, looked at first; it is never offered itself', async () => {
    const { user } = inApp(<TwinDialog record={record} onClose={close} />)
    const other = await screen.findByRole('radio', { name: /I\. Marsh/ })
    expect(screen.getAllByRole('radio')).toHaveLength(1)
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Make them one' }).disabled).toBe(true)
    await user.click(other)
    expect(await screen.findByText(/It has 0 readings/)).toBeTruthy()
    server.to(endpoints.mergeBike, record)
    await user.click(screen.getByRole('button', { name: 'Make them one' }))
    await until(() => expect(close).toHaveBeenCalledOnce())
    expect(server.of(endpoints.mergeBike)[0]).toMatchObject({ params: { id: 'b1' }, body: { otherId: 'b2' } })
  })
  it('stays two where the server says why, and says that nothing matches', async () => {
    const { user } = inApp(<TwinDialog record={record} onClose={close} />)
    await user.click(await screen.findByRole('radio', { name: /I\. Marsh/ }))
    server.refuse(endpoints.mergeBike, 409, 'merge-job-open')
    await user.click(screen.getByRole('button', { name: 'Make them one' }))
    expect(await screen.findByText(sentenceOf('merge-job-open'))).toBeTruthy()
    server.to(endpoints.find, [])
    fill(screen.getByRole('textbox', { name: 'The other entry' }), 'nobody')
    expect(await screen.findByText(/No other bike matches/)).toBeTruthy()
  })
  it('is two again within the day, and leads from the second entry to the first', async () => {
    const { user } = inApp(
      <TwinsOfBike
        record={{
          ...record,
          merged: [{ id: 'b2', label: 'Again', tag: '7002' }],
          mergedInto: { id: 'b9', label: 'Causeway' },
        }}
      />,
    )
    expect(screen.getByRole('link', { name: 'Causeway' }).getAttribute('href')).toBe('/bikes/b9')
    server.to(endpoints.unmergeBike, record)
    await user.click(screen.getByRole('button', { name: 'They are two after all' }))
    await until(() => expect(server.of(endpoints.unmergeBike)).toHaveLength(1))
    expect(server.of(endpoints.unmergeBike)[0]!.body).toEqual({ otherId: 'b2' })
  })
})
