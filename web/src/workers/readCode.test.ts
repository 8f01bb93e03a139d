import { BarcodeFormat, QRCodeWriter } from '@zxing/library'
import { describe, expect, it } from 'vitest'
import { readCode, type Picture } from './readCode.ts'

const SIDE = 200
const tag = 'https://pelrin.example/t/0449'

/** A code as a printed tag shows it, on a bench of a certain light: dark is where `true`. */
const printed = (text: string): boolean[][] => {
  const bits = new QRCodeWriter().encode(text, BarcodeFormat.QR_CODE, SIDE, SIDE, new Map())
  return Array.from({ length: SIDE }, (_, y) => Array.from({ length: SIDE }, (_x, x) => bits.get(x, y)))
}

/** What a camera makes of it: each point of a picture is looked up on the paper. */
function seen(
  paper: boolean[][],
  width: number,
  height: number,
  onPaper: (x: number, y: number) => [number, number],
  light: (x: number, y: number) => [dark: number, bright: number] = () => [30, 230],
): Picture {
  const data = new Uint8ClampedArray(width * height * 4)
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [px, py] = onPaper(x, y).map(Math.round) as [number, number]
      const [dark, bright] = light(x, y)
      const inked = paper[py]?.[px]
      const value = inked === undefined ? (dark + bright) / 2 : inked ? dark : bright
      data.set([value, value, value, 255], 4 * (y * width + x))
    }
  return { data, width, height }
}

describe('a code before the camera', () => {
  const paper = printed(tag)
  const turned =
    (degrees: number, scale: number) =>
    (x: number, y: number): [number, number] => {
      const a = (degrees / 180) * Math.PI
      const [dx, dy] = [(x - 320) / scale, (y - 240) / scale]
      return [SIDE / 2 + dx * Math.cos(a) + dy * Math.sin(a), SIDE / 2 - dx * Math.sin(a) + dy * Math.cos(a)]
    }

  it.each([0, 17, 90, 135, 180, 262])('is read turned by %s°', (degrees) => {
    expect(readCode(seen(paper, 640, 480, turned(degrees, 1.6)))).toBe(tag)
  })
  it('is read from near and from arm’s length', () => {
    for (const scale of [0.7, 1, 2.2]) expect(readCode(seen(paper, 640, 480, turned(5, scale)))).toBe(tag)
  })
  it('is read half in the shade, and by poor light', () => {
    const shade = seen(paper, 640, 480, turned(8, 1.6), (x) => (x < 320 ? [10, 90] : [70, 240]))
    expect(readCode(shade)).toBe(tag)
    expect(readCode(seen(paper, 640, 480, turned(8, 1.6), () => [40, 75]))).toBe(tag)
  })
  it('is read with a greasy thumb’s print on it', () => {
    const greasy = paper.map((row, y) => row.map((inked, x) => inked || Math.hypot(x - 120, y - 118) < 9))
    expect(readCode(seen(greasy, 640, 480, turned(3, 1.6)))).toBe(tag)
  })
  it('is not made up: an empty bench and half a code are nothing', () => {
    expect(readCode(seen([], 640, 480, (x, y) => [x, y]))).toBeNull()
    const half = paper.map((row) => row.map((inked, x) => inked && x < SIDE * 0.45))
    expect(readCode(seen(half, 640, 480, turned(0, 1.6)))).toBeNull()
  })
})
