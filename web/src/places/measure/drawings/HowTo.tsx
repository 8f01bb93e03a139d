import { Box, Typography } from '@mui/material'
import type { InstrumentKind } from '@pelrin/core'
import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { SheetDialog } from '../../../pieces/SheetDialog.tsx'
import { ink } from '../../../theme/theme.ts'
import { HandSignFigure } from './HandDrawing.tsx'

/** How an instrument is used, in three drawn steps: which end first, which way to push, what seated looks like. */
export function HowTo({ kind, open, onClose }: { kind: InstrumentKind; open: boolean; onClose: () => void }) {
  const { t } = useTranslation()
  const steps = t(`measure.howTo.${kind}`, { returnObjects: true }) as readonly string[]
  return (
    <SheetDialog
      open={open}
      onClose={onClose}
      title={t('measure.howToTitle', { name: t(`instrument.${kind}`) })}
      maxWidth="md"
      fullWidth
    >
      <Box
        component="ol"
        sx={{
          listStyle: 'none',
          m: 0,
          p: 0,
          display: 'grid',
          gridTemplateColumns: { xs: '1fr', sm: 'repeat(3, 1fr)' },
          gap: 2,
        }}
      >
        {steps.map((step, i) => (
          <Box component="li" key={step}>
            <svg viewBox="0 0 260 190" width="100%" aria-hidden style={{ display: 'block' }}>
              <rect x={1} y={1} width={258} height={188} fill={ink('paper')} stroke={ink('line')} />
              {FIGURES[kind][i]}
            </svg>
            <Typography sx={{ mt: 0.75 }}>
              <b>{i + 1}</b> {step}
            </Typography>
          </Box>
        ))}
      </Box>
      <Typography variant="body2" color="textSecondary" sx={{ mt: 2 }}>
        {t('measure.howToNote')}
      </Typography>
    </SheetDialog>
  )
}

const LINE = {
  fill: 'none',
  stroke: ink('edge'),
  strokeWidth: 2,
  strokeLinejoin: 'round',
  strokeLinecap: 'round',
} as const
const TOOL = { fill: ink('sheet'), stroke: ink('edge'), strokeWidth: 2, strokeLinejoin: 'round' } as const
const SHOWN = {
  fill: 'none',
  stroke: ink('steel'),
  strokeWidth: 3.5,
  strokeLinecap: 'round',
  strokeLinejoin: 'round',
} as const

/** A run of chain: rollers at every pitch, plates in turn. */
function Chain({
  y = 140,
  pins = 7,
  from = 22,
  pitch = 36,
}: {
  y?: number
  pins?: number
  from?: number
  pitch?: number
}) {
  const at = (i: number): number => from + i * pitch
  return (
    <g>
      {Array.from({ length: pins - 1 }, (_, i) => (
        <rect
          key={i}
          x={at(i) - 12}
          width={pitch + 24}
          y={y - 12}
          height={24}
          rx={12}
          fill={i % 2 === 0 ? ink('sheet') : ink('paper')}
          stroke={ink('edge')}
        />
      ))}
      {Array.from({ length: pins }, (_, i) => (
        <g key={i}>
          <circle cx={at(i)} cy={y} r={10} fill={ink('blade')} stroke={ink('edge')} />
          <circle cx={at(i)} cy={y} r={4} fill={ink('edge')} />
        </g>
      ))}
    </g>
  )
}

/** Which way something is pushed, pulled or falls. */
function Way({ d }: { d: string }) {
  return <path d={d} {...SHOWN} />
}

/** Where the eye has to look. */
function Look({ x, y, r = 22 }: { x: number; y: number; r?: number }) {
  return <circle cx={x} cy={y} r={r} fill="none" stroke={ink('brass')} strokeWidth={3} strokeDasharray="6 4" />
}

function Rule({ y }: { y: number }) {
  return (
    <g>
      <rect x={10} y={y} width={240} height={30} {...TOOL} fill={ink('blade')} />
      {Array.from({ length: 23 }, (_, i) => (
        <line key={i} x1={22 + i * 10} x2={22 + i * 10} y1={y} y2={y + (i % 5 === 0 ? 14 : 8)} stroke={ink('edge')} />
      ))}
    </g>
  )
}

const HOOKED = 'M-108 -14H84q10 0 10 10v6H76l-6 26h-10l-4 -26H-58l-8 30h-12l-4 -30h-26Z'

