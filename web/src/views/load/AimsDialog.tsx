/** What a good load is: every aim with its weight, its reason and what this load pays for it; schools as presets. */
import { useQuery } from '@tanstack/react-query'
import { Slider, SliderOutput, SliderThumb, SliderTrack, Label } from 'react-aria-components'
import styled from 'styled-components'
import { BOUNDS } from '../../api/bounds'
import { api, type Aims } from '../../api/client'
import { useDesk } from '../../api/tour'
import { Dialog } from '../../ui/Dialog'
import { Actions, Button, Muted, Row } from '../../ui/controls'
import { Choice, Measure } from '../../ui/fields'
import { useUnits } from '../../ui/preferences'
import { TickBox } from '../../ui/TickBox'

const Grid = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1.3fr) 190px 78px;
  gap: 2px 16px;
  align-items: center;
  font-size: var(--size-small);
  > .head {
    font-size: var(--size-note);
    font-weight: 650;
    border-bottom: 2px solid var(--ink);
    align-self: stretch;
  }
  .n {
    text-align: right;
    font-weight: 700;
  }
  small {
    display: block;
    font-size: var(--size-note);
    line-height: 16px;
    color: var(--ink2);
    font-stretch: var(--width-narrow);
  }
  @media (max-width: 640px) {
    grid-template-columns: minmax(0, 1fr) 0 70px;
    gap: 2px 0;
    > .weight {
      visibility: hidden;
      overflow: hidden;
    }
  }
`
const Weight = styled(Slider)`
  display: grid;
  grid-template-columns: 1fr 40px;
  align-items: center;
  gap: 8px;
  height: 36px;
  .track {
    height: 30px;
    position: relative;
  }
  .track::before {
    content: '';
    position: absolute;
    left: 0;
    right: 0;
    top: 14px;
    height: 3px;
    background: var(--edge);
  }
  .thumb {
    top: 50%;
    width: 20px;
    height: 20px;
    border: 2.5px solid var(--ink);
    border-radius: 3px;
    background: var(--tag);
    &[data-focus-visible] {
      outline: 3px solid var(--ink);
      outline-offset: 2px;
    }
    &[data-dragging] {
      background: var(--now);
    }
  }
  output {
    font-weight: 650;
    text-align: right;
  }
`

export function AimsDialog({ onClose }: { onClose: () => void }) {
  const { tour, sheet, change } = useDesk()
  const units = useUnits()
  const { data } = useQuery({
    queryKey: ['aims', tour.id, tour.revision],
    queryFn: () => api.aims(tour.id),
    placeholderData: (before) => before,
  })
  const put = (what: string, aims: Aims) => void change(what, { aims })
  if (!data)
    return (
      <Dialog title="What a good load is" open onClose={onClose}>
        <Muted role="status">Reckoning …</Muted>
      </Dialog>
    )
  const school = data.schools.find((s) => JSON.stringify(s.aims) === JSON.stringify(sheet.aims))
  const bike = sheet.rig.bikes[0]
  const total = data.paid.reduce((sum, p) => (p.aim === 'out' ? sum : sum + p.points), 0)
  const paid = (aim: string) => (data.paid.find((p) => p.aim === aim)?.points ?? 0).toFixed(0)
  return (
    <Dialog title="What a good load is" open onClose={onClose} wide>
      <Choice
        label="School"
        value={school?.id ?? 'own'}
        onChange={(id) => {
          const chosen = data.schools.find((s) => s.id === id)
          if (chosen) put(`Load by the school: ${chosen.name}`, chosen.aims)
        }}
        options={[...data.schools.map((s) => ({ id: s.id, text: s.name })), ...(school ? [] : [{ id: 'own', text: 'Your own' }])]}
      />
      <Muted>
        {school?.words ?? 'Weights as you set them.'} A school changes what a proposal looks for; the load stands until you ask for another.
      </Muted>
      <Grid>
        <span className="head">Aim</span>
        <span className="head weight">Times the usual weight</span>
        <span className="head n">This load pays</span>
        {data.aims
          .filter((a) => a.name !== 'riders' || sheet.rig.bikes.length > 1)
          .map((aim) => (
            <Line key={aim.name}>
              <span>
                <b>{aim.words}</b>
                <small>
                  {aim.why}; {aim.price}
                </small>
              </span>
              <Weight
                key={sheet.aims[aim.name]}
                className="weight"
                defaultValue={sheet.aims[aim.name]}
                minValue={0}
                maxValue={3}
                step={0.25}
                onChangeEnd={(v) => put(`Aim “${aim.words}” ${v} times`, { ...sheet.aims, [aim.name]: v as number })}
              >
                <Label className="unseen">{aim.words}</Label>
                <SliderTrack className="track">
                  <SliderThumb className="thumb" />
                </SliderTrack>
                <SliderOutput>{({ state }) => `× ${state.values[0] ?? 0}`}</SliderOutput>
              </Weight>
              <span className="n">{paid(aim.name)}</span>
            </Line>
          ))}
        <span>
          <b>Left out</b>
          <small>what no bag takes; counts before all aims, by size and need</small>
        </span>
        <span className="weight" />
        <span className="n">{paid('out')}</span>
        <span>
          <b>All together</b>
        </span>
        <span className="weight" />
        <span className="n">{total.toFixed(0)}</span>
      </Grid>
      <TickBox isSelected={sheet.aims.two_walls} onChange={(two_walls) => put('Two walls against water', { ...sheet.aims, two_walls })}>
        What water ruins is kept dry twice: a proof bag, and a liner or a dry bag of its own
      </TickBox>
      {bike && (
        <Row $min={170}>
          <Measure
            label="Front wheel bears from"
            value={sheet.aims.front_share_low ?? bike.front_share_low}
            quantity="share"
            range={BOUNDS.Aims.front_share_low}
            onChange={(v) => put('Front share', { ...sheet.aims, front_share_low: v })}
          />
          <Measure
            label="to"
            value={sheet.aims.front_share_high ?? bike.front_share_high}
            quantity="share"
            range={BOUNDS.Aims.front_share_high}
            onChange={(v) => put('Front share', { ...sheet.aims, front_share_high: v })}
          />
          <Muted>
            of bike and luggage, rider apart;{' '}
            {sheet.aims.front_share_low === null
              ? `the bike says ${units.show(bike.front_share_low, 'share')} to ${units.show(bike.front_share_high, 'share')}`
              : 'for all bikes, over what each bike says'}
            .
          </Muted>
        </Row>
      )}
      <Actions>
        <Button onPress={onClose}>Close</Button>
      </Actions>
    </Dialog>
  )
}

const Line = styled.div`
  display: contents;
  @media (max-width: 640px) {
    display: grid;
    grid-column: 1 / -1;
    grid-template-columns: minmax(0, 1fr) 70px;
    border-bottom: 1px solid var(--hair);
    > .weight {
      grid-row: 2;
      grid-column: 1 / -1;
      height: 48px;
    }
  }
`
