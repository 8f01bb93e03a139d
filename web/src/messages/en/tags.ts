/** What is said of bike tags. */
export const tags = {
  title: 'Bike tags',
  sheet: 'Tags',
  count_one: 'One tag',
  count_other: '{{count}} tags',
  note: 'Of the bikes the rack shows, {{count}} at most. Scanned by a phone’s camera, or by a scanner that types, anywhere in Pelrin.',
  code: 'Code of tag {{tag}}',
  print: 'Print',
  none: 'No bike is chosen. Filter the rack, then come back.',
  toRack: 'To the rack',
  missing: 'No bike here has the tag {{tag}}.',
  looking: 'Looking for tag {{tag}} …',
} as const