const FIGURES: Readonly<Record<InstrumentKind, readonly ReactNode[]>> = {
  'steel-rule': [
    <g key="0">
      <Chain y={84} />
      <Rule y={104} />
      <path d="M22 60V112" {...SHOWN} />
      <Look x={22} y={84} />
    </g>,
    <g key="1">
      <Chain y={84} />
      <Rule y={104} />
      <Way d="M200 44h44m-12 -9l12 9 -12 9" />
      <Way d="M60 44H16m12 -9l-12 9 12 9" />
    </g>,
    <g key="2">
      <Chain y={84} />
      <Rule y={104} />
      <path d="M238 60V124" {...SHOWN} />
      <Look x={238} y={100} />
    </g>,
  ],
  caliper: [
    <g key="0">
      <path d="M20 50H240V74H20Z" {...TOOL} fill={ink('blade')} />
      <path d="M100 74V140L116 118V74ZM136 74V140L120 118V74Z" {...TOOL} />
      <Way d="M60 160h36m-10 -8l10 8 -10 8M200 160h-36m10 -8l-10 8 10 8" />
      <Look x={118} y={112} />
    </g>,
    <g key="1">
      <Chain y={140} />
      <path d="M14 46H246V68H14Z" {...TOOL} fill={ink('blade')} />
      <path d="M68 68V142H80V68ZM192 68V142H180V68Z" {...TOOL} />
      <Way d="M120 100H88m10 -8l-10 8 10 8M140 100h32m-10 -8l10 8 -10 8" />
    </g>,
    <g key="2">
      <Chain y={140} />
      <path d="M14 46H246V68H14Z" {...TOOL} fill={ink('blade')} />
      <path d="M68 68V142H80V68ZM192 68V142H180V68Z" {...TOOL} />
      <rect x={164} y={34} width={62} height={40} {...TOOL} />
      <Look x={195} y={54} r={36} />
    </g>,
  ],
  'drop-in': [
    <g key="0">
      <Chain />
      <g transform="translate(142 88) rotate(-14)">
        <path d={HOOKED} {...TOOL} />
      </g>
      <Way d="M34 60v34m-8 -10l8 10 8 -10" />
      <Look x={58} y={126} />
    </g>,
    <g key="1">
      <Chain />
      <g transform="translate(136 108) rotate(-7)">
        <path d={HOOKED} {...TOOL} />
      </g>
      <Way d="M206 36v36m-8 -10l8 10 8 -10" />
    </g>,
    <g key="2">
      <Chain />
      <g transform="translate(134 122)">
        <path d={HOOKED} {...TOOL} />
      </g>
      <Look x={196} y={138} r={26} />
    </g>,
  ],
  'three-contact': [
    <g key="0">
      <Chain />
      <g transform="translate(134 96) rotate(-10)">
        <path d={HOOKED} {...TOOL} />
      </g>
      <path d="M118 112v38" {...SHOWN} />
      <Look x={118} y={140} r={24} />
    </g>,
    <g key="1">
      <Chain />
      <g transform="translate(134 110) rotate(-6)">
        <path d={HOOKED} {...TOOL} />
      </g>
      <path d="M118 112v38" {...SHOWN} />
      <Way d="M100 60h36m-10 -8l10 8 -10 8" />
    </g>,
    <g key="2">
      <Chain />
      <g transform="translate(134 122)">
        <path d={HOOKED} {...TOOL} />
      </g>
      <path d="M118 112v38" {...SHOWN} />
      <Look x={196} y={138} r={26} />
    </g>,
  ],
  'two-pin': [
    <g key="0">
      <Chain />
      <path d="M14 48H246V70H14Z" {...TOOL} fill={ink('blade')} />
      <path d="M52 70V142H66V70ZM166 70V112H178V70Z" {...TOOL} />
      <Way d="M59 20v22m-8 -9l8 9 8 -9" />
      <Look x={59} y={140} r={24} />
    </g>,
    <g key="1">
      <Chain />
      <path d="M14 60H246V82H14Z" {...TOOL} fill={ink('blade')} />
      <path d="M52 82V142H66V82ZM174 82V132H188V82Z" {...TOOL} />
      <Way d="M150 40h44m-10 -8l10 8 -10 8" />
    </g>,
    <g key="2">
      <Chain />
      <path d="M14 52H246V74H14Z" {...TOOL} fill={ink('blade')} />
      <path d="M52 74V142H66V74ZM186 74V126H200V74Z" {...TOOL} />
      <Look x={193} y={124} r={28} />
    </g>,
  ],
  'swing-arm': [
    <g key="0">
      <Chain />
      <path d="M58 86H120V122H104V104H72V142H58Z" {...TOOL} />
      <path d="M112 96L206 34" {...LINE} strokeWidth={9} />
      <Way d="M40 60v44m-8 -10l8 10 8 -10" />
    </g>,
    <g key="1">
      <Chain />
      <path d="M58 86H120V122H104V104H72V142H58Z" {...TOOL} />
      <path d="M112 96L216 76" {...LINE} strokeWidth={9} />
      <path d="M232 30Q250 80 232 124" {...LINE} />
      <Way d="M196 28q14 14 16 30m-12 -6l12 6 6 -12" />
    </g>,
    <g key="2">
      <Chain />
      <path d="M58 86H120V122H104V104H72V142H58Z" {...TOOL} />
      <path d="M112 96L218 98" {...LINE} strokeWidth={9} />
      <path d="M232 30Q250 80 232 124" {...LINE} />
      <Look x={228} y={98} />
    </g>,
  ],
  graduated: [
    <g key="0">
      <Chain />
      <path d="M14 44H246V62L40 86H14Z" {...TOOL} fill={ink('blade')} />
      <Way d="M130 92v26m-8 -9l8 9 8 -9" />
    </g>,
    <g key="1">
      <Chain />
      <path d="M14 78H246V96L40 132H14Z" {...TOOL} fill={ink('blade')} />
      <Way d="M96 36v26m-8 -9l8 9 8 -9" />
    </g>,
    <g key="2">
      <Chain />
      <path d="M14 78H246V96L40 132H14Z" {...TOOL} fill={ink('blade')} />
      <path d="M130 92V126" {...SHOWN} />
      <Look x={130} y={112} r={26} />
    </g>,
  ],
  digital: [
    <g key="0">
      <path d="M40 40H220V106H40Z" {...TOOL} />
      <rect x={86} y={54} width={88} height={36} {...TOOL} fill={ink('paper')} />
      <path d="M122 106v40M138 106v40" {...LINE} strokeWidth={8} />
      <Way d="M66 134h40m-10 -8l10 8 -10 8M194 134h-40m10 -8l-10 8 10 8" />
      <Look x={130} y={72} r={50} />
    </g>,
    <g key="1">
      <Chain />
      <path d="M40 32H220V92H40Z" {...TOOL} />
      <path d="M76 92v48M184 92v48" {...LINE} strokeWidth={8} />
      <Way d="M130 104v26m-8 -9l8 9 8 -9" />
    </g>,
    <g key="2">
      <Chain />
      <path d="M40 32H220V92H40Z" {...TOOL} />
      <rect x={86} y={44} width={88} height={36} {...TOOL} fill={ink('paper')} />
      <path d="M76 92v48M184 92v48" {...LINE} strokeWidth={8} />
      <Look x={130} y={62} r={48} />
    </g>,
  ],
  'full-length': [
    <g key="0">
      <Chain y={95} />
      <rect
        x={94}
        y={80}
        width={72}
        height={30}
        rx={15}
        fill={ink('brass')}
        fillOpacity={0.35}
        stroke={ink('brass')}
        strokeWidth={2.5}
      />
      <Way d="M92 54H52m11 -9l-11 9 11 9M168 54h40m-11 -9l11 9 -11 9" />
    </g>,
    <g key="1">
      <path d="M96 14h44" {...LINE} strokeWidth={6} />
      <path d="M118 16V132" stroke={ink('edge')} strokeWidth={13} strokeDasharray="15 4" />
      <rect x={96} y={136} width={44} height={38} rx={4} fill={ink('edge')} />
      <Way d="M172 96v56m-9 -11l9 11 9 -11" />
    </g>,
    <g key="2">
      <path d="M96 14h44" {...LINE} strokeWidth={6} />
      <path d="M118 16V132" stroke={ink('edge')} strokeWidth={13} strokeDasharray="15 4" />
      <rect x={142} y={12} width={26} height={166} {...TOOL} fill={ink('blade')} />
      {Array.from({ length: 16 }, (_, i) => (
        <line
          key={i}
          x1={142}
          x2={142 + (i % 5 === 0 ? 14 : 8)}
          y1={18 + i * 10}
          y2={18 + i * 10}
          stroke={ink('edge')}
        />
      ))}
      <rect x={96} y={140} width={44} height={34} rx={4} fill={ink('edge')} />
      <Look x={132} y={132} r={18} />
    </g>,
  ],
  'by-hand': (['lifts-off-ring', 'bends-sideways', 'gaps-as-it-turns'] as const).map((sign) => (
    <g key={sign} transform="translate(130 98)">
      <HandSignFigure sign={sign} />
    </g>
  )),
}
