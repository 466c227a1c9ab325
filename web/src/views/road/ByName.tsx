/** A place found by typing its name, without a network. */
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { Button, Muted, Row } from '../../ui/controls'
import { Field } from '../../ui/fields'

const MOST = 8
/** From so many letters on names are looked for. */
const LETTERS = 2
const REGIONS = new Intl.DisplayNames(['en'], { type: 'region' })
export const regionOf = (country: string) => REGIONS.of(country) ?? country

const Found = styled.ul`
  list-style: none;
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin: 4px 0;
  padding: 0;
`

export function ByName<T>(p: {
  label: string
  note: string
  /** What keeps the answers apart from those of other questions. */
  about: string
  ask: (called: string, signal: AbortSignal) => Promise<T[]>
  words: (found: T) => string
  may?: (found: T) => boolean
  onTake: (found: T) => unknown
  none: string
}) {
  const [called, setCalled] = useState('')
  const name = called.trim()
  const { data } = useQuery({ queryKey: [p.about, name], queryFn: ({ signal }) => p.ask(name, signal), enabled: name.length >= LETTERS })
  const found = name.length >= LETTERS ? data : undefined
  return (
    <>
      <Row $min={200}>
        <Field label={p.label} value={called} onChange={setCalled} placeholder="type its name" />
        <Muted>{p.note}</Muted>
      </Row>
      <Found aria-label="Places of that name">
        {found?.slice(0, MOST).map((one) => (
          <li key={p.words(one)}>
            <Button $small isDisabled={p.may?.(one) === false} onPress={() => void Promise.resolve(p.onTake(one)).then(() => setCalled(''))}>
              {p.words(one)}
            </Button>
          </li>
        ))}
        {found?.length === 0 && <li>{p.none}</li>}
      </Found>
    </>
  )
}
