/** Come by an invitation: the tour is taken among one's own, once it is known who one is. */
import { useState } from 'react'
import { useSession } from '../../api/account'
import { company } from '../../api/company'
import { invitationIn, letInvitationGo } from '../../offline/invitation'
import { Button, Muted } from '../../ui/controls'
import { Loading } from '../../ui/notices'
import { Door } from './Door'
import { useDoing } from './useDoing'

export function Join() {
  const [invitation] = useState(invitationIn)
  const session = useSession()
  const { run, busy, trouble, told } = useDoing()
  const join = () =>
    run(async () => {
      const { tour_id } = await company.join(invitation)
      letInvitationGo()
      window.location.replace(`/tours/${tour_id}`)
    })
  return (
    <Door title="Ride together" trouble={trouble} told={told}>
      {!invitation && <Muted>There is no invitation in this address. Open the link as it was sent, whole.</Muted>}
      {invitation && !session && <Loading />}
      {invitation && session?.rider && (
        <>
          <Muted>You are {session.rider}. With this invitation a tour of somebody else is among yours; you can leave it again.</Muted>
          <Button $wanted isDisabled={busy} onPress={join}>
            Take the invitation
          </Button>
        </>
      )}
      {invitation && session && !session.rider && (
        <>
          <Muted>Somebody invites you to a tour. Sign in first, or make an account; then you are asked once more.</Muted>
          <Button $wanted onPress={() => window.location.assign('/sign-in')}>
            Sign in
          </Button>
        </>
      )}
    </Door>
  )
}
