import type { Right } from '@pelrin/contract'
import type { MessageKey } from '../messages/said.ts'

/** Something that can be done in a place, by a key or by its words. */
export interface Command {
  /** A letter; a span of digits such as `1-4`; or a key with what is held with it, such as `alt+arrowup`. Several with commas between. */
  readonly key: string
  readonly says: MessageKey
  /** It leads to a field, which takes the digits that follow. */
  readonly intoField?: true
  /** It writes, or changes what was typed: no letter after it can take it back. */
  readonly lasting?: true
  /** It works while something is being typed as well. */
  readonly typing?: true
  /** It only moves among what is shown: nobody looks for it by words. */
  readonly moves?: true
  /** What whoever is here has to be allowed: to who is not, neither key nor button is offered. Left out: looking, which is everybody's. */
  readonly right?: Right
}

interface CommandsOf {
  /** What the sheet of keys calls the place. */
  readonly title: MessageKey
  /** Its addresses. */
  readonly at: RegExp
  readonly commands: Readonly<Record<string, Command>>
}

/** Back to the bike, from everything about it. */
const toBike = { key: 'b', says: 'keys.record' } as const
const back = { key: 'escape', says: 'keys.back', moves: true } as const
const measure = { key: 'm', says: 'keys.measure', intoField: true, right: 'record' } as const
/** Where a bike leads to. */
const ways = {
  parts: { key: 'p', says: 'keys.parts' },
  job: { key: 'j', says: 'keys.job' },
  care: { key: 't', says: 'keys.treat', intoField: true },
  chains: { key: 's', says: 'keys.chains', intoField: true },
  distance: { key: 'k', says: 'keys.distance' },
  otherWear: { key: 'o', says: 'keys.otherWear' },
  mend: { key: 'x', says: 'keys.brokenChain' },
  sheet: { key: 'h', says: 'keys.handSheet' },
} as const

/**
 * Every command of every place, declared once: what runs it by key, the cap on its button, the sheet of keys and the palette are all made
 * from this. A place says what each does (`useCommands`), or that it cannot be done just now.
 */
