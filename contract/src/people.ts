import * as v from 'valibot'
import { changeOf, Day, Id, line, Moment } from './common.ts'
import { endpoint } from './endpoint.ts'
import { Role } from './roles.ts'
import { Session } from './session.ts'
import { ShopSettings } from './shop.ts'

export const SHORTEST_PASSWORD = 10

/** A password somebody chooses: long enough, and on the server not one that everybody knows. What it is made of is theirs. */
export const NewPassword = v.pipe(
  v.string('password-missing'),
  v.nonEmpty('password-missing'),
  v.minLength(SHORTEST_PASSWORD, 'password-short'),
  v.maxLength(200, 'text-too-long'),
)
export const NewPin = v.pipe(v.string('text-missing'), v.regex(/^\d{4,8}$/, 'pin-malformed'))
export const Initials = v.pipe(line(4), v.toUpperCase(), v.regex(/^[\p{L}\d]+$/u, 'initials-malformed'))
/** What is typed at the door: no capitals, no blanks. */
const SignInName = v.pipe(line(40), v.toLowerCase(), v.regex(/^[\p{L}\d][\p{L}\d._-]*$/u, 'sign-in-name-malformed'))

/** Somebody who works here, or did, as the owner sees them. */
export const Colleague = v.object({
  id: Id,
  version: v.number(),
  name: v.string(),
  initials: v.string(),
  signInName: v.string(),
  role: Role,
  /** The last day they were here; null while they are. What they wrote stays theirs. */
  leftOn: v.nullable(Day),
  /** Has a password of their own; without one a link lets them in. */
  hasPassword: v.boolean(),
  hasPin: v.boolean(),
  /** Until when an unused link of theirs lets them in. */
  invitedUntil: v.nullable(Moment),
  lastHereAt: v.nullable(Moment),
})
export type Colleague = v.InferOutput<typeof Colleague>

const personEntries = { name: line(80), initials: Initials, signInName: SignInName, role: Role }

/** A link that lets one person in, once: said only now. */
const Invitation = v.object({
  token: v.string(),
  expiresAt: Moment,
})

/** What a one-time link opens. */
export const Welcome = v.object({
  /** The first day of a shop, somebody's first time, or the way back of who lost their password. */
  kind: v.picklist(['first-day', 'invited', 'way-back']),
  shop: ShopSettings,
  person: v.object({ name: v.string(), initials: v.string(), signInName: v.string(), role: Role }),
  expiresAt: Moment,
})
export type Welcome = v.InferOutput<typeof Welcome>

const Token = v.pipe(v.string('text-missing'), v.regex(/^[\w-]{20,80}$/, 'link-over'))

/** Whoever comes by a link chooses how they sign in from now on; on the first day they say who they are, and what the shop is. */
export const Enter = v.object({
  token: Token,
  password: NewPassword,
  /** Left out: none, or the one there is. */
  pin: v.exactOptional(NewPin),
  firstDay: v.exactOptional(
    v.object({
      shop: ShopSettings,
      name: line(80),
      initials: Initials,
      signInName: SignInName,
      /** Work a whole day takes, minutes; a shorter day takes its share, a closed one none. */
      dayMinutes: v.pipe(
        v.number('number-malformed'),
        v.integer('number-malformed'),
        v.minValue(60, 'day-minutes-range'),
        v.maxValue(6000, 'day-minutes-range'),
      ),
    }),
  ),
})
export type Enter = v.InferOutput<typeof Enter>

const byId = v.object({ id: Id })

export const peopleEndpoints = {
  people: endpoint({
    name: 'people',
    method: 'GET',
    path: '/people',
    summary: 'Everybody who works here or did, with their role and how they sign in.',
    access: 'owner',
    result: v.array(Colleague),
  }),
  addPerson: endpoint({
    name: 'addPerson',
    method: 'POST',
    path: '/people',
    summary: 'Add somebody. A link of their own lets them in.',
    access: 'owner',
    creates: true,
    body: v.object({ id: Id, ...personEntries }),
    result: Colleague,
  }),
  changePerson: endpoint({
    name: 'changePerson',
    method: 'PATCH',
    path: '/people/:id',
    summary: 'Change what somebody is called, or what they may do.',
    access: 'owner',
    versioned: true,
    params: byId,
    body: changeOf(personEntries),
    result: Colleague,
  }),
  invitePerson: endpoint({
    name: 'invitePerson',
    method: 'POST',
    path: '/people/:id/invitation',
    summary:
      'Make a one-time link by which somebody comes in and chooses a password: the first time, or since they lost theirs.',
    access: 'owner',
    params: byId,
    result: Invitation,
  }),
  personLeaves: endpoint({
    name: 'personLeaves',
    method: 'POST',
    path: '/people/:id/leaving',
    summary: 'Somebody leaves: they can sign in no more, and their name stays on what they wrote.',
    access: 'owner',
    versioned: true,
    params: byId,
    body: v.object({ on: Day }),
    result: Colleague,
  }),
  changeOwnPassword: endpoint({
    name: 'changeOwnPassword',
    method: 'POST',
    path: '/session/password',
    summary: 'Choose a new password. Every other session of yours ends.',
    access: 'signed-in',
    body: v.object({
      now: v.pipe(v.string('password-missing'), v.nonEmpty('password-missing'), v.maxLength(200, 'text-too-long')),
      next: NewPassword,
    }),
    result: Session,
  }),
  changeOwnPin: endpoint({
    name: 'changeOwnPin',
    method: 'POST',
    path: '/session/pin',
    summary: 'Choose a new PIN, with your password.',
    access: 'signed-in',
    body: v.object({
      password: v.pipe(v.string('password-missing'), v.nonEmpty('password-missing'), v.maxLength(200, 'text-too-long')),
      pin: NewPin,
    }),
    result: Session,
  }),
  welcome: endpoint({
    name: 'welcome',
    method: 'POST',
    path: '/welcome',
    summary: 'What a one-time link opens.',
    access: 'anyone',
    body: v.object({ token: Token }),
    result: Welcome,
  }),
  enter: endpoint({
    name: 'enter',
    method: 'POST',
    path: '/welcome/entry',
    summary: 'Come in by a one-time link: say who you are, choose a password, and on the first day name the shop.',
    access: 'anyone',
    body: Enter,
    result: Session,
  }),
}
