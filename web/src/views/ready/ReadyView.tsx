/** Questions of this tour and their answers, drawn over its days; what is found wrong opens in place, with what helps. */
import { useMemo, useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import styled from 'styled-components'
import type { Finding, Question } from '../../api/client'
import { useDesk, useShown } from '../../api/tour'
import { InPlays } from '../../instruments/InPlays'
import { Mends } from '../../instruments/Mends'
import { useFocus, useGoToKm } from '../../instruments/moment'
import { Ribbon } from '../../instruments/Ribbon'
import { ribbonScale, type Scale } from '../../instruments/ribbonScale'
import { SetAside } from '../../instruments/SetAside'
import { useSize } from '../../instruments/useSize'
import { Boundary } from '../../ui/Boundary'
import { Button, Muted } from '../../ui/controls'
import { GRADE_WORDS, Icon, Wedge } from '../../ui/icons'
import { useUnits } from '../../ui/preferences'
import { phone, sign } from '../../ui/theme'
import { useNarrow } from '../../ui/usePhone'
import { Arrivals } from './Arrivals'
import { Asks } from './Asks'
import { Clothes } from './Clothes'
import { FindingMarks } from './FindingMarks'
import { Hazards } from './Hazards'
import { Layers } from './Layers'
import { Nights } from './Nights'
import { Parcels } from './Parcels'
import { QuestionRow } from './parts'
import { Rehearsed } from './Rehearsed'
import { Repairs } from './Repairs'

const Head = styled.header`
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 6px 20px;
  border-bottom: 3px solid var(--ink);
  flex: none;
  h2 {
    font-family: ${sign};
    font-stretch: var(--width-sign);
    font-weight: 780;
    font-size: var(--size-head);
  }
  .grow {
    flex: 1;
  }
  ${phone} {
    flex-wrap: wrap;
    gap: 0 14px;
    padding: 6px 14px;
  }
`
const Rows = styled.div`
  flex: 1;
  min-height: 0;
  overflow-y: auto;
  scrollbar-width: thin;
  @media print {
    overflow: visible;
  }
`
/** Two ways to look: what the plan answers, and how often it goes wrong. */
const Ways = styled.nav`
  display: flex;
  gap: 14px;
  a {
    display: grid;
    place-items: center;
    min-height: 36px;
    color: var(--ink2);
    font-weight: 600;
    text-decoration: none;
  }
  a[aria-current] {
    color: var(--ink);
    font-weight: 720;
    box-shadow: inset 0 -4px 0 var(--ink);
  }
  ${phone} {
    a {
      min-height: 48px;
    }
  }
`
/** On paper each question is a list to leave by, with boxes to tick. */
const OnPaper = styled.ul`
  display: none;
  @media print {
    display: block;
    padding: 2px 0 6px;
    font-size: var(--size-small);
    line-height: 17px;
    li::before {
      content: '☐ ';
    }
  }
`
const Found = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(280px, 1fr));
  gap: 0 24px;
  padding: 2px 20px 12px 0;
  article {
    border-top: 1px solid var(--hair);
    padding: 5px 0;
  }
  article > button {
    display: grid;
    grid-template-columns: 22px 1fr;
    gap: 6px;
    width: 100%;
    align-items: start;
  }
  b {
    font-weight: 640;
    font-size: var(--size-small);
    line-height: 17px;
  }
  small {
    display: block;
    font-size: var(--size-note);
    color: var(--ink2);
    line-height: 15px;
  }
  p {
    font-size: var(--size-note);
    line-height: 16px;
    color: var(--ink2);
    padding: 2px 0 2px 28px;
  }
  ul {
    padding-left: 28px;
  }
`
/** What is worst, in words, while a question is closed. */
const First = styled.p`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 12px;
  font-size: var(--size-note);
  line-height: 15px;
  color: var(--ink2);
  padding-bottom: 3px;
  .state {
    color: var(--ink);
    font-weight: 640;
  }
