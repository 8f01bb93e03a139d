/** What is said of bike tags. */
export const tags = {
  title: 'Bike tags',
  sheet: 'Tags',
  count_one: 'One tag',
  count_other: '{{count}} tags',
  note: 'Of the bikes the rack shows, {{count}} at most. Scanned by the camera beside the finder, by a phone’s camera, or by a scanner that types, anywhere in Pelrin.',
  code: 'Code of tag {{tag}}',
  print: 'Print',
  none: 'No bike is chosen. Filter the rack, then come back.',
  toRack: 'To the rack',
  missing: 'No bike here has the tag {{tag}}.',
  looking: 'Looking for tag {{tag}} …',
  scan: 'Scan a tag',
  other: 'This is no bike’s tag: {{text}}',
  camera: {
    asking: 'The browser may ask whether Pelrin may use the camera.',
    looking: 'Hold the tag’s code before the camera.',
    insecure:
      'The browser gives no camera to an address without TLS. Open Pelrin by its https address, or type the tag’s number.',
    refused:
      'The camera is not allowed here. Allow it in the browser’s settings for this address, or type the tag’s number.',
    missing: 'This device has no camera. Type the tag’s number, or use a scanner that types.',
    taken: 'The camera does not answer; another program may have it. Close that, or type the tag’s number.',
  },
} as const
