import { describe, expect, it } from 'vitest'
import { scannedTag } from './scanned.ts'

describe('what a scanner types', () => {
  it('is the tag its code holds, at whatever address it was printed', () => {
    expect(scannedTag('http://127.0.0.1:7340/t/0400')).toBe('0400')
    expect(scannedTag(' HTTPS://pelrin.shop/t/A%2F7 ')).toBe('A/7')
  })
  it('is left as it was typed where it is no tag', () => {
    for (const text of [
      '0400',
      'mara lisk',
      'http://elsewhere/',
      'http://a/t/',
      'http://a/t/%',
      'see http://a/t/1 too',
    ])
      expect(scannedTag(text)).toBe(text)
  })
})
