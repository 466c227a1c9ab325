/** The free places of a bike on its drawing: press one to hang something there. */
import { Fragment } from 'react'
import styled from 'styled-components'
import { Button as AriaButton } from 'react-aria-components'
import type { RigView } from '../../instruments/rigView'
import { Menu } from '../../ui/Menu'
import type { Offer, Socket } from './mounting'

const Plus = styled(AriaButton)`
  position: absolute;
  width: 28px;
  height: 28px;
  margin: -14px 0 0 -14px;
  border-radius: 50%;
  border: 2px dashed var(--ink);
  background: color-mix(in srgb, var(--tag) 88%, transparent);
  font-size: var(--size-head);
  font-weight: 750;
  line-height: 1;
  cursor: pointer;
  z-index: 3;
  display: grid;
  place-items: center;
  &[data-hovered],
  &[data-focus-visible] {
    background: var(--now);
    color: var(--onnow);
    border-style: solid;
  }
  @media (pointer: coarse), (max-width: 700px) {
    width: 44px;
    height: 44px;
    margin: -22px 0 0 -22px;
  }
`
const NEAR_PX = 30

export function FreePlaces({
  free,
  view,
  leftSide,
  onHang,
}: {
  free: Socket[]
  view: RigView
  leftSide: boolean
  onHang: (socket: Socket, offer: Offer) => void
}) {
  const near = free.filter(({ place }) => place.side === 'middle' || place.side === (leftSide ? 'left' : 'right'))
  const taken: [number, number][] = []
  return near.map((socket) => {
    const x = view.x(socket.place.x)
    let y = Math.max(view.y(socket.place.y), 24)
    while (taken.some(([tx, ty]) => Math.hypot(tx - x, ty - y) < NEAR_PX)) y -= NEAR_PX
    taken.push([x, y])
    return (
      <Fragment key={socket.id}>
        <Menu
          label={`Hang on ${socket.name}`}
          entries={socket.offers.map((o) => ({ id: o.key, text: o.name, note: o.note }))}
          onChoose={(key) => {
            const offer = socket.offers.find((o) => o.key === key)
            if (offer) onHang(socket, offer)
          }}
        >
          <Plus aria-label={`Hang something on ${socket.name}`} style={{ left: x, top: y }}>
            +
          </Plus>
        </Menu>
      </Fragment>
    )
  })
}
