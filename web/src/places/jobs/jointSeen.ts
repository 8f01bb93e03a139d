import type { JointLook } from '../../pieces/JointDrawing.tsx'
import type { Said } from './useJob.ts'

/** What a joint can look like, in the order of the digits. */
export const LOOKS: readonly JointLook[] = ['link', 'pin', 'riveted', 'clip']
/** What somebody sees of the joint, as it is said; more than its kind is not seen. */
export const seen = (look: JointLook): Said => ({
  kind: 'choice',
  choice: { present: { kind: look, openedBy: null, oneUse: look === 'pin' } },
})
