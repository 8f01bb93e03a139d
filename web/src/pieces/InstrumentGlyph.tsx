import type { InstrumentKind } from '@pelrin/core'

const PATHS: Record<InstrumentKind, string> = {
  'steel-rule': 'M2 8H42V18H2ZM7 8v4M12 8v6M17 8v4M22 8v6M27 8v4M32 8v6M37 8v4',
  caliper: 'M2 6H42V11H2ZM6 11V22L11 17V11M26 11V22L21 17V11M20 3h11v11h-11Z',
  'drop-in': 'M3 8H36q5 0 5 4v2h-4l-2 7h-3l-2 -7H14l-3 7H8l-1 -7H3Z',
  'three-contact': 'M3 8H36q5 0 5 4v2h-4l-2 7h-3l-2 -7H14l-3 7H8l-1 -7H3ZM20 14l3 7h3l2 -7',
  'two-pin': 'M2 5H42V10H2ZM7 10V21H11V10M20 10V14H25V16H30V18H35V21H40V10',
  'swing-arm': 'M6 21V13H14M10 13L38 6M39 2q5 8 0 16M36 6a2 2 0 1 0 .1 0',
  graduated: 'M2 6H42V10L10 20H2ZM14 6v4M20 6v4M26 6v4M32 6v3M38 6v3',
  digital: 'M4 4H40V17H4ZM10 7H30V14H10ZM8 17v5M36 17v5',
  'full-length': 'M5 3v5M5 6H34M8 4.5v3M12 4.5v3M16 4.5v3M20 4.5v3M24 4.5v3M28 4.5v3M33 6V12M27 12H39V21H27Z',
  'by-hand':
    'M8 20V11q0 -2 2 -2t2 2V6q0 -2 2 -2t2 2V5q0 -2 2 -2t2 2v1q0 -2 2 -2t2 2v4q0 -2 2 -2t2 2v5q0 6 -6 6H14Q8 21 8 20Z',
}

/** An instrument as a small line drawing, told apart by its outline. */
export function InstrumentGlyph({ kind, width = 44 }: { kind: InstrumentKind; width?: number }) {
  return (
    <svg viewBox="0 0 44 24" width={width} height={(width * 24) / 44} aria-hidden style={{ flexShrink: 0 }}>
      <path
        d={PATHS[kind]}
        fill="none"
        stroke="currentColor"
        strokeWidth={1.5}
        strokeLinejoin="round"
        strokeLinecap="round"
      />
    </svg>
  )
}
