/** An invitation that was opened on this device and not taken yet: signing in leads away from it, and back. */
const KEPT = 'omnifer-invitation'

export function invitationIn(): string {
  const given = /#invitation=([A-Za-z0-9_-]+)/.exec(window.location.hash)?.[1]
  if (given) localStorage.setItem(KEPT, given)
  return given ?? localStorage.getItem(KEPT) ?? ''
}

export const letInvitationGo = () => localStorage.removeItem(KEPT)
