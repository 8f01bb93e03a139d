import { describe, expect, it } from 'vitest'
import { isSealed, Secrets } from './secrets.ts'

describe('a secret', () => {
  it('is opened by its key and by no other, and is never the same twice', () => {
    const secrets = Secrets.passing()
    const [once, twice] = [secrets.seal('Ünlocked 5'), secrets.seal('Ünlocked 5')]
    expect(once).not.toBe(twice)
    expect(once).not.toContain('locked')
    expect([secrets.open(once), secrets.open(twice)]).toEqual(['Ünlocked 5', 'Ünlocked 5'])
    expect(Secrets.passing().open(once)).toBeNull()
  })
  it('that was changed, cut or never sealed opens to nothing', () => {
    const secrets = Secrets.passing()
    const sealed = secrets.seal('quay')
    const changed = sealed.slice(0, -2) + (sealed.endsWith('AA') ? 'BB' : 'AA')
    for (const wrong of [changed, sealed.slice(0, 20), 'v1.', 'quay', '']) expect(secrets.open(wrong)).toBeNull()
    expect([isSealed(sealed), isSealed('quay')]).toEqual([true, false])
  })
  it('wants a key of 32 bytes', () => {
    expect(() => new Secrets('short')).toThrow('32 bytes')
  })
})
