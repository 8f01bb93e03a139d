import type { Instrument, ReviseInstrument } from '@pelrin/contract'

type Recorded = Pick<
  ReviseInstrument,
  'uMm' | 'u' | 'bias' | 'biasU' | 'marks' | 'material' | 'rollerMm' | 'seesRollerWear' | 'changeMark'
>

/** What a record says, for writing its next version. */
export const recordOf = ({
  uMm,
  u,
  bias,
  biasU,
  marks,
  material,
  rollerMm,
  seesRollerWear,
  changeMark,
}: Instrument): Recorded => ({ uMm, u, bias, biasU, marks, material, rollerMm, seesRollerWear, changeMark })
