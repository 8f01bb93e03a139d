import { describe, expect, it } from 'vitest'
import { potRequest } from './potRequest.ts'

describe('what a chain wants of the pot', () => {
  it('is stripping where nobody treated it, or where it was cleaned to the metal', () => {
    expect(potRequest({ wasTreated: false, cleaning: 'wipe', because: null }).needs).toBe('strip')
    expect(potRequest({ wasTreated: true, cleaning: 'strip', because: 'days' }).needs).toBe('strip')
    expect(potRequest({ wasTreated: true, cleaning: 'boil', because: 'days' }).needs).toBe('nothing')
  })
  it('counts against the bath as wet where it is due for a wash', () => {
    expect(potRequest({ wasTreated: true, cleaning: 'wipe', because: 'wash' }).condition).toBe('wet')
    expect(potRequest({ wasTreated: true, cleaning: 'wipe', because: 'distance' }).condition).toBe('clean')
  })
})
