/** Riding together, where Omnifer is hosted: who else is on a tour, and who is invited. */
import { useQuery } from '@tanstack/react-query'
import { useSession } from './account'
import { client, taken } from './client'
import type { components } from './schema'
import { useDesk } from './tour'

type Schemas = components['schemas']
export type Company = Schemas['Companions']
export type OtherHere = Schemas['OtherHere']

const at = (tour_id: string) => ({ params: { path: { tour_id } } })

export const company = {
  told: (id: string) => taken(client.GET('/api/tours/{tour_id}/companions', at(id))),
  invite: (id: string, body: Schemas['Invite']) => taken(client.POST('/api/tours/{tour_id}/invitations', { ...at(id), body })),
  revoke: async (tour_id: string, invitation_id: string) => {
    await taken(client.DELETE('/api/tours/{tour_id}/invitations/{invitation_id}', { params: { path: { tour_id, invitation_id } } }))
  },
  remove: async (tour_id: string, companion_id: string) => {
    await taken(client.DELETE('/api/tours/{tour_id}/companions/{companion_id}', { params: { path: { tour_id, companion_id } } }))
  },
  thisIsMe: async (id: string, is_rider: string | null) => {
    await taken(client.PUT('/api/tours/{tour_id}/self', { ...at(id), body: { is_rider } }))
  },
  leave: async (id: string) => {
    await taken(client.DELETE('/api/tours/{tour_id}/self', at(id)))
  },
  join: (invitation: string) => taken(client.POST('/api/invitations', { body: { invitation } })),
  here: (id: string, view: string) => taken(client.POST('/api/tours/{tour_id}/here', { ...at(id), body: { view } })),
}

/** Who is on the tour on the desk, as far as one is told; where nobody signs in, nobody. */
export function useCompany() {
  const { tour } = useDesk()
  const hosted = useSession()?.hosted === true
  const { data } = useQuery({ queryKey: ['company', tour.id], queryFn: () => company.told(tour.id), enabled: hosted, retry: false })
  return { hosted, told: data, alone: !data || (data.right === 'owns' && data.companions.length === 0) }
}
