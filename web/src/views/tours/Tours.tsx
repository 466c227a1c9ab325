/** All tours, and the start of a new one. */
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import styled from 'styled-components'
import { api, Problem } from '../../api/client'
import { Actions, Button, Dialog, FileButton, Muted, RailLine, Row, Title } from '../../ui/controls'
import { Field } from '../../ui/fields'
import { Notice } from '../../ui/notices'
import { Icon, Mark } from '../../ui/icons'
import { sign } from '../../ui/theme'
import { type Drafted, lacking, MOST_RIDERS, newBikes, newRider, RiderList } from './Riders'

const Page = styled.div`
  max-width: 860px;
  margin: 0 auto;
  padding: 28px 20px 60px;
`
const Brand = styled.div`
  display: flex;
  align-items: center;
  gap: 10px;
  font-family: ${sign};
  font-stretch: 122%;
  font-weight: 800;
  font-size: 24px;
  margin-bottom: 18px;
`
const Line = styled.li`
  display: flex;
  align-items: center;
  gap: 12px;
  border-top: 1px solid var(--edge);
  padding: 6px 0;
  a {
    flex: 1;
    color: var(--ink);
    text-decoration: none;
    padding: 6px 0;
  }
  a b {
    font-size: 16px;
    font-weight: 650;
    display: block;
  }
  a span {
    color: var(--ink2);
    font-size: 13px;
  }
`

export function Tours() {
  const queries = useQueryClient()
  const navigate = useNavigate()
  const { data, error } = useQuery({ queryKey: ['tours'], queryFn: api.tours })
  const [starting, setStarting] = useState(false)
  const [removing, setRemoving] = useState<{ id: string; name: string } | null>(null)
  const [trouble, setTrouble] = useState('')
  const words = (e: unknown) => (e instanceof Problem ? `${e.body.detail} ${e.body.mend ?? ''}` : String(e))
  const bring = async (file: File) => {
    try {
      const answer = await api.bringBundle(file)
      void navigate(`/tours/${answer.tour.id}/load`)
    } catch (e) {
      setTrouble(words(e))
    }
  }
  return (
    <>
      {(trouble || error) && (
        <Notice urgent onClose={() => setTrouble('')}>
          {trouble || words(error)}
        </Notice>
      )}
      <Page as="main">
        <Brand>
          <Mark size={32} />
          omnifer
        </Brand>
        <Title>Your tours</Title>
        <Muted style={{ margin: '6px 0 16px' }}>
          Leaving this place, on this day, with this bike: can you carry what you need to the next place that has it?
        </Muted>
        <RailLine>
          <Icon name="road" size={17} />
          Tours<em>{data ? `${data.tours.length}` : ''}</em>
        </RailLine>
        <ul>
          {data?.tours.map((tour) => (
            <Line key={tour.id}>
              <Link to={`/tours/${tour.id}/load`}>
                <b>{tour.name}</b>
                <span>
                  from {tour.start_date}, changed {new Date(tour.changed_at).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })}
                </span>
              </Link>
              <Button $small onPress={() => setRemoving(tour)}>
                Remove
              </Button>
            </Line>
          ))}
          {data?.tours.length === 0 && (
            <Line>
              <span>No tours yet. Say where you ride and how long, and the land takes shape.</span>
            </Line>
          )}
        </ul>
        <Actions style={{ justifyContent: 'flex-start', marginTop: 16 }}>
          <Button $wanted onPress={() => setStarting(true)}>
            <Icon name="plus" size={16} />
            Start a tour
          </Button>
          <FileButton accept={['application/json', '.json']} onFile={(f) => void bring(f)}>
            Bring a tour from a file
          </FileButton>
        </Actions>
      </Page>
      {starting && <NewTour onClose={() => setStarting(false)} />}
      <Dialog title={`Remove ${removing?.name ?? ''}?`} open={removing !== null} onClose={() => setRemoving(null)}>
        <p>The tour and its whole history go. Save it as a file first if you may want it again.</p>
        <Actions>
          <Button onPress={() => setRemoving(null)}>Keep it</Button>
          <Button
            $wanted
            onPress={() =>
              removing &&
              void api
                .remove(removing.id)
                .catch((e: unknown) => setTrouble(words(e)))
                .then(() => {
                  setRemoving(null)
                  void queries.invalidateQueries({ queryKey: ['tours'] })
                })
            }
          >
            Remove
          </Button>
        </Actions>
      </Dialog>
    </>
  )
}

/** Today where the rider is. */
const today = () => {
  const now = new Date()
  return `${now.getFullYear()}-${String(now.getMonth() + 1).padStart(2, '0')}-${String(now.getDate()).padStart(2, '0')}`
}

function NewTour({ onClose }: { onClose: () => void }) {
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
