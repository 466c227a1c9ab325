/** A thing typed by its name: Enter, and the next. What the name tells is filled in and marked as a guess. */
import { useState } from 'react'
import styled from 'styled-components'
import { api, Problem } from '../../api/client'
import { useDesk } from '../../api/tour'
import { phone } from '../../ui/theme'

const Line = styled.form`
  ${phone} {
    width: 100%;
  }
`

export function AddByName() {
  const { ask } = useDesk()
  const [name, setName] = useState('')
  const add = async () => {
    const typed = name.trim()
    if (!typed) return
    setName('')
    const text = `name\n"${typed.replace(/"/g, '""')}"`
    const kept = await ask(`Adding ${typed}`.slice(0, 200), async (id, revision) => {
      const found = await api.previewKit(id, { text, columns: [] })
      const problem = found.problems[0]
      if (problem)
        throw new Problem({ type: 'about:blank', title: 'Not added', status: 422, detail: problem.what, where: '', mend: '', again: false })
      return api.importKit(id, { revision, text, columns: [], answers: [], replace: false, again: true })
    })
    if (!kept) setName(typed)
  }
  return (
    <Line
      onSubmit={(e) => {
        e.preventDefault()
        void add()
      }}
    >
      <input
        aria-label="Add a thing by its name"
        placeholder="Add: 2 wool socks, 90 g"
        maxLength={120}
        value={name}
        onChange={(e) => setName(e.target.value)}
      />
    </Line>
  )
}
