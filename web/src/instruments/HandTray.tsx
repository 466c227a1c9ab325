/** On a phone: what is in hand, and every bag it could go to, under the thumb. */
import styled from 'styled-components'
import { Button } from '../ui/controls'
import { useUnits } from '../ui/preferences'
import { usePhone } from '../ui/usePhone'
import { useHand } from './moment'
import { usePlaces, useStow } from './useStow'

const Tray = styled.div`
  display: flex;
  flex-direction: column;
  gap: 8px;
  position: fixed;
  left: 0;
  right: 0;
  bottom: 64px;
  z-index: 6;
  max-height: 44dvh;
  overflow: auto;
  background: var(--sky);
  border-top: 3px solid var(--ink);
  padding: 8px 14px 10px;
  > div {
    display: flex;
    gap: 8px;
    align-items: center;
  }
  > div b {
    flex: 1;
  }
  ul {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 6px;
  }
`
const Tile = styled.button<{ $fits: boolean }>`
  width: 100%;
  min-height: 52px;
  padding: 4px 8px;
  border: 1px ${(p) => (p.$fits ? 'dashed' : 'solid')} ${(p) => (p.$fits ? 'var(--ink)' : 'var(--hair)')};
  border-width: ${(p) => (p.$fits ? 2 : 1)}px;
  border-radius: 3px;
  background: var(--tag);
  text-align: left;
  b {
    display: block;
    font-size: var(--size-text);
    line-height: 17px;
  }
  small {
    display: block;
    font-size: var(--size-note);
    line-height: 15px;
    color: var(--ink2);
  }
  &[data-over] {
    background: var(--now);
    color: var(--onnow);
    small {
      color: var(--onnow);
    }
  }
`

export function HandTray() {
  const { inHand, setInHand } = useHand()
  const { entries, label, stow, wordsFor } = useStow()
  const places = usePlaces(inHand)
  const units = useUnits()
  const phone = usePhone()
  if (!phone || !inHand.length) return null
  const stowed = inHand.some((h) => h.from !== null)
  const ordered = [...places.keys(), ...entries.map((e) => e.id).filter((id) => !places.has(id))]
  return (
    <Tray role="region" aria-label="In hand">
      <div>
        <b>{wordsFor(inHand)} in hand</b>
        {stowed && (
          <Button $small data-shelf="" onPress={() => stow(null)}>
            To the shelf
          </Button>
        )}
        <Button $small onPress={() => setInHand([])}>
          Put back
        </Button>
      </div>
      <ul>
        {ordered.map((id) => {
          const place = places.get(id)
          return (
            <li key={id}>
              <Tile type="button" $fits={place?.fits ?? false} data-carrier={id} onClick={() => stow(id)}>
                <b>{label(id)}</b>
                <small>{place?.reason ? units.say(place.reason) : place?.fits ? 'fits' : ' '}</small>
              </Tile>
            </li>
          )
        })}
      </ul>
    </Tray>
  )
}
