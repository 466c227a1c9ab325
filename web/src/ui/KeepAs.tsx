import { useState } from 'react'
import { Button } from './controls'
import { Field } from './fields'
import { freeId } from './freeId'

/** A name, and a button that keeps something under it; without a name it gets the next number. */
export function KeepAs({
  label,
  placeholder,
  most,
  taken,
  stem,
  onKeep,
}: {
  label: string
  placeholder: string
  most: number
  taken: string[]
  stem: string
  onKeep: (id: string, name: string) => void
}) {
  const [name, setName] = useState('')
  const keep = () => {
    const id = freeId(stem, taken)
    onKeep(id, name.trim() || `${id[0]?.toUpperCase()}${id.slice(1).replace('-', ' ')}`)
    setName('')
  }
  return (
    <div style={{ display: 'flex', gap: 10, alignItems: 'end' }}>
      <Field label={label} value={name} onChange={setName} placeholder={placeholder} />
      <Button isDisabled={taken.length >= most} onPress={keep}>
        Keep it
      </Button>
    </div>
  )
}
