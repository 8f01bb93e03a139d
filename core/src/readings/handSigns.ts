/** What a check by hand can notice. Any of them hints at wear; none of them proves a chain good. */
export const HAND_SIGNS = ['lifts-off-ring', 'bends-sideways', 'gaps-as-it-turns'] as const
export type HandSign = (typeof HAND_SIGNS)[number]

/** What the signs noticed hint at. */
export const hintOf = (noticed: readonly HandSign[]): 'worn' | 'nothing' => (noticed.length > 0 ? 'worn' : 'nothing')
