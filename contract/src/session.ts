import * as v from 'valibot'
import { Id, line, Moment } from './common.ts'
import { endpoint } from './endpoint.ts'
import { Role } from './roles.ts'
import { Shop } from './shop.ts'

export const Person = v.object({ id: Id, name: v.string(), initials: v.string(), role: Role })
export type Person = v.InferOutput<typeof Person>

export const Session = v.object({
  shop: Shop,
  person: Person,
  /** Those who have worked on this device: a PIN is enough for them to take it over. */
  peopleHere: v.array(Person),
  /** Everybody of the shop, for naming who read what. */
  people: v.array(Person),
  device: v.object({ id: Id, name: v.string() }),
  /** Until when the password whoever is present typed counts for what is the owner's; null where a PIN was enough so far. */
  provedUntil: v.nullable(Moment),
  /** How far the bikes are that are brought up to this version; null with none left. */
  rebuilding: v.nullable(v.object({ done: v.number(), of: v.number() })),
})
export type Session = v.InferOutput<typeof Session>

const Password = v.pipe(v.string('text-missing'), v.nonEmpty('password-missing'), v.maxLength(200, 'text-too-long'))

export const SignIn = v.object({ shop: line(40), name: line(80), password: Password })
export type SignIn = v.InferOutput<typeof SignIn>

export const SwitchPerson = v.object({
  initials: v.pipe(line(4), v.toUpperCase()),
  pin: v.exactOptional(v.pipe(v.string('text-missing'), v.regex(/^\d{4,8}$/, 'pin-malformed'))),
  /** Instead of the PIN, the first time on a device. */
  password: v.exactOptional(Password),
})
export type SwitchPerson = v.InferOutput<typeof SwitchPerson>

export const ProveAgain = v.object({ password: Password })

const AccessLog = v.object({
  /** Wrong passwords and PINs within a day. */
  failedToday: v.number(),
  entries: v.array(
    v.object({
      id: Id,
      at: Moment,
      action: v.picklist([
        'sign-in-failed',
        'signed-in',
        'switched-person',
        'took-out',
        'took-in',
        'restored',
        'backed-up',
      ]),
      who: v.nullable(v.string()),
      device: v.nullable(v.string()),
      address: v.nullable(v.string()),
      /** Of a failed try: password or pin. */
      kind: v.nullable(v.string()),
      /** What went out or came in, or who took over. */
      what: v.nullable(v.string()),
      /** How long the next try had to wait. */
      waitSeconds: v.number(),
    }),
  ),
})
export type AccessLog = v.InferOutput<typeof AccessLog>

const DemoAccount = v.object({ name: v.string(), role: Role, signInName: v.string(), password: v.string() })

export const sessionEndpoints = {
  door: endpoint({
    name: 'door',
    method: 'GET',
    path: '/door',
    summary: 'What the sign-in page needs: the shops, and in demo mode the demo accounts.',
    access: 'anyone',
    result: v.object({
      shops: v.array(v.object({ code: v.string(), name: v.string() })),
      demoAccounts: v.array(DemoAccount),
    }),
  }),
  signIn: endpoint({
    name: 'signIn',
    method: 'POST',
    path: '/session',
    summary: 'Sign a device in. The session belongs to the device.',
    access: 'anyone',
    body: SignIn,
    result: Session,
  }),
  session: endpoint({
    name: 'session',
    method: 'GET',
    path: '/session',
    summary: 'Who is at this device.',
    access: 'signed-in',
    result: Session,
  }),
  switchPerson: endpoint({
    name: 'switchPerson',
    method: 'POST',
    path: '/session/person',
    summary:
      'Another person takes over the device: by PIN, or by password the first time. The former may do no more here.',
    access: 'signed-in',
    body: SwitchPerson,
    result: Session,
  }),
  proveAgain: endpoint({
    name: 'proveAgain',
    method: 'POST',
    path: '/session/proof',
    summary: 'Whoever is present types their password again, for what is the owner’s.',
    access: 'signed-in',
    body: ProveAgain,
    result: Session,
  }),
  accessLog: endpoint({
    name: 'accessLog',
    method: 'GET',
    path: '/access',
    summary: 'Who signed in and who failed to, and what was taken out or in.',
    access: 'owner',
    result: AccessLog,
  }),
  signOut: endpoint({
    name: 'signOut',
    method: 'DELETE',
    path: '/session',
    summary: 'Sign the device out.',
    access: 'signed-in',
  }),
}
