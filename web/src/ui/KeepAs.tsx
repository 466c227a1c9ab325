import { useState } from 'react'
import { Button, Field } from './controls'

/** A name, and a button that keeps something under it; without a name it gets the next number. */
export function KeepAs({ label, placeholder, most, taken, stem, onKeep }: {
  label: string
  placeholder: string
  most: number
  taken: string[]
  stem: string
  onKeep: (id: string, name: string) => void
}) {
  const [name, setName] = useState('')
  const keep = () => {
    let n = taken.length + 1
    while (taken.includes(`${stem}-${n}`)) n += 1
    onKeep(`${stem}-${n}`, name.trim() || `${stem[0]?.toUpperCase()}${stem.slice(1)} ${n}`)
    setName('')
  }
  return (
    <div style={{ display: 'flex', gap: 10, alignItems: 'end' }}>
      <Field label={label} value={name} onChange={setName} placeholder={placeholder} />
      <Button isDisabled={taken.length >= most} onPress={keep}>Keep it</Button>
    </div>
  )
}
