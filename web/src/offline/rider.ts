/** Whose device this is: nobody else who signs in on it is to find anything of a rider. */
import type { Session } from '../api/account'
import { forgetToken } from '../api/client'
import { forgetEntries } from './db'
import { invitationIn } from './invitation'

const RIDER = 'omnifer-rider'

// Emptied, not deleted: a deletion waits for every open window, and whoever opens it then waits for the deletion.
async function forgetDevice() {
  for (const name of await caches.keys()) if (!name.includes('precache')) await caches.delete(name)
  await forgetEntries()
}

/** Signed in: the page begins anew, with nothing of another rider. */
export async function arrive(session: Session) {
  forgetToken()
  if (localStorage.getItem(RIDER) !== session.rider) await forgetDevice()
  localStorage.setItem(RIDER, session.rider ?? '')
  window.location.replace(invitationIn() ? '/join' : '/')
}

/** Signed out: nothing of the rider stays on the device. The answer that ended the session asked the browser to clear all; while it does, what is
 * asked of its stores may never be answered. A browser that does not know of that is asked here, and whoever arrives next asks again. */
export async function depart() {
  await Promise.race([forgetDevice().catch(() => undefined), new Promise((over) => setTimeout(over, 1000))])
  localStorage.removeItem(RIDER)
  window.location.replace('/sign-in')
}
