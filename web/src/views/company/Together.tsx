/** Riding together: who one is on this tour, who else is, and who is invited. */
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { company, type Company, useCompany } from '../../api/company'
import { useDesk } from '../../api/tour'
import { Dialog } from '../../ui/Dialog'
import { Actions, Button, Muted, Section } from '../../ui/controls'
import { fullDate } from '../../ui/dates'
import { Choice, Field } from '../../ui/fields'
import { Loading } from '../../ui/notices'
import { useDoing } from '../account/useDoing'

const Said = styled.p`
  border: 2px solid var(--ink);
  padding: 8px 10px;
  overflow-wrap: anywhere;
`
const People = styled.ul`
  display: grid;
  gap: 8px;
  li {
    display: flex;
    gap: 10px;
    align-items: center;
    justify-content: space-between;
  }
  span {
    overflow-wrap: anywhere;
  }
`
const NOBODY = 'nobody'
const DOES = { owns: 'owns this tour', rides: 'rides along', reads: 'reads along' }

type Run = ReturnType<typeof useDoing>['run']
interface Part {
  id: string
  told: Company
  run: Run
}

export function Together({ onClose }: { onClose: () => void }) {
  const { tour } = useDesk()
  const { told } = useCompany()
  const queries = useQueryClient()
  const { run, trouble, told: said } = useDoing()
  const then: Run = (what) =>
    run(async () => {
      const words = await what()
      await queries.invalidateQueries({ queryKey: ['company', tour.id] })
      return words
    })
  const part = told && { id: tour.id, told, run: then }
  return (
    <Dialog title="Riding together" open onClose={onClose}>
      {trouble && <Said role="alert">{trouble}</Said>}
      {said && <Said role="status">{said}</Said>}
      {part ? (
        <>
          {part.told.right !== 'reads' && <Me {...part} />}
          {part.told.right === 'owns' ? <Guests {...part} /> : <Guest {...part} />}
        </>
      ) : (
        <Loading />
      )}
      <Actions>
        <Button onPress={onClose}>Close</Button>
      </Actions>
    </Dialog>
  )
}

function Me({ id, told, run }: Part) {
  const { sheet } = useDesk()
  const options = [{ id: NOBODY, text: 'none of the riders' }, ...sheet.riders.map((rider) => ({ id: rider.id, text: rider.name }))]
  return (
    <Choice
      label="On this tour I am"
      value={told.is_rider ?? NOBODY}
      options={options}
      onChange={(is) => run(() => company.thisIsMe(id, is === NOBODY ? null : is))}
    />
  )
}

/** What the owner sees: companions, invitations, and how to invite. */
function Guests({ id, told, run }: Part) {
  const [does, setDoes] = useState<'rides' | 'reads'>('rides')
  const [address, setAddress] = useState('')
  const [link, setLink] = useState('')
  const invite = (by: 'mail' | 'link') =>
    run(async () => {
      const to = by === 'mail' ? address.trim() : null
      const made = await company.invite(id, { rides: does === 'rides', address: to })
      setAddress('')
      setLink(to ? '' : made.link)
      return to ? `An invitation is on its way to ${to}. It is good once, for seven days.` : ''
    })
  return (
    <>
      <Section>Companions</Section>
      {told.companions.length + told.invitations.length === 0 && <Muted>Nobody yet. Invite who rides along, or who may read along at home.</Muted>}
      <People>
        {told.companions.map((one) => (
          <li key={one.id}>
            <span>
              {one.known_as}, {DOES[one.right]} since {fullDate(one.joined_at.slice(0, 10))}
            </span>
            <Button $small aria-label={`End it for ${one.known_as}`} onPress={() => run(() => company.remove(id, one.id))}>
              End it
            </Button>
          </li>
        ))}
        {told.invitations.map((one) => (
          <li key={one.id}>
            <span>
              {one.told_to || 'Whoever has the link'}: invited to {one.right === 'rides' ? 'ride' : 'read'} along, until{' '}
              {fullDate(one.until.slice(0, 10))}
            </span>
            <Button
              $small
              aria-label={`Take back the invitation of ${one.told_to || 'the link'}`}
              onPress={() => run(() => company.revoke(id, one.id))}
            >
              Take back
            </Button>
          </li>
        ))}
      </People>
      <Section>Invite</Section>
      <Choice
        label="Who comes may"
        value={does}
        onChange={setDoes}
        options={[
          { id: 'rides', text: 'ride along: change the tour, tick, weigh, note' },
          { id: 'reads', text: 'read along: see all of it, change nothing' },
        ]}
      />
      <Field label="Mail address" value={address} onChange={setAddress} type="email" maxLength={254} />
      <Actions>
        <Button onPress={() => invite('link')}>Make a link to hand on</Button>
        <Button $wanted isDisabled={!address.includes('@')} onPress={() => invite('mail')}>
          Send an invitation
        </Button>
      </Actions>
      {link && (
        <>
          <Said>{link}</Said>
          <Muted>Good once, for seven days. It is shown this once: hand it on as it stands.</Muted>
        </>
      )}
    </>
  )
}

/** What a companion sees: whose tour it is, and the way out. */
function Guest({ id, told, run }: Part) {
  const [sure, setSure] = useState(false)
  const leave = () =>
    run(async () => {
      await company.leave(id)
      window.location.replace('/')
    })
  return (
    <>
      <Muted>
        {told.owner} owns this tour; {told.right === 'rides' ? 'you ride along: what you change is changed for all.' : 'you read along.'} Your things
        stay in your own library.
      </Muted>
      {sure ? (
        <Actions>
          <Button onPress={() => setSure(false)}>Stay</Button>
          <Button onPress={leave}>Leave; only a new invitation leads back</Button>
        </Actions>
      ) : (
        <Actions>
          <Button onPress={() => setSure(true)}>Leave this tour …</Button>
        </Actions>
      )}
    </>
  )
}
