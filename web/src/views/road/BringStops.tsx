/** Stops from a sheet: pasted or from a file, looked at before anything is taken. */
import { useState } from 'react'
import { api, Problem, type StopsPreview } from '../../api/client'
import { useDesk, useWork } from '../../api/tour'
import { Dialog } from '../../ui/Dialog'
import { Actions, Button, FileButton, Muted } from '../../ui/controls'
import { Area, Choice } from '../../ui/fields'

export function BringStops({ onClose }: { onClose: () => void }) {
  const { tour, ask } = useDesk()
  const { busy } = useWork()
  const [text, setText] = useState('')
  const [found, setFound] = useState<StopsPreview | null>(null)
  const [trouble, setTrouble] = useState('')
  const [replace, setReplace] = useState(false)
  const refuse = (e: unknown) => {
    setFound(null)
    setTrouble(e instanceof Problem ? `${e.body.detail} ${e.body.mend ?? ''}` : String(e))
  }
  const look = (next: string) => {
    setText(next)
    setTrouble('')
    api.previewStops(tour.id, next).then(setFound, refuse)
  }
  return (
    <Dialog draft title="Stops from a table" open onClose={onClose} wide>
      <Muted>One stop a row, with headings such as km, name, water, shop, closed, opens, closes, dry months, shelter, services, fuels, note.</Muted>
      <Area
        aria-label="The table"
        value={text}
        onChange={(e) => {
          setText(e.target.value)
          setFound(null)
        }}
        placeholder={'km;name;water;shop;closed;opens;closes\n42;Market Cross;sure;full;sun;8:00;18:30'}
      />
      {trouble && (
        <p role="alert">
          <b>{trouble}</b>
        </p>
      )}
      {found && (
        <div role="status">
          <p>
            <b>{found.stops.length} stops can be taken.</b>
            {found.left_aside.length > 0 && ` Not understood and left aside: ${found.left_aside.join(', ')}.`}
          </p>
          {found.problems.slice(0, 8).map((p) => (
            <Muted key={`${p.row}${p.heading}`}>
              Row {p.row}
              {p.heading && `, ${p.heading}`}: {p.what}
            </Muted>
          ))}
        </div>
      )}
      <Choice
        label="With the stops there are"
        value={replace ? 'replace' : 'add'}
        onChange={(v) => setReplace(v === 'replace')}
        options={[
          { id: 'add', text: 'Add to them' },
          { id: 'replace', text: 'Replace them' },
        ]}
      />
      <Actions>
        <FileButton
          accept={['.csv', '.txt', '.tsv', 'text/csv']}
          onFile={(file) => void api.sheetText(file).then((sheet) => look(sheet.text), refuse)}
        >
          From a file
        </FileButton>
        <Button onPress={() => look(text)} isDisabled={!text.trim()}>
          Look at it
        </Button>
        <Button
          $wanted
          isDisabled={!found?.stops.length || busy !== ''}
          onPress={() => void ask('Taking the stops', (id, revision) => api.importStops(id, revision, text, replace)).then((ok) => ok && onClose())}
        >
          Take {found?.stops.length ?? 0} stops
        </Button>
      </Actions>
    </Dialog>
  )
}
