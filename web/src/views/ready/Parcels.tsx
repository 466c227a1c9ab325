/** What may go home or be sent ahead, where and when, and what that saves; each parcel can be taken on. */
import styled from 'styled-components'
import { useDesk, useWork } from '../../api/tour'
import { Button, Muted, RailLine } from '../../ui/controls'
import { useUnits } from '../../ui/preferences'
import { useRanking } from '../kit/useRanking'

const Box = styled.section`
  padding: 2px 20px 12px 0;
  article {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 2px 12px;
    padding: 6px 0;
    border-bottom: 1px solid var(--hair);
    font-size: var(--size-small);
  }
  b {
    font-weight: 680;
  }
  small {
    grid-column: 1;
    font-size: var(--size-note);
    color: var(--ink2);
    line-height: 16px;
  }
`

export function Parcels() {
  const { sheet, change } = useDesk()
  const { busy } = useWork()
  const units = useUnits()
  const { data, isPending } = useRanking()
  if (isPending) return <Muted role="status">Reckoning what to post …</Muted>
  const parcels = data?.parcels ?? []
  return (
    <Box aria-label="By post">
      <RailLine>By post</RailLine>
      {parcels.length === 0 && (
        <Muted>No parcel pays: what is not needed on a part of the tour costs less time on the bike than the errand to a post office.</Muted>
      )}
      {parcels.map((p) => (
        <article key={`${p.way} ${p.stop_id}`}>
          <span>
            <b>{units.say(p.mend.name)}</b>, day {p.day}: {p.thing_ids.length} things, {units.show(p.mass_kg, 'mass', 2)},{' '}
            {units.show(p.volume_l, 'volume')}
          </span>
          <Button $small isDisabled={busy !== ''} onPress={() => void change(units.say(p.mend.name).slice(0, 200), { mend: p.mend })}>
            Take it on
          </Button>
          <small>
            {p.thing_ids.map((id) => sheet.kit.find((t) => t.id === id)?.name ?? '').join(', ')}. Saves {units.show(p.saves_min, 'minutes')} on the
            rest of the tour; {p.costs_min > 0 ? `the errand takes ${units.show(p.costs_min, 'minutes')}` : 'a parcel goes there anyway'}
            {p.price !== null && `, ${p.price} ${sheet.money}`}.{p.send_by && ` Sent between ${p.send_from ?? ''} and ${p.send_by}.`}
          </small>
        </article>
      ))}
      <Muted>
        What leaves is needed no more by this tour’s cold, rain and hazards; the weather may think otherwise. Post offices: weekdays, practice; name
        on the label.
      </Muted>
    </Box>
  )
}
