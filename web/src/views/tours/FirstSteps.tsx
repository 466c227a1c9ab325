/** A tour that is not there yet: a flat dashed land and the four things to say, in any order. */
import type { ReactNode } from 'react'
import styled from 'styled-components'
import { Actions, Button, Muted } from '../../ui/controls'
import { Icon } from '../../ui/icons'
import { phone, sign } from '../../ui/theme'

const New = styled.section`
  padding: 12px 0;
  h2 {
    font-family: ${sign};
    font-stretch: var(--width-sign);
    font-weight: 760;
    font-size: var(--size-head);
  }
  .head {
    display: flex;
    align-items: flex-start;
    gap: 12px;
    flex-wrap: wrap;
  }
  .head > :first-child {
    flex: 1;
    min-width: 200px;
  }
`
const Steps = styled.ol`
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 16px;
  margin: 14px 0 10px;
  b {
    display: block;
    font-family: ${sign};
    font-stretch: var(--width-sign);
    font-size: var(--size-text);
    font-weight: 740;
  }
  svg {
    display: block;
    margin-bottom: 6px;
  }
  ${phone} {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
`
const Land = styled.p`
  border: 1.6px dashed var(--ink);
  padding: 8px 10px;
  font-size: var(--size-small);
  font-weight: 620;
  font-stretch: var(--width-text);
`
const STEPS: [string, string, ReactNode][] = [
  [
    'Where',
    'a track, or days as you think of them',
    <path key="w" d="M6 38C30 8 46 44 70 24S104 16 118 8M6 38a4 4 0 1 0 .1 0M118 8a4 4 0 1 0 .1 0" />,
  ],
  [
    'How long',
    'a date, and how much you ride a day',
    <path key="h" d="M6 40V20M24 40V20M42 40V20M60 40V20M78 40V20M96 40V20M114 40V20M4 42H118M60 36h18" />,
  ],
  [
    'On what',
    'a bike, its racks and bags',
    <path key="o" d="M24 20a12 12 0 1 0 .1 0M96 20a12 12 0 1 0 .1 0M24 32L40 12H80L60 32H24M40 12L60 32M80 12L96 32M76 6h12" />,
  ],
  ['With what', 'a list you have, or thing by thing', <path key="k" d="M10 4h88v10H10l-4-5zM10 18h70v10H10l-4-5zM10 32h80v10H10l-4-5z" />],
]

/** What somebody wrote to themselves after a tour. */
export interface ToSelf {
  words: string
  tour: string
}

export function FirstSteps({ onBegin, onSample, file, told }: { onBegin: () => void; onSample: () => void; file: ReactNode; told: ToSelf | null }) {
  return (
    <New aria-label="A new tour">
      {told && (
        <Land as="blockquote" style={{ margin: '0 0 12px' }}>
          You to yourself, after {told.tour}: {told.words}
        </Land>
      )}
      <div className="head">
        <div>
          <h2>A new tour</h2>
          <Muted>four things, in any order; each can be a guess first</Muted>
        </div>
        <Actions>
          {file}
          <Button $small onPress={onSample}>
            Open the sample again
          </Button>
          <Button $small $wanted onPress={onBegin}>
            <Icon name="plus" size={14} />
            Start a tour
          </Button>
        </Actions>
      </div>
      <Steps>
        {STEPS.map(([name, words, drawing], i) => (
          <li key={name}>
            <svg width={124} height={46} fill="none" stroke="var(--ink)" strokeWidth={1.8} strokeLinejoin="round" aria-hidden="true">
              {drawing}
            </svg>
            <b>
              {i + 1} {name}
            </b>
            <Muted as="span">{words}</Muted>
          </li>
        ))}
      </Steps>
      <Land>Say where you ride and how long, and the land takes shape.</Land>
    </New>
  )
}
