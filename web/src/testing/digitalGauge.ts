import type { Instrument } from '@pelrin/contract'

/** A digital gauge of the shop, in use and never checked. */
export const digitalGauge: Instrument = {
  ...{ id: 'gauge', kind: 'digital', name: 'Digital gauge', recordVersion: 4, standing: 'in-use' },
  ...{ uMm: null, u: null, bias: 0, biasU: 0, marks: null, material: null, rollerMm: null, seesRollerWear: false },
  ...{ changeMark: null, reads: null, checkedOn: null, checkDueOn: null, checkLapsed: false },
  ...{ connected: false, standIn: false },
}
