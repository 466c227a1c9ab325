/** What was read of a list: the things, and the rows that are none or not sure. */
import styled from 'styled-components'
import type { KitPreview } from '../../api/client'
import { Muted } from '../../ui/controls'
import { Fold } from '../../ui/Fold'
import { REACH_WORDS } from '../../ui/icons'
import { useUnits } from '../../ui/preferences'
import { Sheet } from '../../ui/sheet'

/** What is longer than its place is reached with keys too. */
const Scroll = styled.div.attrs({ tabIndex: 0, role: 'group' })`
  max-height: 220px;
  overflow: auto;
  border: 1.5px solid var(--edge);
  border-radius: 3px;
  padding: 4px;
  background: var(--tag);
  th {
    background: var(--tag);
  }
`
export function ThingsRead({ preview }: { preview: KitPreview }) {
  const units = useUnits()
  return (
    <Scroll aria-label="Things read">
      <Sheet>
        <thead>
          <tr>
            <th>Thing</th>
            <th>Kit</th>
            <th className="n">Count</th>
            <th className="n">Mass of one</th>
            <th className="n">Volume of one</th>
            <th>Wanted</th>
          </tr>
        </thead>
        <tbody>
          {preview.things.map((t) => (
            <tr key={t.id}>
              <td>
                {t.name}
                {preview.here.includes(t.id) && <Muted as="span"> here already</Muted>}
              </td>
              <td>{t.group}</td>
              <td className="n">{t.count}</td>
              <td className="n">
                {t.guessed.includes('mass') ? '~' : ''}
                {units.show(t.mass_kg, 'mass', t.mass_kg < 0.01 ? 3 : 2)}
              </td>
              <td className="n">
                {t.guessed.includes('volume') ? '~' : ''}
                {units.show(t.volume_l, 'volume', 2)}
              </td>
              <td>
                {t.guessed.includes('reach') ? '~ ' : ''}
                {REACH_WORDS[t.reach]}
              </td>
            </tr>
          ))}
        </tbody>
      </Sheet>
    </Scroll>
  )
}

export function Rows({ title, rows, open = false }: { title: string; rows: KitPreview['problems']; open?: boolean }) {
  if (!rows.length) return null
  return (
    <Fold summary={`${title}: ${rows.length}`} open={open}>
      <Scroll aria-label={title}>
        <Sheet>
          <thead>
            <tr>
              <th className="n">Line</th>
              <th>Column</th>
              <th>Says</th>
              <th>What of it</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((p, i) => (
              <tr key={i}>
                <td className="n">{p.row}</td>
                <td>{p.heading}</td>
                <td>{p.text}</td>
                <td>{p.what}</td>
              </tr>
            ))}
          </tbody>
        </Sheet>
      </Scroll>
    </Fold>
  )
}