export const COMMANDS = {
  stand: {
    title: 'keys.onStand',
    at: /^\/$/,
    commands: {
      up: { key: 'arrowup', says: 'keys.choose', moves: true },
      down: { key: 'arrowdown', says: 'keys.choose', moves: true },
      put: { key: 'enter', says: 'keys.put', right: 'stand' },
      earlier: { key: 'alt+arrowup', says: 'keys.earlier', right: 'stand' },
      later: { key: 'alt+arrowdown', says: 'keys.later', right: 'stand' },
      measure,
      record: toBike,
      ...ways,
      why: { key: 'w', says: 'keys.why' },
      done: { key: 'alt+d', says: 'keys.done', right: 'stand' },
      // No letter: names begin with every one, and are typed here.
      newBike: { key: 'alt+n', says: 'keys.newBike', right: 'customers' },
    },
  },
  customer: {
    title: 'keys.ofCustomer',
    at: /^\/customers\/[^/]+$/,
    commands: {
      change: { key: 'e', says: 'keys.changeCustomer', intoField: true, right: 'customers' },
      merge: { key: 'm', says: 'keys.mergeCustomer', intoField: true, right: 'customers' },
    },
  },
  customers: {
    title: 'keys.inCustomers',
    at: /^\/customers$/,
    commands: {
      up: { key: 'arrowup', says: 'keys.otherCustomer', moves: true, typing: true },
      down: { key: 'arrowdown', says: 'keys.otherCustomer', moves: true, typing: true },
      pageUp: { key: 'pageup', says: 'keys.otherPage', moves: true },
      pageDown: { key: 'pagedown', says: 'keys.otherPage', moves: true },
      open: { key: 'enter', says: 'keys.openCustomer' },
      // No letter: names begin with every one, and are typed here.
      newBike: { key: 'alt+n', says: 'keys.newBike', intoField: true, right: 'customers' },
      back,
    },
  },
  firstDay: {
    title: 'keys.onFirstDay',
    at: /^\/first-day$/,
    commands: { go: { key: '1-7', says: 'keys.firstStep', moves: true } },
  },
  rack: {
    title: 'keys.inRack',
    at: /^\/rack$/,
    commands: {
      up: { key: 'arrowup', says: 'keys.otherBike', moves: true, typing: true },
      down: { key: 'arrowdown', says: 'keys.otherBike', moves: true, typing: true },
      pageUp: { key: 'pageup', says: 'keys.otherPage', moves: true },
      pageDown: { key: 'pagedown', says: 'keys.otherPage', moves: true },
      put: { key: 'enter', says: 'keys.put', right: 'stand' },
      record: toBike,
      measure,
      tags: { key: 't', says: 'keys.printTags' },
      customers: { key: 'c', says: 'keys.toCustomers' },
      newBike: { key: 'n', says: 'keys.newBike', intoField: true, right: 'customers' },
    },
  },
  bike: {
    title: 'keys.inBike',
    at: /^\/bikes\/[^/]+$/,
    commands: {
      measure,
      correct: { key: 'c', says: 'keys.correct', right: 'record' },
      why: { key: 'w', says: 'keys.why' },
      decide: { key: 'd', says: 'keys.decide', right: 'decide' },
      ...ways,
      back,
    },
  },
  measure: {
    title: 'keys.inMeasure',
    at: /\/measure$/,
    commands: {
      jump: { key: 'alt+1-8', says: 'keys.jump', moves: true, typing: true },
      mode: { key: 'alt+m', says: 'keys.mode', typing: true },
      why: { key: 'alt+w', says: 'keys.whySpot', typing: true },
      leave: { ...back, typing: true },
    },
  },
  parts: {
    title: 'keys.inParts',
    at: /\/parts$/,
    commands: {
      chainUp: { key: 'arrowup', says: 'keys.chooseChain', moves: true },
      chainDown: { key: 'arrowdown', says: 'keys.chooseChain', moves: true },
      jointUp: { key: 'shift+arrowup', says: 'keys.chooseJoint', moves: true },
      jointDown: { key: 'shift+arrowdown', says: 'keys.chooseJoint', moves: true },
      fewer: { key: 'arrowleft', says: 'keys.pitches', moves: true },
      more: { key: 'arrowright', says: 'keys.pitches', moves: true },
      ask: { key: 'a', says: 'keys.ask' },
      drive: { key: 'e', says: 'keys.editDrive', right: 'work' },
      joint: { key: 'j', says: 'keys.seeJoint' },
      compare: { key: 'c', says: 'keys.compareChains' },
      closeAgain: { key: 'r', says: 'keys.closeAgain', right: 'work' },
      keep: { key: 'k', says: 'keys.keepParts', lasting: true, right: 'work' },
      letGo: { key: 'x', says: 'keys.letGoParts', lasting: true, right: 'work' },
      order: { key: 'o', says: 'keys.orderParts', right: 'orders' },
      catalogue: { key: 'l', says: 'keys.toCatalogue' },
      otherChain: { key: 't', says: 'keys.otherChain' },
      halfLink: { key: 'h', says: 'keys.halfLink' },
      record: toBike,
      back,
    },
  },
  chains: {
    title: 'keys.inChains',
    at: /\/chains$/,
    commands: {
      put: { key: '1-9', says: 'keys.putChain', right: 'work' },
      up: { key: 'arrowup', says: 'keys.otherOne', moves: true },
      down: { key: 'arrowdown', says: 'keys.otherOne', moves: true },
      add: { key: 'a', says: 'keys.addChain', right: 'work' },
      undo: { key: 'u', says: 'keys.undoSwap', lasting: true, right: 'work' },
      measure,
      record: toBike,
      back,
    },
  },
  care: {
    title: 'keys.inCare',
    at: /\/care$/,
    commands: {
      treatBy: { key: '1-4', says: 'keys.treatBy', right: 'record' },
      treat: { key: 'enter', says: 'keys.treatAsUsual', right: 'record' },
      wash: { key: 'w', says: 'keys.wasWashed', lasting: true, right: 'record' },
      squeak: { key: 'q', says: 'keys.squeaks', lasting: true, right: 'record' },
      undo: { key: 'u', says: 'keys.undoCare', lasting: true, right: 'record' },
      toPot: { key: 'g', says: 'keys.toThePot', lasting: true, right: 'record' },
      wanted: { key: 'd', says: 'keys.dayWanted', right: 'customers' },
      plan: { key: 'e', says: 'keys.intervalHabit', right: 'work' },
      measure,
      record: toBike,
      back,
    },
  },
  otherWear: {
    title: 'keys.inOtherWear',
    at: /\/other-wear$/,
    commands: {
      pick: { key: '1-4', says: 'keys.pickShape', right: 'record' },
      up: { key: 'arrowup', says: 'keys.otherOne', moves: true, typing: true },
      down: { key: 'arrowdown', says: 'keys.otherOne', moves: true, typing: true },
      leave: { key: 'enter', says: 'keys.leaveLine', moves: true, typing: true },
      renewed: { key: 'n', says: 'keys.newPartOn', lasting: true, right: 'record' },
      save: { key: 's', says: 'keys.saveLooks', lasting: true, right: 'record' },
      record: toBike,
      back: { ...back, typing: true },
    },
  },
  mend: {
    title: 'keys.inMend',
    at: /\/mend$/,
    commands: {
      left: { key: 'arrowleft', says: 'keys.movePitch', moves: true },
      right: { key: 'arrowright', says: 'keys.movePitch', moves: true },
      mark: { key: 'space', says: 'keys.markPitch' },
      seen: { key: 'enter', says: 'keys.sectionSeen' },
      way: { key: '1-9', says: 'keys.pickWay', right: 'work' },
      measure: { key: 'm', says: 'keys.measureBroken', right: 'record' },
      addBack: { key: 'a', says: 'keys.addBack', right: 'work' },
      record: toBike,
      back,
    },
  },
  job: {
    title: 'keys.inJob',
    at: /\/job$/,
    commands: {
      done: { key: 'space', says: 'keys.stepDone', right: 'record' },
      on: { key: 'arrowright,arrowdown', says: 'keys.stepMove', moves: true },
      back: { key: 'arrowleft,arrowup', says: 'keys.stepMove', moves: true },
      undo: { key: 'backspace', says: 'keys.stepUndo', right: 'record' },
      look: { key: '1-4', says: 'keys.pickLook', right: 'record' },
    },
  },
  jobOfBike: {
    title: 'keys.inJob',
    at: /\/job$/,
    commands: { measure, parts: { key: 'p', says: 'keys.parts' }, record: toBike },
  },
  jobBegin: {
    title: 'keys.inJob',
    at: /\/job$/,
    commands: {
      reason: { key: '1-9', says: 'keys.pickReason', right: 'record' },
      begin: { key: 'enter', says: 'keys.beginJob', right: 'record' },
    },
  },
  jobClose: {
    title: 'keys.inJob',
    at: /\/job$/,
    commands: {
      click: { key: '1-3', says: 'keys.pickClick', right: 'work' },
      close: { key: 'enter', says: 'keys.closeJob', right: 'work' },
    },
  },
  jobNotes: {
    title: 'keys.inJob',
    at: /\/job$/,
    commands: { note: { key: 'n', says: 'keys.writeNote', right: 'record' } },
  },
  jobTimer: {
    title: 'keys.inJob',
    at: /\/job$/,
    commands: { run: { key: 't', says: 'keys.runTimer', lasting: true } },
  },
  pot: {
    title: 'keys.inPot',
    at: /^\/pot$/,
    commands: {
      next: { key: 'enter', says: 'keys.nextIsDone', right: 'record' },
      up: { key: 'arrowup', says: 'keys.otherOne', moves: true },
      down: { key: 'arrowdown', says: 'keys.otherOne', moves: true },
      sooner: { key: 'arrowleft', says: 'keys.pinChain', moves: true, right: 'record' },
      later: { key: 'arrowright', says: 'keys.pinChain', moves: true, right: 'record' },
      letGo: { key: 'p', says: 'keys.letGoPin', lasting: true, right: 'record' },
      add: { key: 'a', says: 'keys.addToPot', right: 'record' },
      takeOut: { key: 'x', says: 'keys.outOfPot', lasting: true, right: 'record' },
      backOn: { key: 'b', says: 'keys.backOnBike', intoField: true, right: 'record' },
    },
  },
  diary: {
    title: 'keys.inDiary',
    at: /^\/diary$/,
    commands: {
      dayBefore: { key: 'arrowleft', says: 'keys.otherDay', moves: true },
      dayAfter: { key: 'arrowright', says: 'keys.otherDay', moves: true },
      up: { key: 'arrowup', says: 'keys.otherVisit', moves: true },
      down: { key: 'arrowdown', says: 'keys.otherVisit', moves: true },
      bookSuits: { key: 'enter', says: 'keys.bookSuits', right: 'diary' },
      book: { key: 'b', says: 'keys.bookChosen', lasting: true, right: 'diary' },
      remind: { key: 'r', says: 'keys.remindAll', right: 'messages' },
      messages: { key: 'o', says: 'keys.seeMessages' },
      calendar: { key: 'c', says: 'keys.calendarAddress', right: 'diary' },
    },
  },
  catalogue: {
    title: 'keys.inCatalogue',
    at: /^\/catalogue/,
    commands: {
      up: { key: 'arrowup', says: 'keys.choosePart', moves: true },
      down: { key: 'arrowdown', says: 'keys.choosePart', moves: true },
      pageUp: { key: 'pageup', says: 'keys.otherPage', moves: true },
      pageDown: { key: 'pagedown', says: 'keys.otherPage', moves: true },
      add: { key: 'n', says: 'keys.newPart', right: 'stock' },
      received: { key: 'i', says: 'keys.received', right: 'stock' },
      used: { key: 'u', says: 'keys.used', right: 'stock' },
      counted: { key: 'c', says: 'keys.counted', right: 'stock' },
      back,
    },
  },
  gauges: {
    title: 'keys.inGauges',
    at: /^\/gauges/,
    commands: {
      check: { key: 'c', says: 'keys.check', right: 'instruments' },
      record: { key: 'e', says: 'keys.editRecord', right: 'instruments' },
    },
  },
  distance: { title: 'keys.inDistance', at: /\/distance$/, commands: { back: { ...back, typing: true } } },
  messages: { title: 'keys.inMessages', at: /^\/messages$/, commands: { back } },
  tags: { title: 'keys.inTags', at: /^\/tags$/, commands: { print: { key: 'p', says: 'keys.print' }, back } },
  sheets: {
    title: 'keys.inSheet',
    at: /\/sheets\//,
    commands: { print: { key: 'p', says: 'keys.print' }, record: toBike, back },
  },
} as const satisfies Readonly<Record<string, CommandsOf>>

