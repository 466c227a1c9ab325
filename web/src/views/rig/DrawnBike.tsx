/** A bike as it is drawn, with the places where something can be hung, and how it stands loaded. */
import { useState } from 'react'
import type { Bike, BikeTrace, Catalogue } from '../../api/client'
import { RigDrawing } from '../../instruments/RigDrawing'
import { Button, Muted, RailLine } from '../../ui/controls'
import { Icon } from '../../ui/icons'
import { useUnits } from '../../ui/preferences'
import { BAGS_KIT } from '../../api/bounds'
import { api } from '../../api/client'
import { useDesk } from '../../api/tour'
import { useQuery } from '@tanstack/react-query'
import { FreePlaces } from './FreePlaces'
import { hang, sockets, type Socket } from './mounting'
import { StancePanel } from './StancePanel'

interface Props {
  bike: Bike
  bikes: Bike[]
  trace: BikeTrace
  catalogue: Catalogue | undefined
  onChange: (what: string, bike: Bike) => void
}

export function DrawnBike({ bike, bikes, trace, catalogue, onChange: put }: Props) {
  const units = useUnits()
  const [leftSide, setLeft] = useState(false)
  const [hanging, setHanging] = useState(true)
  const { tour } = useDesk()
  const { data: own } = useQuery({ queryKey: ['library', '', BAGS_KIT, 0, tour.id], queryFn: () => api.library('', BAGS_KIT, 0, tour.id) })
  const free: Socket[] = catalogue ? sockets(bike, trace.places, catalogue, own?.things) : []
  return (
    <>
      <RigDrawing
        bike={bike}
        trace={trace}
        leftSide={leftSide}
        riderOn={false}
        over={
          hanging && catalogue
            ? (view) => (
                <FreePlaces
                  free={free}
                  view={view}
                  leftSide={leftSide}
                  onHang={(socket, offer) => put(`Hang ${offer.name} on ${bike.name}`, hang(bike, bikes, socket, offer, catalogue))}
                />
              )
            : undefined
        }
      />
      <div style={{ display: 'flex', gap: 8, alignItems: 'center', flexWrap: 'wrap' }}>
        <Button $small onPress={() => setLeft(!leftSide)}>
          <Icon name="flip" size={16} />
          {leftSide ? 'Right side' : 'Left side'}
        </Button>
        <Button $small aria-pressed={hanging} onPress={() => setHanging(!hanging)}>
          {hanging ? 'Hide free places' : 'Show free places'}
        </Button>
        <Muted>
          {free.length
            ? `${free.length} free places; press + to hang something there. The other side’s show when you turn it.`
            : 'Every place is taken.'}
        </Muted>
      </div>
      <RailLine>
        How it stands, loaded<em>{units.show(trace.total_kg[0] ?? 0, 'mass')} at the start</em>
      </RailLine>
      <StancePanel trace={trace} />
    </>
  )
}
