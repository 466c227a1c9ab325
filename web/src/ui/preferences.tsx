/** What the rider chose for this machine: theme and units. */
import { createContext, type ReactNode, useContext, useEffect, useMemo, useState } from 'react'
import type { Quantity, Text } from '../api/client'
import { keep, kept } from './kept'
import { figure, sentence, show, type System } from './units'

interface Preferences {
  system: System
  setSystem: (system: System) => void
  dark: boolean
  toggleTheme: () => void
  letters: boolean
  setLetters: (on: boolean) => void
  /** Whether the rest of a load is put right around a move by hand. */
  mending: boolean
  setMending: (on: boolean) => void
}

const Context = createContext<Preferences | null>(null)

export function PreferencesProvider({ children }: { children: ReactNode }) {
  const [system, setSystem] = useState<System>(kept('units') === 'imperial' ? 'imperial' : 'metric')
  const [dark, setDark] = useState(() => {
    const chosen = kept('theme')
    return chosen ? chosen === 'dark' : window.matchMedia('(prefers-color-scheme: dark)').matches
  })
  const [letters, setLetters] = useState(kept('letters') !== 'off')
  const [mending, setMending] = useState(kept('mending') === 'on')
  useEffect(() => {
    document.documentElement.dataset.theme = dark ? 'dark' : 'day'
  }, [dark])
  const value = useMemo(
    () => ({
      system,
      setSystem: (next: System) => {
        keep('units', next)
        setSystem(next)
      },
      dark,
      toggleTheme: () => {
        keep('theme', dark ? 'day' : 'dark')
        setDark(!dark)
      },
      letters,
      setLetters: (on: boolean) => {
        keep('letters', on ? 'on' : 'off')
        setLetters(on)
      },
      mending,
      setMending: (on: boolean) => {
        keep('mending', on ? 'on' : 'off')
        setMending(on)
      },
    }),
    [system, dark, letters, mending],
  )
  return <Context.Provider value={value}>{children}</Context.Provider>
}

export function usePreferences(): Preferences {
  const found = useContext(Context)
  if (!found) throw new Error('PreferencesProvider is missing')
  return found
}

/** Formatters in the rider's units. */
export function useUnits() {
  const { system } = usePreferences()
  return useMemo(
    () => ({
      system,
      show: (value: number, quantity: Quantity, decimals?: number) => show(value, quantity, system, decimals),
      figure: (value: number, quantity: Quantity, decimals?: number) => figure(value, quantity, system, decimals),
      say: (text: Text) => sentence(text, system),
    }),
    [system],
  )
}
