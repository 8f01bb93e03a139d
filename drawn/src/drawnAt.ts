import type { StepDrawing } from './stepDrawings.ts'

/** What a step looks like, by its id: the same in a job, in a chain's care and at the pot. */
const DRAWN_AT: Readonly<Partial<Record<string, StepDrawing>>> = {
  'count-old': 'count',
  'length-new': 'count',
  'note-way': 'thread',
  'hold-ends': 'hook',
  'ends-together': 'hook',
  'set-tool': 'bench-and-multi',
  cut: 'tool-square',
  'take-out': 'tool-square',
  'put-in': 'put-in',
  'count-mended': 'count',
  'cage-screw': 'cage-screw',
  'join-others': 'halves',
  'open-anywhere': 'tool-square',
  'open-link': 'link-open',
  'outer-out': 'outer-out',
  'draw-out': 'draw-out',
  direction: 'thread',
  'route-front': 'front-cage',
  'route-pulleys': 'cage-tab',
  'wide-narrow': 'wide-narrow',
  'clear-wax': 'clear-wax',
  'join-link': 'halves',
  'first-catch': 'catch',
  'snap-pliers': 'link-close',
  'snap-pedal': 'pedal',
  'look-click': 'click-sides',
  'new-link': 'halves',
  'join-pin': 'joining-pin',
  'new-pin': 'joining-pin',
  'guide-off': 'guide',
  'join-clip': 'clip-way',
  'back-on-ring': 'on-ring',
  'stiff-link': 'stiff-link',
  'free-stiff': 'stiff-link',
  'first-oil': 'drops',
  'drop-each-roller': 'drops',
  'drip-each-roller': 'drops',
  'oil-ends': 'drops',
  'test-ride': 'ride',
  'ride-again': 'ride',
  'wax-first': 'swish',
  heat: 'heat',
  'hook-through': 'hook-through',
  'lower-in': 'lower-in',
  swish: 'swish',
  skin: 'skin',
  draw: 'slow-draw',
  'slow-draw': 'slow-draw',
  hang: 'hang',
  'hang-new': 'hang',
  flex: 'flex',
  dry: 'dry',
}

/** The drawing of a step, by what it is about where that differs; null where there is nothing to look at. */
export function drawnAt(step: string, values: Readonly<Record<string, string | number>> = {}): StepDrawing | null {
  if (step === 'route-rear') return values['context'] === 'timing' ? null : 'one-sprocket'
  if (step === 'open-pin' || step === 'open-riveted')
    return values['context'] === 'convert' ? 'outer-out' : 'tool-square'
  if (step === 'lay-bike') return values['context'] === 'on-side' ? 'lay-side' : null
  if (step === 'take-out' && values['context'] === 'link') return 'outer-out'
  if (step === 'check-ends') return values['context'] === 'one-outer' ? 'ends-one-outer' : 'ends-both-inner'
  return DRAWN_AT[step] ?? null
}
