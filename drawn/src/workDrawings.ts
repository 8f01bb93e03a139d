import { arrow, circle, cross, HEAVY, level, line, path, run, tick } from './hand.ts'
import type { InkName, Shape } from './shapes.ts'

/** The lower run seen from the side, its rollers. */
const lower = (y: number, from = 14, to = 326): Shape[] => [
  line(from, y, to, y, { stroke: 'edge', width: 16, opacity: 0.25 }),
  ...Array.from({ length: Math.floor((to - from - 20) / 44) + 1 }, (_, i) => circle(from + 22 + i * 44, y, 9)),
]
/** A cloth in a hand, round something. */
const cloth = (x: number, y: number, fill: InkName = 'sheet'): Shape[] => [
  path(`M${x - 30} ${y - 22}c16 -12 44 -10 60 0c8 14 6 32 -2 44c-16 10 -42 10 -58 0c-8 -14 -8 -30 0 -44Z`, {
    fill,
    width: 2.2,
  }),
  path(`M${x - 14} ${y - 18}c4 12 2 26 -2 36M${x + 6} ${y - 20}c4 12 2 28 -2 40`, { stroke: 'line', width: 2.2 }),
]
/** A tub with something in it up to a level. */
const tub = (x: number, y: number, fill: InkName): Shape[] => [
  path(`M${x + 4} ${y + 24}h132v36c0 8 -6 12 -14 12h-104c-8 0 -14 -4 -14 -12Z`, { fill, opacity: 0.35, stroke: fill }),
  path(`M${x} ${y}v62c0 10 8 14 18 14h104c10 0 18 -4 18 -14v-62`, { width: HEAVY }),
]
const coil = (x: number, y: number): Shape =>
  path(`M${x - 32} ${y}c0 -14 64 -14 64 0s-64 14 -64 2c0 -12 56 -10 56 2s-48 10 -48 2`, { stroke: 'edge', width: 4 })
/** Ring and sprockets from the drive side, and the chain over one of each. */
const rings = (front: number, rear: number): Shape[] => [
  ...[44, 30].map((r) => circle(86, 76, r, r === 44 ? 'sheet' : 'paper', r === front ? 'edge' : 'line')),
  circle(86, 76, 4, 'edge'),
  ...[34, 24, 15].map((r) => circle(266, 76, r, r === 34 ? 'sheet' : 'paper', r === rear ? 'edge' : 'line')),
  circle(266, 76, 4, 'edge'),
]
const chain = (d: string): Shape => path(d, { stroke: 'steel', width: 4.5 })
/** A crank with its pedal, turned back. */
const crankBack: readonly Shape[] = [
  circle(96, 80, 44),
  circle(96, 80, 4, 'edge'),
  line(96, 80, 138, 126, { stroke: 'ink', width: 6 }),
  line(126, 130, 152, 122, { stroke: 'ink', width: 6 }),
  path('M152 66A60 60 0 0 0 112 22', { stroke: 'steel', width: HEAVY }),
  path('M124 14l-12 8l10 11', { stroke: 'steel', width: HEAVY }),
]
/** A derailleur's cage between its two pulleys, its foot at a point. */
const cage = (x: number, y: number): Shape[] => [
  line(180, 44, x, y, { stroke: 'line', width: 16 }),
  circle(180, 44, 14),
  circle(x, y, 14),
]
const drop = (x: number, y: number): Shape =>
  path(`M${x} ${y}c-5 8 -7 12 -7 16a7 7 0 0 0 14 0c0 -4 -2 -8 -7 -16Z`, { fill: 'steel', stroke: 'steel' })
const clock = (x: number, y: number): Shape =>
  path(`M${x} ${y - 20}a20 20 0 1 0 0.1 0M${x} ${y - 14}v14l10 6`, { stroke: 'steel', width: HEAVY })
