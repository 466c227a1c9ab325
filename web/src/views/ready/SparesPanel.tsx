/** Parts at a chosen risk for the whole tour, beside what is on board. */
import { useState } from 'react'
import { api } from '../../api/client'
import { useWorkedOut } from '../../api/workedOut'
import { Muted } from '../../ui/controls'
import { OnceIn } from './OnceIn'
import { countedWords } from './plays'
import { Figures } from './YearTable'

/** What mends any number is owned in plenty. */
const PLENTY = 100

export function SparesPanel() {
  const [once, setOnce] = useState(20)
  const { data, error } = useWorkedOut('spares', (id, signal) => api.sparesAtRisk(id, 1 / once, signal), { about: [String(once)], meanwhile: true })
  return (
    <div>
      <OnceIn what="A part may be lacking" once={once} onChoose={setOnce} />
      {error && <p role="alert">{error.message}</p>}
      {!data && !error && <p role="status">Counting faults …</p>}
      {data && !data.parts.length && <Muted>Nothing on board says that it mends a bike.</Muted>}
      {data && data.parts.length > 0 && (
        <>
          <Figures>
            <thead>
              <tr>
                <th scope="col">Fault</th>
                <th scope="col">Wanted</th>
                <th scope="col">On board mends</th>
                <th scope="col">Too few in</th>
              </tr>
            </thead>
            <tbody>
              {data.parts.map((part) => (
                <tr key={part.words}>
                  <th scope="row">{part.words}</th>
                  <td>{part.wanted}</td>
                  <td>{part.owned >= PLENTY ? 'any' : part.owned}</td>
                  <td>{part.short.count > 0 ? `${part.short.count} of ${part.short.of}` : '–'}</td>
                </tr>
              ))}
            </tbody>
          </Figures>
          <p>As the kit is, some part is lacking in {countedWords(data.now)}.</p>
        </>
      )}
    </div>
  )
}
