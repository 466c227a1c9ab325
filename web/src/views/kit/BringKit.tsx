/** A list pasted or uploaded: how each column was understood and what could not be read, before anything is taken. */
import { useState } from 'react'
import styled from 'styled-components'
import { api, type KitPreview, Problem } from '../../api/client'
import { useDesk } from '../../api/tour'
import { Actions, Button, Dialog, FileButton, Muted, RailLine } from '../../ui/controls'
import { Area } from '../../ui/fields'
import { useUnits } from '../../ui/preferences'
import { Sheet } from '../road/sheet'

const Scroll = styled.div`
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

export function BringKit({ onClose }: { onClose: () => void }) {
  const { tour, sheet, importKit } = useDesk()
  const units = useUnits()
  const [text, setText] = useState('')
  const [preview, setPreview] = useState<KitPreview | null>(null)
  const [trouble, setTrouble] = useState('')
  const look = async (content: string) => {
    setTrouble('')
    try {
      setPreview(await api.previewKit(tour.id, content))
    } catch (e) {
      setPreview(null)
      setTrouble(e instanceof Problem ? `${e.body.detail}. ${e.body.where ?? ''} ${e.body.mend ?? ''}` : String(e))
    }
  }
  const take = async (replace: boolean) => {
    if (await importKit(text, replace)) onClose()
  }
  const words = preview && { ',': 'comma', ';': 'semicolon', '\t': 'tab' }[preview.delimiter]
  return (
    <Dialog title="Bring a list" open onClose={onClose} wide>
      <Muted>
        Paste your own spreadsheet, or choose its CSV file. Columns in any order; kg, g, lb or oz; decimal comma or point. Nothing is taken before you
        say so.
      </Muted>
      <Area
        aria-label="The list"
        value={text}
        onChange={(e) => {
          setText(e.target.value)
          setPreview(null)
        }}
        placeholder={'name;mass g;volume l;count\nTent;2100;8;1\nStove;210;0,7;1'}
      />
      {trouble && (
        <p role="alert">
          <b>{trouble}</b>
        </p>
      )}
      {preview && (
        <>
          <RailLine>
            Columns
            <em>
              {words} between cells, decimal {preview.decimal_comma ? 'comma' : 'point'}
            </em>
          </RailLine>
          <p>
            {preview.columns
              .map((c) => `${c.heading} → ${c.field ? c.field.replaceAll('_', ' ') + (c.unit ? ` in ${c.unit}` : '') : 'left aside'}`)
              .join(' · ')}
          </p>
          {preview.remarks.map((r) => (
            <p key={r}>{r}</p>
          ))}
          {preview.problems.length > 0 && (
            <>
              <RailLine>
                Cannot be read<em>{preview.problems.length}</em>
              </RailLine>
              <Scroll>
                <Sheet>
                  <thead>
                    <tr>
                      <th className="n">Line</th>
                      <th>Column</th>
                      <th>Says</th>
                      <th>Trouble</th>
                    </tr>
                  </thead>
                  <tbody>
                    {preview.problems.map((p, i) => (
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
            </>
          )}
          <RailLine>
            Can be taken<em>{preview.things.length} things</em>
          </RailLine>
          <Scroll>
            <Sheet>
              <thead>
                <tr>
                  <th>Thing</th>
                  <th className="n">Count</th>
                  <th className="n">Mass of one</th>
                  <th className="n">Volume of one</th>
                  <th>Reach</th>
                </tr>
              </thead>
              <tbody>
                {preview.things.map((t) => (
                  <tr key={t.id}>
                    <td>{t.name}</td>
                    <td className="n">{t.count}</td>
                    <td className="n">{units.show(t.mass_kg, 'mass', 2)}</td>
                    <td className="n">
                      {t.guess ? '~' : ''}
                      {units.show(t.volume_l, 'volume', 2)}
                    </td>
                    <td>{t.reach}</td>
                  </tr>
                ))}
              </tbody>
            </Sheet>
          </Scroll>
        </>
      )}
      <Actions>
        <FileButton
          accept={['.csv', '.tsv', '.txt', 'text/csv']}
          onFile={(f) =>
            void f.text().then((t) => {
              setText(t)
              void look(t)
            })
          }
        >
          Choose a file
        </FileButton>
        <Button onPress={onClose}>Not now</Button>
        {preview?.things.length ? (
          <>
            {sheet.kit.length > 0 && <Button onPress={() => void take(true)}>Replace the kit</Button>}
            <Button $wanted onPress={() => void take(false)}>
              Take {preview.things.length} things
            </Button>
          </>
        ) : (
          <Button $wanted isDisabled={!text.trim()} onPress={() => void look(text)}>
            Look at it
          </Button>
        )}
      </Actions>
    </Dialog>
  )
}
