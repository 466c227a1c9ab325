/** A list pasted or uploaded: how each column was understood and what could not be read, before anything is taken. */
import { useState } from 'react'
import styled from 'styled-components'
import { api, type KitPreview, type KitText, Problem } from '../../api/client'
import { useDesk, useWork } from '../../api/tour'
import { Actions, Button, Dialog, FileButton, Muted, RailLine } from '../../ui/controls'
import { Area } from '../../ui/fields'
import { Fold } from '../../ui/Fold'
import { REACH_WORDS } from '../../ui/icons'
import { useUnits } from '../../ui/preferences'
import { Sheet } from '../road/sheet'
import { ColumnsRead } from './ColumnsRead'

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
type Choices = NonNullable<KitText['columns']>

export function BringKit({ onClose }: { onClose: () => void }) {
  const { tour, sheet, ask } = useDesk()
  const { busy } = useWork()
  const units = useUnits()
  const [text, setText] = useState('')
  const [columns, setColumns] = useState<Choices>([])
  const [preview, setPreview] = useState<KitPreview | null>(null)
  const [trouble, setTrouble] = useState('')
  const refuse = (e: unknown) => {
    setPreview(null)
    setTrouble(e instanceof Problem ? `${e.body.detail}. ${e.body.where ?? ''} ${e.body.mend ?? ''}` : String(e))
  }
  const look = (content: string, choices: Choices) => {
    setTrouble('')
    setText(content)
    setColumns(choices)
    api.previewKit(tour.id, { text: content, columns: choices }).then(setPreview, refuse)
  }
  const take = async (how: { replace?: boolean; again?: boolean }) => {
    const kept = await ask('Taking the things', (id, revision) =>
      api.importKit(id, { revision, text, columns, replace: false, again: false, ...how }),
    )
    if (kept) onClose()
  }
  const words = preview && { ',': 'comma', ';': 'semicolon', '\t': 'tab' }[preview.delimiter]
  const things = preview?.things ?? []
  const here = preview?.here.length ?? 0
  return (
    <Dialog draft title="Bring a list" open onClose={onClose} wide>
      <Muted>
        Paste your own spreadsheet, or choose its file. Columns in any order, several languages; kg, g, lb or oz; titles, kits and totals between the
        rows are known. Nothing is taken before you say so.
      </Muted>
      <Area
        aria-label="The list"
        value={text}
        onChange={(e) => {
          setText(e.target.value)
          setColumns([])
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
          <ColumnsRead columns={preview.columns} onChoose={(choice) => look(text, [...columns.filter((c) => c.column !== choice.column), choice])} />
          {preview.remarks.map((r) => (
            <p key={r}>{r}</p>
          ))}
          <Rows title="Cannot be read, and stay out" rows={preview.problems} open />
          <Rows title="Taken, but look at them" rows={preview.doubts} open />
          <Rows title="No things: titles and totals" rows={preview.aside} />
          <RailLine>
            Can be taken
            <em>
              {things.length} things{here > 0 && `, ${here} of these are here already`}
            </em>
          </RailLine>
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
                {things.map((t) => (
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
        </>
      )}
      <Actions>
        <FileButton
          accept={['.csv', '.tsv', '.txt', 'text/csv']}
          onFile={(f) => void api.sheetText(f).then((sheetText) => look(sheetText.text, []), refuse)}
        >
          Choose a file
        </FileButton>
        <Button onPress={onClose}>Not now</Button>
        {things.length ? (
          <>
            {sheet.kit.length > 0 && (
              <Button isDisabled={busy !== ''} onPress={() => void take({ replace: true })}>
                Replace the kit
              </Button>
            )}
            {here > 0 && (
              <Button isDisabled={busy !== ''} onPress={() => void take({ again: true })}>
                Take all {things.length}
              </Button>
            )}
            <Button $wanted isDisabled={busy !== '' || here === things.length} onPress={() => void take({})}>
              {here > 0 ? `Take the ${things.length - here} others` : `Take ${things.length} things`}
            </Button>
          </>
        ) : (
          <Button $wanted isDisabled={!text.trim()} onPress={() => look(text, columns)}>
            Look at it
          </Button>
        )}
      </Actions>
    </Dialog>
  )
}

function Rows({ title, rows, open = false }: { title: string; rows: KitPreview['problems']; open?: boolean }) {
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