const battery = (x: number): Shape[] => [
  path(`M${x} 52h70v44h-70Z`, { fill: 'sheet', width: HEAVY }),
  path(`M${x + 16} 74h14M${x + 44} 74h12M${x + 50} 68v12`, { stroke: 'ink', width: HEAVY }),
]
const bike: readonly Shape[] = [
  path('M36 112L110 40H214L262 112', { stroke: 'ink', width: 6 }),
  path('M110 40L150 112M214 40L150 112', { stroke: 'ink', width: 6 }),
]

export const WORK_SHAPES = {
  // Chain on the smallest of both: the cage hangs back.
  slack: [
    ...rings(30, 15),
    chain('M86 46L266 61A15 15 0 0 1 266 91L86 106A30 30 0 0 1 86 46'),
    arrow(300, 20, 282, 50),
  ],
  // Lifted off inwards, it lies beside the ring on the shell.
  'slack-off': [
    ...rings(0, 15),
    chain('M98 92L266 61A15 15 0 0 1 266 91L98 100A5 5 0 0 1 98 92'),
    arrow(110, 24, 104, 74),
  ],
  // Left on the largest ring: nothing is lifted back on afterwards.
  'slack-large': [
    ...rings(44, 15),
    chain('M86 32L266 61A15 15 0 0 1 266 91L86 120A44 44 0 0 1 86 32'),
    arrow(300, 20, 282, 50),
  ],
  'cage-lock': [
    ...cage(112, 104),
    arrow(196, 116, 146, 118),
    circle(180, 44, 5, 'steel', 'steel'),
    path('M240 62v-12a14 14 0 0 1 28 0v12M232 62h44v32h-44Z', { stroke: 'ink', width: HEAVY }),
  ],
  'cage-unlock': [
    ...cage(180, 112),
    arrow(112, 116, 152, 118),
    circle(180, 44, 5),
    path('M240 62v-12a14 14 0 0 1 28 -4M232 62h44v32h-44Z', { stroke: 'ink', width: HEAVY }),
  ],
  // The lever on the cage's hinge.
  'clutch-off': [
    ...cage(150, 120),
    path('M180 44L238 62', { stroke: 'ink', width: 9 }),
    path('M238 22A62 62 0 0 1 242 58', { stroke: 'steel', width: HEAVY }),
    path('M232 50l10 10l8 -12', { stroke: 'steel', width: HEAVY }),
  ],
  'clutch-on': [
    ...cage(150, 120),
    path('M180 44L232 16', { stroke: 'ink', width: 9 }),
    path('M246 62A62 62 0 0 0 240 26', { stroke: 'steel', width: HEAVY }),
    path('M250 34l-11 -10l-7 13', { stroke: 'steel', width: HEAVY }),
  ],
  // The top run held in a hand above the stay, the hook eased out below.
  'let-go': [
    line(20, 92, 320, 76, { stroke: 'ink', width: 10 }),
    chain('M20 44L150 40'),
    chain('M190 40L320 44'),
    ...cloth(170, 40, 'paper'),
    path('M150 128c0 -12 8 -16 20 -16s20 4 20 16', { stroke: 'brass', width: 4 }),
    arrow(214, 132, 250, 132),
  ],
  // One jaw on the pin, one on the clip's closed end: it slides off towards the other pin.
  'open-clip': [
    ...run('inner', level(40, 80, 6)),
    path('M124 62C146 52 158 60 168 62C190 54 216 58 216 80C216 102 190 106 168 98C158 100 146 108 124 98', {
      stroke: 'steel',
      width: HEAVY,
    }),
    path('M226 80L286 44M84 80L60 128', { stroke: 'ink', width: 6 }),
    arrow(216, 30, 168, 30),
  ],
  // From above: ends of the pin even on both sides; one that stands out on one is crossed out.
  're-press': [
    line(40, 52, 150, 52, { width: 6 }),
    line(40, 108, 150, 108, { width: 6 }),
    line(96, 45, 96, 115, { stroke: 'steel', width: 8 }),
    tick(96, 138),
    line(206, 52, 316, 52, { width: 6 }),
    line(206, 108, 316, 108, { width: 6 }),
    line(262, 52, 262, 130, { stroke: 'madder', width: 8 }),
    cross(296, 136, 7),
  ],
  'axle-forward': [
    path('M60 40H250a18 18 0 0 1 0 60H60', { fill: 'sheet', width: HEAVY }),
    circle(190, 70, 20, 'line'),
    circle(190, 70, 9, 'edge'),
    arrow(170, 124, 96, 124),
  ],
  // Pulled back until the run has a finger's play.
  'axle-back': [
    circle(74, 76, 40),
    circle(282, 76, 24),
    chain('M74 36L282 52'),
    chain('M74 116C150 124 210 120 282 100'),
    arrow(178, 150, 178, 128),
    arrow(178, 90, 178, 110),
    arrow(296, 30, 330, 30),
  ],
  eccentric: [
    circle(150, 76, 54),
    circle(150, 76, 44, 'paper'),
    circle(172, 76, 14, 'line'),
    circle(172, 76, 5, 'edge'),
    path('M218 40A76 76 0 0 1 222 108', { stroke: 'steel', width: HEAVY }),
    path('M212 100l10 10l8 -12', { stroke: 'steel', width: HEAVY }),
  ],
  tighten: [
    circle(150, 76, 30, 'line'),
    path('M136 52h28l14 24l-14 24h-28l-14 -24Z', { fill: 'sheet', width: HEAVY }),
    path('M170 76L300 40', { stroke: 'ink', width: 9 }),
    path('M292 66A140 140 0 0 1 270 104', { stroke: 'steel', width: HEAVY }),
    path('M284 96l-14 9l-3 -15', { stroke: 'steel', width: HEAVY }),
  ],
  // Both cranks of a tandem the same way.
  phase: [
    circle(92, 70, 34),
    circle(248, 70, 34),
    line(92, 70, 60, 120, { stroke: 'ink', width: 6 }),
    line(248, 70, 216, 120, { stroke: 'ink', width: 6 }),
    chain('M92 36L248 36'),
    chain('M92 104L248 104'),
    tick(170, 132),
  ],
  'cloth-run': [...lower(84), ...cloth(170, 84), arrow(222, 34, 280, 34)],
  // Shaken in a bath.
  bath: [...tub(100, 50, 'steel'), coil(170, 98), arrow(214, 26, 246, 26), arrow(126, 26, 94, 26)],
  'bath-sound': [
    ...tub(100, 50, 'steel'),
    coil(170, 98),
    path('M66 70c-8 10 -8 26 0 36M50 62c-12 14 -12 38 0 52M274 70c8 10 8 26 0 36M290 62c12 14 12 38 0 52', {
      stroke: 'steel',
      width: HEAVY,
    }),
  ],
  // Two baths, one after the other, until the last stays clear.
  'two-baths': [
    ...tub(14, 54, 'ink'),
    ...tub(186, 54, 'steel'),
    path('M84 34C120 8 220 8 252 34', { stroke: 'steel', width: HEAVY }),
    path('M240 22l13 12l4 -16', { stroke: 'steel', width: HEAVY }),
    coil(254, 100),
  ],
  // Poured over it as it hangs in the sink, away from the hand that pours.
  boil: [
    path('M30 34h62l8 46h-78ZM92 42l34 8', { fill: 'line', width: HEAVY }),
    path('M126 52C170 60 190 70 196 84M122 58C160 66 182 78 186 92', { stroke: 'steel', width: 2.4 }),
    ...tub(150, 64, 'steel'),
    coil(220, 108),
    path('M206 40c-6 -8 6 -12 0 -22M230 40c-6 -8 6 -12 0 -22', { stroke: 'faint', width: 2.2 }),
  ],
  'brush-run': [
    ...lower(104),
    path('M150 24h96v22h-96Z', { fill: 'line', width: 2.2 }),
    path('M158 46v40M172 46v40M186 46v40M200 46v40M214 46v40M228 46v40', { stroke: 'ink', width: 2.4 }),
    arrow(130, 58, 84, 58),
  ],
  box: [
    ...lower(100),
    path('M112 66h116v62h-116Z', { fill: 'sheet', width: HEAVY, opacity: 0.9 }),
    path('M112 100h116', { stroke: 'line', width: 6 }),
    circle(140, 100, 12),
    circle(200, 100, 12),
    path('M292 78A44 44 0 0 0 262 30', { stroke: 'steel', width: HEAVY }),
    path('M274 22l-13 7l9 12', { stroke: 'steel', width: HEAVY }),
  ],
  // Soft water down; a jet is crossed out.
  rinse: [
    ...lower(116, 14, 200),
    path('M40 20h70v22h-70Z', { fill: 'line' }),
    path('M50 48v34M66 48v44M82 48v38M98 48v44', { stroke: 'steel', width: 2.2, dash: [6, 6] }),
    path('M230 70h40l10 8l-10 8h-40Z', { fill: 'line' }),
    path('M282 78l50 -14M282 78l52 0M282 78l50 14', { stroke: 'madder', width: 2.4 }),
    cross(256, 116, 9),
  ],
  'cover-rotor': [
    circle(150, 78, 58),
    circle(150, 78, 40, 'paper'),
    circle(150, 78, 8, 'edge'),
    path('M130 12C210 4 232 60 214 118L120 140C104 100 108 40 130 12Z', { fill: 'sheet', opacity: 0.9, width: HEAVY }),
    tick(284, 118),
  ],
  'rotor-look': [
    circle(110, 78, 56),
    circle(110, 78, 38, 'paper'),
    circle(110, 78, 8, 'edge'),
    drop(226, 40),
    drop(252, 60),
    cross(240, 70, 26),
    path('M286 92c12 -14 32 -14 42 0c-10 14 -30 14 -42 0Z', { stroke: 'steel', width: 2.2 }),
    circle(307, 92, 4, 'steel', 'steel'),
  ],
  'turn-back': [
    ...crankBack,
    circle(272, 80, 20),
    circle(272, 80, 4, 'edge'),
    chain('M96 36L272 60'),
    chain('M96 124L272 100'),
  ],
  // Its two halves beside the pot, not in it.
  'link-out': [
    ...tub(20, 56, 'brass'),
    coil(90, 102),
    ...run('outer', level(216, 56, 2)),
    ...run('outer', level(216, 112, 2)),
    tick(306, 84),
  ],
  // Side by side; in a heap is crossed out.
  'lay-out': [
    ...[36, 64, 92].map((y) => path(`M20 ${y}h128`, { stroke: 'edge', width: 9, dash: [12, 4] })),
    tick(84, 126),
    path('M206 40c60 -20 100 30 40 44s-70 -30 -8 -34s90 40 30 52s-86 -16 -50 -30', {
      stroke: 'edge',
      width: 8,
      dash: [12, 4],
    }),
    cross(252, 130, 8),
  ],
  'pot-off': [
    path('M110 92h120v34h-120Z', { fill: 'line', width: HEAVY }),
    path('M118 24v44c0 8 6 12 14 12h76c8 0 14 -4 14 -12v-44', { fill: 'sheet', width: HEAVY }),
    ...cloth(104, 50),
    ...cloth(236, 50),
    arrow(292, 84, 292, 34),
  ],
  'soak-clock': [...tub(70, 52, 'brass'), coil(140, 98), clock(270, 72)],
  // Flakes come off where the chain bends.
  shed: [
    circle(170, 60, 34),
    circle(170, 60, 5, 'edge'),
    chain('M20 26H170A34 34 0 0 1 170 94H60'),
    ...[120, 146, 188, 206].map((x, i) => path(`M${x} ${110 + (i % 2) * 10}l5 7`, { stroke: 'brass', width: 3 })),
    arrow(290, 92, 290, 40),
  ],
  // Bits in one, the new link in the other.
  'two-pockets': [
    path('M30 50h108v64c0 12 -10 20 -22 20h-64c-12 0 -22 -8 -22 -20Z', { fill: 'sheet', width: HEAVY }),
    path('M202 50h108v64c0 12 -10 20 -22 20h-64c-12 0 -22 -8 -22 -20Z', { fill: 'sheet', width: HEAVY }),
    path('M56 92l14 -10l8 12l16 -8l10 14', { stroke: 'madder', width: 5 }),
    ...run('outer', level(234, 94, 2)),
    path('M30 62h108M202 62h108', { stroke: 'line', dash: [5, 4] }),
  ],
  'tagged-piece': [
    ...run('inner', level(40, 60, 5)),
    path('M238 66l22 24M260 90h60v42h-60Z', { stroke: 'brass', width: HEAVY }),
    path('M272 104h36M272 116h24', { stroke: 'ink', width: 2.4 }),
  ],
  // The lockring to its maker's torque.
  lockring: [
    ...[56, 46, 36, 27].map((r) => circle(130, 76, r, r === 56 ? 'sheet' : 'paper')),
    circle(130, 76, 16, 'line'),
    path('M130 76L304 46', { stroke: 'ink', width: 9 }),
    path('M294 72A164 164 0 0 1 276 114', { stroke: 'steel', width: HEAVY }),
    path('M290 105l-14 10l-5 -15', { stroke: 'steel', width: HEAVY }),
  ],
  'battery-out': [...bike, ...battery(128), arrow(222, 74, 290, 74)],
  'battery-in': [...bike, ...battery(128), arrow(290, 74, 222, 74)],
  'cloth-end': [...run('inner', level(30, 84, 5)), ...cloth(222, 84), arrow(258, 84, 312, 84)],
  'drop-link': [
    ...run('inner', level(90, 106, 4)),
    path('M150 8h20l-4 28h-12Z', { fill: 'sheet' }),
    drop(134, 52),
    drop(178, 52),
    tick(288, 100),
  ],
  // Through the fingers, a bent plate found.
  'through-fingers': [
    ...run('inner', level(20, 86, 3)),
    ...cloth(160, 86, 'paper'),
    ...run('inner', level(214, 86, 3)),
    path('M248 60q14 -10 22 -30', { stroke: 'madder', width: 5 }),
    arrow(96, 34, 40, 34),
  ],
  'rule-run': [
    ...run('inner', level(30, 60, 6)),
    path('M22 96h280v26h-280Z', { fill: 'sheet', width: 2.2 }),
    path('M30 96v14M74 96v8M118 96v14M162 96v8M206 96v14M250 96v8', { stroke: 'ink', width: 2.2 }),
    path('M30 70v24M250 70v24', { stroke: 'steel', width: 2.2, dash: [4, 4] }),
  ],
  // Large on large: how far the cage is pulled; small on small: how it hangs.
  'length-look': [
    circle(62, 62, 36),
    circle(142, 50, 26),
    path('M142 84l-14 40', { stroke: 'line', width: 12 }),
    chain('M62 26L142 24M62 98L128 124'),
    circle(232, 62, 20),
    circle(302, 56, 12),
    path('M302 78l18 40', { stroke: 'line', width: 12 }),
    chain('M232 42L302 44M232 82C262 108 292 118 320 118'),
    path('M186 20v112', { stroke: 'line', dash: [5, 5] }),
  ],
  'wipe-wheels': [...rings(44, 34), ...cloth(266, 112), arrow(236, 140, 206, 132)],
} as const satisfies Readonly<Record<string, readonly Shape[]>>
