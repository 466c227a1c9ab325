/** Signing in, where Omnifer is hosted. */
import type { components } from './schema'
import { client, forgetToken, taken } from './client'

type Schemas = components['schemas']
export type AccountTold = Schemas['AccountTold']
export type Session = Schemas['Session']
const RIDER = 'omnifer-rider'

export const accounts = {
  session: () => taken(client.GET('/api/session')),
  askLink: (body: Schemas['AskLink']) => taken(client.POST('/api/session/link', { body })),
  byLink: (body: Schemas['ByLink']) => taken(client.POST('/api/session/by-link', { body })),
  signIn: (body: Schemas['SignIn']) => taken(client.POST('/api/session', { body })),
  passkeyWanted: () => taken(client.POST('/api/session/passkey/options')),
  byPasskey: (body: Schemas['ByPasskey']) => taken(client.POST('/api/session/passkey', { body })),
  signOut: () => taken(client.DELETE('/api/session')),
  told: () => taken(client.GET('/api/account')),
  changePassword: (body: Schemas['OtherPassword']) => taken(client.PUT('/api/account/password', { body })),
  endDevice: async (device_id: string) => {
    await taken(client.DELETE('/api/account/devices/{device_id}', { params: { path: { device_id } } }))
  },
  passkeyToMake: () => taken(client.POST('/api/account/passkeys/options')),
  keepPasskey: (body: Schemas['NewPasskey']) => taken(client.POST('/api/account/passkeys', { body })),
  removePasskey: async (passkey_id: string) => {
    await taken(client.DELETE('/api/account/passkeys/{passkey_id}', { params: { path: { passkey_id } } }))
  },
  leave: (body: Schemas['Leaving']) => taken(client.POST('/api/account/leave', { body })),
}

/** What a device keeps of a rider: nobody else who signs in on it is to find it. */
async function forgetDevice() {
  for (const name of await caches.keys()) if (!name.includes('precache')) await caches.delete(name)
  for (const { name } of await indexedDB.databases()) if (name) indexedDB.deleteDatabase(name)
}

/** Signed in: the page begins anew, with nothing of another rider. */
export async function arrive(session: Session) {
  forgetToken()
  if (localStorage.getItem(RIDER) !== session.rider) await forgetDevice()
  localStorage.setItem(RIDER, session.rider ?? '')
  window.location.replace('/')
}

/** Signed out: nothing of the rider stays on the device. */
export async function depart() {
  await forgetDevice()
  localStorage.removeItem(RIDER)
  window.location.replace('/sign-in')
}
