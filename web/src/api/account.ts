/** Signing in, where Omnifer is hosted. */
import { useQuery } from '@tanstack/react-query'
import type { components } from './schema'
import { client, taken } from './client'

type Schemas = components['schemas']
export type AccountTold = Schemas['AccountTold']
export type Session = Schemas['Session']

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

/** Who is here, and whether riders sign in at all; undefined until it is known. */
export function useSession(): Session | undefined {
  return useQuery({ queryKey: ['session'], queryFn: accounts.session, staleTime: Infinity, retry: false }).data
}