export type CommandPlace = keyof typeof COMMANDS
export type CommandOf<P extends CommandPlace> = keyof (typeof COMMANDS)[P]['commands'] & string
/** A command by its place and its own name, such as `care.wash`. */
export type CommandName = { [P in CommandPlace]: `${P}.${CommandOf<P>}` }[CommandPlace]

/** The commands of a place, by their names. */
export const commandsOf = (place: CommandPlace): Readonly<Record<string, Command>> => COMMANDS[place].commands

/** A command by its whole name. */
export function commandNamed(name: CommandName): Command {
  const [place, id] = name.split('.') as [CommandPlace, string]
  return commandsOf(place)[id]!
}

/** Whether a single letter runs it: those can be switched off and changed. */
export const isLetter = ({ key }: Command): boolean => /^[a-z]$/.test(key)

const CAPS: Readonly<Record<string, string>> = {
  arrowup: '↑',
  arrowdown: '↓',
  arrowleft: '←',
  arrowright: '→',
  enter: 'Enter',
  escape: 'Esc',
  space: 'Space',
  backspace: '⌫',
  pageup: 'PgUp',
  pagedown: 'PgDn',
  alt: 'Alt',
  shift: '⇧',
}

/** A key as its cap shows it. */
export const capOf = (key: string): string =>
  key
    .split(',')
    .map((one) =>
      one
        .split('+')
        .map((part) => CAPS[part] ?? part.toUpperCase().replace('-', '–'))
        .join(' '),
    )
    .join(' ')
