/** One's own account: ways in, devices, all that is there to take along, and the way out. */
import { startRegistration } from '@simplewebauthn/browser'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { accounts, type AccountTold } from '../../api/account'
import { waitingEntries } from '../../offline/db'
import { depart } from '../../offline/rider'
import { Button, Muted, Section } from '../../ui/controls'
import { fullDate } from '../../ui/dates'
import { Field } from '../../ui/fields'
import { Loading } from '../../ui/notices'
import { Door } from './Door'
import { useDoing } from './useDoing'

type Run = ReturnType<typeof useDoing>['run']

async function signOut() {
  const unsent = (await waitingEntries()).length
  if (unsent > 0) {
    throw new Error(`Nobody took ${unsent === 1 ? 'one entry' : `${unsent} entries`} of the diary on this device yet. Open its tour first.`)
  }
  await accounts.signOut()
  await depart()
}

export function AccountPage() {
  const queries = useQueryClient()
  const { data, error } = useQuery({ queryKey: ['account'], queryFn: accounts.told })
  const { run, trouble, told } = useDoing()
  const then: Run = (what) =>
    run(async () => {
      const words = await what()
      await queries.invalidateQueries({ queryKey: ['account'] })
      return words
    })
  return (
    <Door title="Your account" trouble={trouble || (error?.message ?? '')} told={told}>
      {data ? (
        <>
          <Muted>{data.address}</Muted>
          <Button onPress={() => run(signOut)}>Sign out on this device</Button>
          <Passkeys told={data} run={then} />
          <Password told={data} run={then} />
          <Devices told={data} run={then} />
          <Section>Take it along, or let it go</Section>
          <Button onPress={() => window.location.assign('/api/account/everything.zip')}>Save all that is mine</Button>
          <Leaving told={data} run={run} />
        </>
      ) : (
        !error && <Loading />
      )}
    </Door>
  )
}

interface Part {
  told: AccountTold
  run: Run
}

function Passkeys({ told, run }: Part) {
  const add = () =>
    run(async () => {
      const { options } = await accounts.passkeyToMake()
      const credential = await startRegistration({ optionsJSON: options as never })
      await accounts.keepPasskey({ credential: credential as never, name: `Passkey ${told.passkeys.length + 1}` })
      return 'The passkey is kept: sign in with it from now on.'
    })
  return (
    <>
      <Section>Passkeys</Section>
      <ul>
        {told.passkeys.map((key) => (
          <li key={key.id}>
            <span>
              {key.name}, made {fullDate(key.made_at.slice(0, 10))}
            </span>
            <Button $small aria-label={`Forget ${key.name}`} onPress={() => run(() => accounts.removePasskey(key.id))}>
              Forget
            </Button>
          </li>
        ))}
      </ul>
      <Button onPress={add}>Add a passkey of this device</Button>
    </>
  )
}

function Password({ told, run }: Part) {
  const [now, setNow] = useState('')
  const [password, setPassword] = useState('')
  const keep = () =>
    run(async () => {
      await accounts.changePassword({ now, password })
      setNow('')
      setPassword('')
      return 'The password is changed; every other device is signed out.'
    })
  return (
    <>
      <Section>Password</Section>
      {told.has_password && (
        <Field label="Password of now" value={now} onChange={setNow} type="password" autoComplete="current-password" maxLength={200} />
      )}
      <Field label="New password" value={password} onChange={setPassword} type="password" autoComplete="new-password" maxLength={200} />
      <Button isDisabled={!password} onPress={keep}>
        Change it
      </Button>
    </>
  )
}

function Devices({ told, run }: Part) {
  return (
    <>
      <Section>Signed in on</Section>
      <ul>
        {told.devices.map((device) => (
          <li key={device.id}>
            <span>
              {device.here ? 'This device' : device.name}, since {fullDate(device.made_at.slice(0, 10))}, seen {fullDate(device.seen_at.slice(0, 10))}
            </span>
            {!device.here && (
              <Button $small aria-label={`Sign out ${device.name}`} onPress={() => run(() => accounts.endDevice(device.id))}>
                Sign out
              </Button>
            )}
          </li>
        ))}
      </ul>
    </>
  )
}

function Leaving({ told, run }: Part) {
  const [address, setAddress] = useState('')
  const [password, setPassword] = useState('')
  return (
    <>
      <Muted>Letting it go takes all tours, diaries, pictures and things with it, at once and for good.</Muted>
      <Field label={`To be sure, write ${told.address}`} value={address} onChange={setAddress} maxLength={254} />
      {told.has_password && (
        <Field label="Your password" value={password} onChange={setPassword} type="password" autoComplete="current-password" maxLength={200} />
      )}
      <Button
        isDisabled={address.trim().toLowerCase() !== told.address.toLowerCase()}
        onPress={() => run(async () => (await accounts.leave({ address: address.trim(), password }), depart()))}
      >
        Let my account go
      </Button>
    </>
  )
}
