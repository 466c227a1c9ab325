/** All tours, each as its own small land, and the start of a new one. */
import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'
import { useSession } from '../../api/account'
import { api, type TourEntry } from '../../api/client'
import { useSize } from '../../instruments/useSize'
import { Dialog } from '../../ui/Dialog'
import { Actions, Button, FileButton, Muted, Section } from '../../ui/controls'
import { fullDate } from '../../ui/dates'
import { Field } from '../../ui/fields'
import { Fold } from '../../ui/Fold'
import { Icon, Mark, Textures } from '../../ui/icons'
import { Notice } from '../../ui/notices'
import { usePreferences } from '../../ui/preferences'
import { phone, sign } from '../../ui/theme'
import { FirstSteps, type ToSelf } from './FirstSteps'
import { NewTour } from './NewTour'
import { scaleFor } from './TourLand'
import { TourLine } from './TourLine'
import { useTours, words } from './useTours'

const Page = styled.div`
  padding: 0 20px 60px;
  ${phone} {
    padding: 0 14px 40px;
  }
`
const Head = styled.header`
  display: flex;
  align-items: center;
  gap: 10px;
  margin: 0 -20px;
  padding: 6px 20px;
  border-bottom: 2px solid var(--ink);
  font-family: ${sign};
  font-stretch: var(--width-sign);
  font-weight: 800;
  font-size: var(--size-head);
  .grow {
    flex: 1;
  }
  .account {
    font-size: var(--size-text);
    font-stretch: var(--width-narrow);
    color: inherit;
  }
  ${phone} {
    margin: 0 -14px;
    padding: 6px 14px;
  }
`
const Rule = styled.div`
  display: flex;
  align-items: baseline;
  gap: 6px 20px;
  flex-wrap: wrap;
  padding: 12px 0 6px;
  border-bottom: 3px solid var(--ink);
  h1 {
    font-family: ${sign};
    font-stretch: var(--width-sign);
    font-weight: 780;
    font-size: var(--size-head);
  }
`
const RIGHT = 274

export function Tours() {
  const all = useTours()
  const { tours, removed, glances, error, trouble, setTrouble, gone, setGone, restore, rename, begin } = all
  const { dark, toggleTheme } = usePreferences()
  const session = useSession()
  const [starting, setStarting] = useState(false)
  const [renaming, setRenaming] = useState<TourEntry | null>(null)
  const [list, { width }] = useSize<HTMLUListElement>()
  const known = glances.flatMap((g) => (g.data ? [g.data] : []))
  const scale = scaleFor(known, Math.max(width > 700 ? width - RIGHT - 4 : width - 4, 200))
  return (
    <>
      <Textures />
      {(trouble || error) && (
        <Notice urgent onClose={() => setTrouble('')}>
          {trouble || words(error)}
        </Notice>
      )}
      {gone && (
        <Notice onClose={() => setGone(null)} action={{ text: 'Undo', run: () => restore(gone) }}>
          {gone.name} is removed. For 30 days it can be fetched back.
        </Notice>
      )}
      <Page>
        <Head>
          <Mark size={26} />
          omnifer
          <span className="grow" />
          {session?.hosted && (
            <Link to="/account" className="account">
              Your account
            </Link>
          )}
          <Button $small onPress={toggleTheme} aria-label={dark ? 'Day colours' : 'Night colours'}>
            <Icon name={dark ? 'sun' : 'moon'} size={16} />
          </Button>
        </Head>
        <main>
          <Rule>
            <h1>Your tours</h1>
            <Muted as="span">
              {tours.length
                ? 'a day of riding is as wide in every tour, a kilogram as high, a thousand metres as tall'
                : 'Leaving this place, on this day, with this bike: can you carry what you need to the next place that has it?'}
            </Muted>
          </Rule>
          <ul ref={list}>
            {tours.map((tour, i) => {
              const glance = glances[i]
              return glance && <TourLine key={tour.id} {...{ tour, glance, scale, tours: all }} onRename={() => setRenaming(tour)} />
            })}
          </ul>
          <FirstSteps
            told={lastWords(tours, glances)}
            onBegin={() => setStarting(true)}
            onSample={() => begin(api.sample())}
            file={
              <FileButton small accept={['application/json', '.json']} onFile={(file) => begin(api.bringBundle(file))}>
                Bring a tour from a file
              </FileButton>
            }
          />
          {removed.length > 0 && (
            <Fold summary={`Removed lately: ${removed.length}`}>
              {removed.map((tour) => (
                <Actions key={tour.id} style={{ justifyContent: 'flex-start', alignItems: 'center', padding: '4px 0' }}>
                  <Section as="span">{tour.name}</Section>
                  <Muted as="span">from {fullDate(tour.start_date)}</Muted>
                  <Button $small onPress={() => restore(tour)}>
                    Fetch back
                  </Button>
                </Actions>
              ))}
            </Fold>
          )}
        </main>
      </Page>
      {starting && <NewTour onClose={() => setStarting(false)} />}
      {renaming && <Renaming tour={renaming} onClose={() => setRenaming(null)} onRename={(name) => rename(renaming, name)} />}
    </>
  )
}

/** Of the newest tour after which somebody wrote something to themselves. */
function lastWords(tours: TourEntry[], glances: ReturnType<typeof useTours>['glances']): ToSelf | null {
  const told = tours.flatMap((tour, i) => {
    const glance = glances[i]?.data
    return glance?.to_self ? [{ words: glance.to_self, tour: tour.name, date: glance.start_date }] : []
  })
  return told.sort((a, b) => b.date.localeCompare(a.date))[0] ?? null
}

function Renaming({ tour, onClose, onRename }: { tour: TourEntry; onClose: () => void; onRename: (name: string) => void }) {
  const [name, setName] = useState(tour.name)
  return (
    <Dialog draft title="Rename the tour" open onClose={onClose}>
      <Field label="Name of the tour" value={name} onChange={setName} />
      <Actions>
        <Button onPress={onClose}>Not now</Button>
        <Button
          $wanted
          isDisabled={!name.trim()}
          onPress={() => {
            onRename(name)
            onClose()
          }}
        >
          Keep
        </Button>
      </Actions>
    </Dialog>
  )
}
