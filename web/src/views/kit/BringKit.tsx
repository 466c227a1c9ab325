/** A list pasted or uploaded: how each column was understood and what could not be read, before anything is taken. */
import { useState } from 'react'
import styled from 'styled-components'
import { api, type KitPreview, type KitText, Problem, type SheetText } from '../../api/client'
import { useDesk, useWork } from '../../api/tour'
import { Actions, Button, Dialog, FileButton, Muted, RailLine } from '../../ui/controls'
import { Area, Choice } from '../../ui/fields'
import { Fold } from '../../ui/Fold'
import { REACH_WORDS } from '../../ui/icons'
import { useUnits } from '../../ui/preferences'
import { Sheet } from '../road/sheet'
import { ColumnsRead } from './ColumnsRead'
import { type Answers, Doubts, keyOf, type Question } from './Doubts'

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
  const [answers, setAnswers] = useState<Answers>([])
  const [questions, setQuestions] = useState<Question[]>([])
  const [book, setBook] = useState<SheetText['sheets']>([])
  const [preview, setPreview] = useState<KitPreview | null>(null)
  const [trouble, setTrouble] = useState('')
  const refuse = (e: unknown) => {
    setPreview(null)
    setTrouble(e instanceof Problem ? `${e.body.detail}. ${e.body.where ?? ''} ${e.body.mend ?? ''}` : String(e))
  }
  const look = (content: string, choices: Choices, said: Answers = []) => {
    setTrouble('')
    setText(content)
    setColumns(choices)
    setAnswers(said)
    api.previewKit(tour.id, { text: content, columns: choices, answers: said }).then((found) => {
      setPreview(found)
      // What was asked stays where it is while it is answered; what an answer asks anew comes after it.
      const asked = said.length ? questions : []
      setQuestions([...asked, ...found.questions.filter((q) => !asked.some((a) => keyOf(a) === keyOf(q)))])
    }, refuse)
  }
  const say = (answer: Answers[number]) => {
    const said = [...answers.filter((a) => keyOf(a) !== keyOf(answer)), answer]
    if (answer.asks === 'kind') look(text, columns, said)
    else setAnswers(said)
  }
  const take = async (how: { replace?: boolean; again?: boolean }) => {
    const kept = await ask('Taking the things', (id, revision) =>
      api.importKit(id, { revision, text, columns, answers, replace: false, again: false, ...how }),
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
        rows are known; XLSX and ODS files too. Names alone are enough. Nothing is taken before you say so.
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
      {book.length > 1 && (
        <Choice
          label="Sheet"
          value={String(
            Math.max(
              0,
              book.findIndex((s) => s.text === text),
            ),
          )}
          options={book.map((s, n) => ({ id: String(n), text: s.name }))}
          onChange={(n) => look(book[Number(n)]?.text ?? '', [])}
        />
      )}
      {trouble && (
        <p role="alert">
          <b>{trouble}</b>
        </p>
      )}
      {preview && (
        <>
          <Doubts
            questions={questions}
            answers={answers}
            onAnswer={say}
            onLast={() => {
              if (things.length > here && busy === '') void take({})
            }}
          />
          <RailLine>
            Columns
            <em>
              {words} between cells, decimal {preview.decimal_comma ? 'comma' : 'point'}
            </em>
          </RailLine>
          <ColumnsRead
            columns={preview.columns}
            onChoose={(choice) => look(text, [...columns.filter((c) => c.column !== choice.column), choice], answers)}
          />
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
          accept={['.csv', '.tsv', '.txt', '.xlsx', '.ods', 'text/csv']}
          onFile={(f) =>
            void api.sheetText(f).then((found) => {
              setBook(found.sheets)
              look(found.text, [])
            }, refuse)
          }
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