`
const NOTHING = { words: '', figures: {}, names: {} }
const GUTTER = 0

/** What is opened is shown from its head on. */
const intoView = (row: HTMLElement | null) => row?.scrollIntoView({ block: 'nearest' })

export function ReadyView() {
  const { assessment, sheet } = useDesk()
  const units = useUnits()
  const [open, setOpen] = useState<string | null>(null)
  const [box, { width }] = useSize<HTMLDivElement>()
  const small = useNarrow()
  const rehearsed = useSearchParams()[0].has('rehearsed')
  // The same days at the same places as on the ribbon below.
  const wide = Math.max(width - (small ? 28 : 190), 0)
  const scale = useMemo(() => ribbonScale(assessment.days, GUTTER, wide), [assessment.days, wide])
  const live = assessment.findings.filter((f) => f.aside === null)
  const of = (question: Question) => live.filter((f) => question.kinds.includes(f.kind))
  const state = (question: Question) => (question.open ? 'open' : of(question).some((f) => f.grade !== 'worth_knowing') ? 'short' : 'answered')
  const count = (wanted: string) => assessment.questions.filter((q) => state(q) === wanted).length
  const words = [
    `${count('answered')} answered`,
    count('short') > 0 && `${count('short')} short`,
    count('open') > 0 && `${count('open')} open`,
  ].filter(Boolean)
  return (
    <>
      <Head>
        <h2>Ready</h2>
        <Ways aria-label="Ready">
          <Link to="." relative="path" aria-current={rehearsed ? undefined : 'page'}>
            Asked
          </Link>
          <Link to="?rehearsed" aria-current={rehearsed ? 'page' : undefined}>
            Rehearsed
          </Link>
        </Ways>
        {!rehearsed && <span>{words.join(', ')}</span>}
        <span className="grow" />
        <Button $small className="no-print" onPress={() => window.print()}>
          <Icon name="print" size={16} />
          {rehearsed ? 'Print it' : 'Print the list'}
        </Button>
      </Head>
      <Rows ref={box}>
        {rehearsed && <Rehearsed scale={scale} width={wide} />}
        {!rehearsed &&
          assessment.questions.map((question) => (
            <QuestionRow key={question.id} aria-label={question.words} ref={open === question.id ? intoView : undefined}>
              <button type="button" aria-expanded={open === question.id} onClick={() => setOpen(open === question.id ? null : question.id)}>
                <h3>{question.words}</h3>
              </button>
              <div>
                {wide > 100 && assessment.days.length > 0 && <Drawing question={question} scale={scale} width={wide} open={open === question.id} />}
                <First>
                  <State state={state(question)} findings={of(question)} />
                  {open !== question.id && of(question)[0] && <span className="no-print">{units.say(of(question)[0]?.sentence ?? NOTHING)}</span>}
                </First>
                <OnPaper aria-hidden="true">
                  {of(question).map((f) => (
                    <li key={f.id}>
                      {units.say(f.sentence)} {units.say(f.place)}
                    </li>
                  ))}
                </OnPaper>
                {open === question.id && <Answers question={question} findings={of(question)} />}
                {open === question.id && <Asks asks={assessment.asks.filter((a) => a.question === question.id)} />}
                {open === question.id && question.id === 'spared' && <Parcels />}
              </div>
            </QuestionRow>
          ))}
        <Muted style={{ padding: '8px 20px 14px' }}>
          {sheet.set_aside.length > 0 && `${sheet.set_aside.length} set aside under Load. `}
          Labels of bags and mats are makers’ figures, never the extreme one. Who feels ill, cold or worn out stops; doctors, makers and the law
          decide.
        </Muted>
      </Rows>
      <div className="no-print">
        <Boundary what="The ribbon" on={assessment}>
          <Ribbon height={150} skylineHeight={34} lane="land" />
        </Boundary>
      </div>
    </>
  )
}

function State({ state, findings }: { state: 'open' | 'short' | 'answered'; findings: Finding[] }) {
  const worst = findings.find((f) => f.grade === 'stops_you') ?? findings.find((f) => f.grade === 'slows_you')
  const beside = findings.length - findings.filter((f) => f.grade !== 'worth_knowing').length
  return (
    <span className="state">
      {worst ? <Wedge grade={worst.grade} size={15} /> : <span aria-hidden="true">{state === 'open' ? '☐' : '☑'}</span>}
      {state === 'short' ? `${findings.length - beside} short` : state}
      {beside > 0 && `, ${beside} to know`}
    </span>
  )
}

/** The tour as it would be with what is being tried; the answers below stay those of the tour as it is. */
function Drawing({ question, scale, width, open }: { question: Question; scale: Scale; width: number; open: boolean }) {
  const { assessment, sheet } = useShown()
  const findings = assessment.findings.filter((f) => f.aside === null && question.kinds.includes(f.kind))
  if (question.id === 'warm') return <Nights scale={scale} width={width} open={open} />
  if (question.id === 'clean') return <Clothes scale={scale} width={width} open={open} />
  if (question.id === 'dressed') return <Layers scale={scale} width={width} open={open} />
  if (question.id === 'mended') return <Repairs width={width} open={open} />
  if (question.id === 'seen') return <Arrivals scale={scale} width={width} open={open} />
  if (question.id === 'safe' && sheet.road.hazards.length) return <Hazards scale={scale} width={width} open={open} />
  return <FindingMarks findings={findings} scale={scale} width={width} />
}

function Answers({ question, findings }: { question: Question; findings: Finding[] }) {
  const units = useUnits()
  const goToKm = useGoToKm()
  const { setBike } = useFocus()
  const [chosen, choose] = useState<string | null>(null)
  if (question.open) return <Muted style={{ padding: '4px 20px 12px 0' }}>{question.unsaid}</Muted>
  if (!findings.length)
    return (
      <Muted style={{ padding: '4px 20px 12px 0' }}>
        Nothing found. {question.kinds.map((k) => k.replaceAll('_', ' ')).join(', ')}: all looked at.
      </Muted>
    )
  const open = findings.some((f) => f.id === chosen) ? chosen : (findings[0]?.id ?? null)
  return (
    <Found>
      {findings.map((finding) => (
        <article key={finding.id}>
          <button
            type="button"
            aria-expanded={finding.id === open}
            onClick={() => {
              choose(finding.id)
              if (finding.bike_id) setBike(finding.bike_id)
              if (finding.at_km !== null) goToKm(finding.at_km)
            }}
          >
            <Wedge grade={finding.grade} size={20} />
            <span>
              <b>{units.say(finding.sentence)}</b>
              <small>
                {GRADE_WORDS[finding.grade]}, {units.say(finding.place)}
              </small>
            </span>
          </button>
          {finding.id === open && (
            <>
              <p>{units.say(finding.reason)}</p>
              <InPlays finding={finding} />
              <Mends finding={finding} />
              <SetAside finding={finding} />
            </>
          )}
        </article>
      ))}
    </Found>
  )
}
