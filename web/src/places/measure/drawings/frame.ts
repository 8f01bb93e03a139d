/** Every instrument is drawn on the same sheet, so that changing it moves nothing else. */
export const WIDTH = 760
export const HEIGHT = 260
export const PAD = 22

/** The roller of a chain and its plate, mm. */
export const ROLLER_MM = 7.75
export const PLATE_MM = 8.4
