/** A list pasted or uploaded: how each column was understood and what could not be read, before anything is taken. */
import { useDesk, useWork } from '../../api/tour'
import { Dialog } from '../../ui/Dialog'
import { Actions, Button, FileButton, Muted, RailLine } from '../../ui/controls'
import { Area, Choice } from '../../ui/fields'
import { ColumnsRead } from './ColumnsRead'
import { Doubts } from './Doubts'
import { Rows, ThingsRead } from './ListRead'
import { type List, useList } from './useList'

const DELIMITERS: Record<string, string> = { ',': 'comma', ';': 'semicolon', '\t': 'tab' }

export function BringKit({ onClose }: { onClose: () => void }) {
  const list = useList(onClose)
  const { text, book, trouble, look } = list
  return (
    <Dialog draft title="Bring a list" open onClose={onClose} wide>
      <Muted>
        Paste your own spreadsheet, or choose its file. Columns in any order, several languages; kg, g, lb or oz; titles, kits and totals between the
        rows are known; XLSX and ODS files too. Names alone are enough. Nothing is taken before you say so.
      </Muted>
      <Area
        aria-label="The list"
        value={text}
        onChange={(e) => list.type(e.target.value)}
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
      <Read list={list} />
      <Taking list={list} onClose={onClose} />
    </Dialog>
  )
}

/** What is asked, the columns, and what can be taken. */
function Read({ list: { preview, questions, answers, say, take, things, here, look, text, columns } }: { list: List }) {
  const { busy } = useWork()
  if (!preview) return null
  return (
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
          {DELIMITERS[preview.delimiter]} between cells, decimal {preview.decimal_comma ? 'comma' : 'point'}
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
      <ThingsRead preview={preview} />
    </>
  )
}

function Taking({ list: { text, columns, things, here, look, take, open }, onClose }: { list: List; onClose: () => void }) {
  const { sheet } = useDesk()
  const { busy } = useWork()
  return (
    <Actions>
      <FileButton accept={['.csv', '.tsv', '.txt', '.xlsx', '.ods', 'text/csv']} onFile={open}>
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
  )
}
