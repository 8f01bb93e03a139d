import type { Conditions } from '@pelrin/contract'
import type { TFunction } from 'i18next'

/** Where a reading was taken, and under what tension where that was said. */
export const takenText = ({ run, load }: Pick<Conditions, 'run' | 'load'>, t: TFunction): string =>
  [t(`measure.run.${run}`), ...(load === undefined ? [] : [t(`measure.load.${load}`)])].join(', ')
