/** Words for riding a bicycle, in what files call a sport. */
const CYCLING = /cycl|bik|ride|riding|velo|v\u00e9lo|rad|spin|indoor_training|virtual/i
/** What only sounds like it, or turns no chain of a bicycle. */
const OTHER = /motor|horse|hike|hiking/i
/** Words that say nothing of what was done. */
const UNSAID = /^(|other|generic|unknown|workout|training|multi_?sport|default)$/i

/**
 * Whether a sport, as a file calls it, is riding a bicycle: nothing else wears a chain. What says nothing is believed to be, since somebody brought it
 * to a bike.
 */
export const isCycling = (sport: string): boolean =>
  UNSAID.test(sport.trim()) || (CYCLING.test(sport) && !OTHER.test(sport)) || /^\d+$/.test(sport.trim())

/** Whether a kind of riding, as a file calls it, is on a trainer or rollers. */
export const isIndoors = (kind: string): boolean => /indoor|trainer|virtual|spin|roller/i.test(kind)
