/** Dates in words, in the rider's own order; a day is a day wherever the reader sits. */
const LOCALE = globalThis.navigator?.languages.find((language) => language.startsWith('en')) ?? 'en-GB'
const told = (form: Intl.DateTimeFormatOptions) => {
  const format = new Intl.DateTimeFormat(LOCALE, { ...form, timeZone: 'UTC' })
  return (date: string) => format.format(new Date(`${date.slice(0, 10)}T12:00:00Z`))
}

/** Sat 24 Apr */
export const shortDate = told({ weekday: 'short', day: 'numeric', month: 'short' })
/** 24 Apr */
export const dayMonth = told({ day: 'numeric', month: 'short' })
/** 24 April */
export const longDay = told({ day: 'numeric', month: 'long' })
/** 24 April 2027 */
export const fullDate = told({ day: 'numeric', month: 'long', year: 'numeric' })

/** How many days later the second date is. */
export const daysBetween = (a: string, b: string) => Math.round((Date.parse(b.slice(0, 10)) - Date.parse(a.slice(0, 10))) / 86_400_000)

/** The date so many days later, or before. */
export const daysAfter = (date: string, days: number) => new Date(Date.parse(date.slice(0, 10)) + days * 86_400_000).toISOString().slice(0, 10)

/** Today where the rider is, as 2027-04-24. */
export const today = () => {
  const now = new Date()
  return `${now.getFullYear()}-${String(now.getMonth() + 1).padStart(2, '0')}-${String(now.getDate()).padStart(2, '0')}`
}

/** A local clock hour as HH:MM; hours past midnight start again. */
export const clock = (hour: number): string => {
  const minutes = Math.round(hour * 60) % 1440
  return `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`
}
