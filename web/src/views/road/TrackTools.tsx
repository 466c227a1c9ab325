/** What can be done to a track: join, turn round, trim; and learning the rider's own pace from a recorded ride. */
import { useState } from 'react'
import { HEIGHT_FILES, TRACK_FILES } from '../../api/bounds'
import { api, type LearnedPace, Problem } from '../../api/client'
import { useDesk } from '../../api/tour'
import { Dialog } from '../../ui/Dialog'
import { Actions, Button, FileButton, Muted, Row } from '../../ui/controls'
import { Choice, Measure } from '../../ui/fields'
import { TickBox } from '../../ui/TickBox'

export const READING = 'Reading the track'

export function TrackTools({ onClose }: { onClose: () => void }) {
  const { sheet, assessment, bring, ask, change, tour } = useDesk()
  const length = assessment.road?.length_km ?? 0
  const [from, setFrom] = useState(0)
  const [to, setTo] = useState(length)
  const [rider, setRider] = useState(sheet.riders[0]?.id ?? '')
  const [pace, setPace] = useState<LearnedPace | null>(null)
  const [trouble, setTrouble] = useState('')
  const name = sheet.riders.find((r) => r.id === rider)?.name
  const learn = (file: File) => {
    setTrouble('')
    api
      .learnPace(tour.id, file, rider)
      .then(setPace, (e: unknown) => setTrouble(e instanceof Problem ? `${e.body.detail} ${e.body.mend ?? ''}` : String(e)))
  }
  const take = async (found: LearnedPace) => {
    const ok = await change(`Take the pace of ${name}'s ride`, {
      riders: sheet.riders.map((r) => (r.id === rider ? { ...r, all_day_power_w: Math.round(found.power_w) } : r)),
      road: { ...sheet.road, pause_factor: found.pause_factor },
    })
    if (ok) onClose()
  }
  return (
    <Dialog title="Track and pace" open onClose={onClose} wide>
      <Row $min={200}>
        <FileButton
          accept={TRACK_FILES}
          onFiles={(files) => void bring(READING, (...to) => api.bringTrack(files, true, ...to)).then((ok) => ok && onClose())}
        >
          Join files on at the end
        </FileButton>
        <Button onPress={() => void ask('Turning round', (id, revision) => api.shapeTrack(id, revision, 'reverse')).then((ok) => ok && onClose())}>
          Ride it the other way
        </Button>
      </Row>
      <Row $min={120}>
        <Measure label="Keep from" value={from} quantity="distance" decimals={1} range={[0, length]} onChange={setFrom} />
        <Measure label="to" value={to} quantity="distance" decimals={1} range={[0, length]} onChange={setTo} />
        <Button
          onPress={() => void ask('Trimming', (id, revision) => api.shapeTrack(id, revision, 'trim', from, to)).then((ok) => ok && onClose())}
          isDisabled={from >= to || (from === 0 && to >= length)}
        >
          Trim to this part
        </Button>
      </Row>
      <Muted>Stops, nights, surfaces and transfers move with the track. Everything can be undone.</Muted>
      <Heights onDone={onClose} />
      <Row $min={200}>
        <Choice
          label="Learn the pace of"
          value={rider}
          onChange={(id) => {
            setRider(id)
            setPace(null)
          }}
          options={sheet.riders.map((r) => ({ id: r.id, text: r.name }))}
        />
        <FileButton accept={TRACK_FILES} onFile={learn}>
          From a recorded ride
        </FileButton>
      </Row>
      <Muted>A recording with times (GPX, FIT, TCX, KML), ridden with about the load of this tour.</Muted>
      {trouble && (
        <p role="alert">
          <b>{trouble}</b>
        </p>
      )}
      {pace && (
        <div role="status">
          <p>
            <b>
              {pace.power_w.toFixed(0)} W, give or take {pace.power_error_w.toFixed(0)} W
            </b>
            , and {pace.pause_factor.toFixed(2)} hours on the road for each hour ridden (± {pace.pause_error.toFixed(2)}), from{' '}
            {pace.distance_km.toFixed(0)} km and {pace.moving_hours.toFixed(1)} h. Now{' '}
            {sheet.riders.find((r) => r.id === rider)?.all_day_power_w.toFixed(0)} W and {sheet.road.pause_factor.toFixed(2)}.
          </p>
        </div>
      )}
      <Actions>
        <Button onPress={onClose}>Close</Button>
        {pace && (
          <Button $wanted onPress={() => void take(pace)}>
            Take it for {name}
          </Button>
        )}
      </Actions>
    </Dialog>
  )
}

/** Heights for a track that lacks them, or better ones for all of it. */
function Heights({ onDone }: { onDone: () => void }) {
  const { assessment, bring } = useDesk()
  const [anew, setAnew] = useState(false)
  const look = (files: File[]) => void bring('Looking up heights', (...to) => api.bringHeights(files, anew, ...to)).then((ok) => ok && onDone())
  return (
    <>
      <Row $min={200}>
        <FileButton accept={HEIGHT_FILES} onFiles={look}>
          Heights from files
        </FileButton>
        <Button onPress={() => look([])}>Ask the service of heights</Button>
        <TickBox isSelected={anew} onChange={setAnew}>
          Also where the track has one
        </TickBox>
      </Row>
      <Muted>
        {assessment.road?.has_heights === false && 'This track has no heights: its climbs are missing. '}HGT tiles (N47E011.hgt) or GeoTIFF in
        degrees.
      </Muted>
    </>
  )
}
