/** What a tour begins with: its name, its first day, its riders. */
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { api, Problem } from '../../api/client'
import { Actions, Button, Dialog, Row } from '../../ui/controls'
import { today } from '../../ui/dates'
import { Field } from '../../ui/fields'
import { type Drafted, lacking, MOST_RIDERS, newBikes, newRider, RiderList } from './Riders'

export function NewTour({ onClose }: { onClose: () => void }) {
  const navigate = useNavigate()
  const { data: catalogue } = useQuery({ queryKey: ['catalogue'], queryFn: api.catalogue })
  const [name, setName] = useState('')
  const [date, setDate] = useState(today())
  const [riders, setRiders] = useState<Drafted[]>([newRider([])])
  const [trouble, setTrouble] = useState('')
  const start = async () => {
    const missing = lacking(name, riders)
    if (missing) return setTrouble(missing)
    const people = riders.map(({ rider }) => ({ ...rider, name: rider.name.trim() }))
    try {
      const answer = await api.start({
        name: name.trim(),
        start_date: date,
        riders: people,
        bikes: newBikes(riders, catalogue, []),
        typed_days: [],
      })
      void navigate(`/tours/${answer.tour.id}/road`)
    } catch (e) {
      setTrouble(e instanceof Problem ? `${e.body.detail} ${e.body.where ?? ''}` : String(e))
    }
  }
  return (
    <Dialog title="Start a tour" open onClose={onClose} wide>
      <Row $min={220}>
        <Field label="Name of the tour" value={name} onChange={setName} />
        <Field label="First day" value={date} onChange={setDate} type="date" />
      </Row>
      <RiderList riders={riders} onChange={setRiders} />
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
