/** What a tour begins with: its name, its first day, its riders. */
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { api, type Catalogue, Problem } from '../../api/client'
import { Dialog } from '../../ui/Dialog'
import { Actions, Button, Muted, Row } from '../../ui/controls'
import { today } from '../../ui/dates'
import { Choice, Field } from '../../ui/fields'
import { type Drafted, lacking, MOST_RIDERS, newBikes, newRider, RiderList } from './Riders'

type School = Catalogue['kit_schools'][number]
const NOTHING = '-'
const SCHOOLS: Record<School, string> = {
  ultralight: 'very little: under 8 kg with bags',
  light: 'light: 10 to 14 kg',
  usual: 'the usual: 15 to 20 kg',
  comfort: 'all comforts: 20 to 30 kg',
  long: 'for a long life on the road: 25 to 35 kg',
}

export function NewTour({ onClose }: { onClose: () => void }) {
  const navigate = useNavigate()
  const { data: catalogue } = useQuery({ queryKey: ['catalogue'], queryFn: api.catalogue })
  const [name, setName] = useState('')
  const [date, setDate] = useState(today())
  const [riders, setRiders] = useState<Drafted[]>([newRider([])])
  const [like, setLike] = useState(NOTHING)
  const [school, setSchool] = useState<School | typeof NOTHING>(NOTHING)
  const [trouble, setTrouble] = useState('')
  const [told, setTold] = useState<{ id: string; remarks: string[] } | null>(null)
  const { data: lines } = useQuery({ queryKey: ['tours'], queryFn: api.tours })
  const earlier = like === NOTHING ? null : like
  const start = async () => {
    const missing = lacking(name, earlier ? [] : riders)
    if (missing) return setTrouble(missing)
    const people = riders.map(({ rider }) => ({ ...rider, name: rider.name.trim() }))
    try {
      const answer = await api.start({
        name: name.trim(),
        start_date: date,
        riders: earlier ? people.map((r) => ({ ...r, name: r.name || '-' })) : people,
        bikes: earlier ? [] : newBikes(riders, catalogue, []),
        typed_days: [],
        from_tour: earlier,
        kit_of: earlier || school === NOTHING ? null : school,
      })
      if (answer.remarks.length) return setTold({ id: answer.tour.id, remarks: answer.remarks })
      void navigate(`/tours/${answer.tour.id}/road`)
    } catch (e) {
      setTrouble(e instanceof Problem ? `${e.body.detail} ${e.body.where ?? ''}` : String(e))
    }
  }
  if (told)
    return (
      <Dialog title={name} open onClose={() => void navigate(`/tours/${told.id}/road`)}>
        {told.remarks.map((remark) => (
          <p key={remark}>{remark}</p>
        ))}
        <Actions>
          <Button $wanted onPress={() => void navigate(`/tours/${told.id}/road`)}>
            Open it
          </Button>
        </Actions>
      </Dialog>
    )
  return (
    <Dialog draft title="Start a tour" open onClose={onClose} wide>
      <Row $min={220}>
        <Field label="Name of the tour" value={name} onChange={setName} />
        <Field label="First day" value={date} onChange={setDate} type="date" />
      </Row>
      <Row $min={220}>
        <Choice
          label="It begins like"
          value={like}
          onChange={setLike}
          options={[{ id: NOTHING, text: 'nothing: a new one' }, ...(lines?.tours ?? []).map((t) => ({ id: t.id, text: t.name }))]}
        />
        {earlier === null && (
          <Choice
            label="Its kit begins with"
            value={school}
            onChange={setSchool}
            options={[
              { id: NOTHING, text: 'nothing: a list, the library, by hand' },
              ...(catalogue?.kit_schools ?? []).map((id) => ({ id, text: SCHOOLS[id] })),
            ]}
          />
        )}
      </Row>
      {earlier ? (
        <Muted>
          Riders, bikes, kit and load come along, with the figures that the library has now; the road is new. What has changed since is told.
        </Muted>
      ) : (
        <RiderList riders={riders} onChange={setRiders} />
      )}
      {trouble && (
        <p role="alert">
          <b>{trouble}</b>
        </p>
      )}
      <Actions>
        <Button isDisabled={riders.length >= MOST_RIDERS} onPress={() => setRiders([...riders, newRider(riders.map((r) => r.rider))])}>
          Add a rider
        </Button>
        <Button onPress={onClose}>Not now</Button>
        <Button $wanted onPress={() => void start()}>
          Start
        </Button>
      </Actions>
    </Dialog>
  )
}
