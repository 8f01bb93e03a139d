import * as v from 'valibot'
import { DistanceUnit, Id, line } from './common.ts'
import { endpoint } from './endpoint.ts'

export const Role = v.picklist(['owner', 'mechanic', 'desk', 'apprentice', 'read-only'])
export type Role = v.InferOutput<typeof Role>

/** Roles that may write. */
export const WRITING_ROLES: readonly Role[] = ['owner', 'mechanic', 'desk', 'apprentice']

export const Person = v.object({ id: Id, name: v.string(), initials: v.string(), role: Role })
export type Person = v.InferOutput<typeof Person>

const Shop = v.object({
  id: Id,
  code: v.string(),
  name: v.string(),
  timeZone: v.string(),
  distanceUnit: DistanceUnit,
})

export const Session = v.object({
  shop: Shop,
  person: Person,
  /** Those who have shown who they are on this device since it was signed in. */
  peopleHere: v.array(Person),
  /** Everybody of the shop, for naming who read what. */
  people: v.array(Person),
  device: v.object({ id: Id, name: v.string() }),
})
export type Session = v.InferOutput<typeof Session>

export const SignIn = v.object({
  shop: line(40),
  name: line(80),
  password: v.pipe(v.string('text-missing'), v.nonEmpty('password-missing'), v.maxLength(200, 'text-too-long')),
})
export type SignIn = v.InferOutput<typeof SignIn>

export const SwitchPerson = v.object({
  initials: v.pipe(line(4), v.toUpperCase()),
  pin: v.pipe(v.string('text-missing'), v.regex(/^\d{4,8}$/, 'pin-malformed')),
})

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
    summary: 'Another person of the shop takes over the device, by initials and PIN.',
    access: 'signed-in',
    body: SwitchPerson,
    result: Session,
  }),
  signOut: endpoint({
    name: 'signOut',
    method: 'DELETE',
    path: '/session',
    summary: 'Sign the device out.',
    access: 'signed-in',
  }),
}
