/** Signing in where Omnifer is hosted: a passkey, a password, or a link that comes by mail. */
import { startAuthentication } from '@simplewebauthn/browser'
import { type FormEvent, useState } from 'react'
import { accounts } from '../../api/account'
import { arrive } from '../../offline/rider'
import { Button, Muted, Section } from '../../ui/controls'
import { Field } from '../../ui/fields'
import { Door } from './Door'
import { useDoing } from './useDoing'

const linkIn = () => /#link=([A-Za-z0-9_-]+)/.exec(window.location.hash)?.[1]

export function SignIn() {
  const [link] = useState(linkIn)
  return link ? <ByLink link={link} /> : <Ways />
}

function Ways() {
  const [address, setAddress] = useState('')
  const [password, setPassword] = useState('')
  const { run, busy, ...said } = useDoing()
  const submit = (event: FormEvent) => {
    event.preventDefault()
    run(async () => arrive(await accounts.signIn({ address: address.trim(), password })))
  }
  const passkey = () =>
    run(async () => {
      const { options } = await accounts.passkeyWanted()
      await arrive(await accounts.byPasskey({ credential: (await startAuthentication({ optionsJSON: options as never })) as never }))
    })
  const mail = () =>
    run(async () => {
      await accounts.askLink({ address: address.trim() })
      return `A link is on its way to ${address.trim()}. It is good once, for an hour.`
    })
  return (
    <Door title="Sign in" {...said}>
      <Button $wanted isDisabled={busy} onPress={passkey}>
        With a passkey
      </Button>
      <form onSubmit={submit}>
        <Field label="Mail address" value={address} onChange={setAddress} type="email" autoComplete="username" maxLength={254} />
        <Field label="Password" value={password} onChange={setPassword} type="password" autoComplete="current-password" maxLength={200} />
        <Button type="submit" isDisabled={busy || !address.trim() || !password}>
          With the password
        </Button>
      </form>
      <Section>New here, or forgotten it?</Section>
      <Muted>A link by mail makes an account, or lets you choose another password. Write your address above.</Muted>
      <Button isDisabled={busy || !address.includes('@')} onPress={mail}>
        Send me a link
      </Button>
    </Door>
  )
}

/** Come by a link: choose a password, and be in. */
function ByLink({ link }: { link: string }) {
  const [password, setPassword] = useState('')
  const { run, busy, ...said } = useDoing()
  const submit = (event: FormEvent) => {
    event.preventDefault()
    run(async () => arrive(await accounts.byLink({ link, password })))
  }
  return (
    <Door title="Choose a password" {...said}>
      <Muted>At least ten characters; three or four words do well. With a passkey, later, you need it no more.</Muted>
      <form onSubmit={submit}>
        <Field label="New password" value={password} onChange={setPassword} type="password" autoComplete="new-password" maxLength={200} />
        <Button $wanted type="submit" isDisabled={busy || !password}>
          Keep it and sign in
        </Button>
      </form>
      <Muted>Every device that is signed in to this account is signed out.</Muted>
    </Door>
  )
}
