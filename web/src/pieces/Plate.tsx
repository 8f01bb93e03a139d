import type { PlateShape } from './verdictLook.ts'

/** The outline of an outer chain plate, 32 × 16, waist and all. */
const OUTLINE = 'M8 1C12 1 12.6 4 16 4S20 1 24 1a7 7 0 0 1 0 14c-4 0-4.600-3-8-3S12 15 8 15A7 7 0 0 1 8 1Z'
/** Pin holes. */
const HOLES =
  'M8 5.300a2.700 2.700 0 1 0 0 5.400 2.700 2.700 0 0 0 0-5.400ZM24 5.300a2.700 2.700 0 1 0 0 5.400 2.700 2.700 0 0 0 0-5.400Z'

const SHAPES: Record<PlateShape, React.ReactNode> = {
  whole: <path d={OUTLINE + HOLES} fill="currentColor" fillRule="evenodd" />,
  bare: <path d={OUTLINE + HOLES} fill="none" stroke="currentColor" strokeWidth="1.3" />,
  dashed: (
    <path
      d={OUTLINE}
      fill="none"
      stroke="currentColor"
      strokeWidth="2.2"
      strokeDasharray="4.600 3.100"
      strokeDashoffset="1"
    />
  ),
  // A wedge sawn in from above, down past the middle.
  notched: (
    <path
      d={`M8 1C10.500 1 11.600 2.200 12.600 3.100L16 11 19.400 3.100C20.400 2.200 21.500 1 24 1a7 7 0 0 1 0 14c-4 0-4.600-2.200-8-2.200S12 15 8 15A7 7 0 0 1 8 1Z${HOLES}`}
      fill="currentColor"
      fillRule="evenodd"
    />
  ),
  // Broken through the waist, the halves slipped apart.
  parted: (
    <g fill="currentColor" fillRule="evenodd">
      <path d="M7.500 0C11 0 12 2.400 15.600 3L11.800 9.600 14.600 10.300C12 12 11 14 7.500 14a7 7 0 0 1 0-14ZM7.500 4.300a2.700 2.700 0 1 0 0 5.400 2.700 2.700 0 0 0 0-5.400Z" />
      <path d="M24.500 2a7 7 0 0 1 0 14c-3.500 0-4.600-2.200-7.400-2.800L20.400 7.200 17.600 6.500C20 4.600 21.200 2 24.500 2ZM24.500 6.300a2.700 2.700 0 1 0 0 5.400 2.700 2.700 0 0 0 0-5.400Z" />
    </g>
  ),
  // A row of teeth where the lower edge was.
  toothed: (
    <path
      d={`M8 1H24A7 7 0 0 1 31 8V10L28.500 15.500 26 10 23.500 15.500 21 10 18.500 15.500 16 10 13.500 15.500 11 10 8.500 15.500 6 10 3.500 15.500 1 10V8A7 7 0 0 1 8 1Z`}
      fill="currentColor"
    />
  ),
}

/** A verdict's shape, at any size. It stands beside its word, so it has no name of its own unless one is given. */
export function Plate({
  shape,
  colour,
  height,
  title,
}: {
  shape: PlateShape
  colour: string
  height: number
  title?: string
}) {
  return (
    <svg
      viewBox="0 0 32 16"
      width={height * 2}
      height={height}
      style={{ color: colour, flexShrink: 0, overflow: 'visible' }}
      {...(title === undefined ? { 'aria-hidden': true } : { role: 'img', 'aria-label': title })}
    >
      {SHAPES[shape]}
    </svg>
  )
}
