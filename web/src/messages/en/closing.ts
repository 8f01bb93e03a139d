/** What is asked as a chain goes back on. */
export const closing = {
  title: 'Back on: {{chain}}',
  how: 'How did the link click?',
  counted_one: '{{link}}, closed once so far.',
  counted_other: '{{link}}, closed {{count}} times so far.',
  countedOf: '{{link}}, closed {{closings}} of {{most}} times.',
  uncounted: '{{link}}: nobody has counted its closings.',
  spent: 'That is as often as its maker allows. You may close it once more by feel; a new one is safer.',
  usedUp: 'Its link is used up. Take a new one.',
  toLink: 'It is closed by a pin. No pin goes into the wax: take a link.',
  takeNew: 'Take a new link',
  which: 'Which link?',
  other: 'Another one, not from stock',
  inStock: '{{count}} in stock',
  noLinks: 'No link that fits is in the catalogue.',
  noSecond: 'A link that does not click gets no second try. Take a new one.',
} as const
