/** What the drawing below every view shows, and every key: the page behind `?`. */
import styled from 'styled-components'
import { Dialog } from '../ui/Dialog'
import { Actions, Button, Section } from '../ui/controls'
import { usePreferences } from '../ui/preferences'
import { VIEWS } from './views'

/** Single letters that work wherever nothing is being typed. */
export const LETTERS = {
  '[': 'to the stop before',
  ']': 'to the next stop',
  s: 'to the shelf: what is not stowed yet',
  r: 'to the rig: its bags and racks',
  f: 'to the findings',
  t: 'day or night colours',
  '?': 'this page',
} as const

const OTHERS: [string, [string, string][]][] = [
  [
    'Everywhere',
    [
      ['Ctrl Z', 'undo; with Shift, redo'],
      [`Alt 1 … ${VIEWS.length}`, `the views: ${VIEWS.map((v) => v.name).join(', ')}`],
      ['Esc', 'close; let go of what is in hand'],
      ['Ctrl wheel', 'stretch the ribbon'],
    ],
  ],
  [
    'On the ribbon',
    [
      ['← →', 'a moment back or on; with Shift, a day'],
      ['Page up, down', 'the sure water before or after'],
      ['Home, End', 'the start, the end'],
    ],
  ],
  [
    'Elsewhere',
    [
      ['n p', 'in Findings: the next, the one before'],
      ['w b', 'on Road: water, shop of the nearest stop'],
      ['Enter', 'on a thing: take it in hand; on a bag: stow what is in hand'],
    ],
  ],
]
const Keys = styled.dl`
  display: grid;
  grid-template-columns: 110px 1fr;
  gap: 3px 12px;
  font-size: var(--size-small);
  line-height: 18px;
  margin: 4px 0 10px;
  dt {
    font-weight: 650;
  }
`
const Words = styled.p`
  font-size: var(--size-small);
  line-height: 19px;
  font-stretch: var(--width-text);
  margin: 4px 0 10px;
`

export function KeysDialog({ onClose }: { onClose: () => void }) {
  const { letters, setLetters } = usePreferences()
  return (
    <Dialog title="Ribbon and keys" open onClose={onClose} wide>
      <Section as="h3">The ribbon</Section>
      <Words>
        The drawing below every view is the whole road, the first day at the left: above what is carried at each kilometre, below it the land with its
        stops, nights and days. The <b>playhead</b> is the upright yellow line. Drag it, or touch the ribbon anywhere: bags, stores and figures then
        show that moment.
      </Words>
      {OTHERS.map(([where, keys]) => (
        <div key={where}>
          <Section as="h3">{where}</Section>
          <Keys>
            {keys.map(([key, words]) => (
              <Line key={key} of={key} words={words} />
            ))}
          </Keys>
        </div>
      ))}
      <Section as="h3">Single letters{letters ? '' : ', switched off'}</Section>
      <Keys>
        {Object.entries(LETTERS).map(([key, words]) => (
          <Line key={key} of={key} words={words} />
        ))}
      </Keys>
      <Actions>
        <Button onPress={() => setLetters(!letters)}>{letters ? 'Switch single letters off' : 'Switch single letters on'}</Button>
        <Button $wanted onPress={onClose}>
          Close
        </Button>
      </Actions>
    </Dialog>
  )
}

const Line = ({ of, words }: { of: string; words: string }) => (
  <>
    <dt>{of}</dt>
    <dd>{words}</dd>
  </>
)
