/** What could be otherwise on a bike, each with what speaks for and against it and its price on this road. */
import { useState } from 'react'
import { api, type Bike, type OtherBike } from '../../api/client'
import { useWorkedOut } from '../../api/workedOut'
import { Button, Muted, Section } from '../../ui/controls'
import { useUnits } from '../../ui/preferences'
import { Lines, Scroll } from './partsLook'

const ABOUT: Record<OtherBike['about'], string> = { tyres: 'Tyres', posture: 'Wind and posture', contact: 'Hands, seat and feet' }

export function OtherBikes({ bike, onChange }: { bike: Bike; onChange: (what: string, bike: Bike) => void }) {
  const [wanted, setWanted] = useState(false)
  const units = useUnits()
  const { data, error } = useWorkedOut('choices', (id, signal) => api.choices(id, bike.id, signal), { about: [bike.id], wanted, meanwhile: true })
  if (!wanted)
    return (
      <>
        <Section>What could be otherwise</Section>
        <Button onPress={() => setWanted(true)}>Ride this road on another setup</Button>
      </>
    )
  return (
    <>
      <Section>What could be otherwise</Section>
      {error && <p role="alert">{error.message}</p>}
      {!data && !error && <Muted role="status">Riding the road again …</Muted>}
      {data && (
        <Scroll tabIndex={0} role="region" aria-label="What could be otherwise">
          <Lines>
            {(Object.keys(ABOUT) as OtherBike['about'][]).map((about) => (
              <tbody key={about}>
                <tr>
                  <th scope="rowgroup">{ABOUT[about]}</th>
                  <td className="figure">minutes a day</td>
                  <td className="figure">more mass</td>
                  <td />
                </tr>
                {data.choices
                  .filter((c) => c.about === about)
                  .map((c) => (
                    <tr key={c.id}>
                      <td>
                        {units.say(c.words)}
                        <small>
                          For: {c.speaks_for}. Against: {c.against}.
                        </small>
                      </td>
                      <td className="figure">
                        {c.minutes_a_day === null ? 'no road yet' : signed(c.minutes_a_day, Math.abs(c.minutes_a_day).toFixed(1))}
                      </td>
                      <td className="figure">{signed(c.kg, units.show(Math.abs(c.kg), 'mass', 2))}</td>
                      <td>
                        {c.bike && (
                          <Button $small onPress={() => c.bike && onChange(`${units.say(c.words)} on ${bike.name}`, c.bike)}>
                            Take it
                          </Button>
                        )}
                      </td>
                    </tr>
                  ))}
              </tbody>
            ))}
          </Lines>
        </Scroll>
      )}
      <Muted>
        Of the whole party, on the same days; where another rider is the slower one it costs nothing. Masses and effects are common practice.
      </Muted>
    </>
  )
}

const signed = (v: number, words: string) => (/[1-9]/.test(words) ? `${v > 0 ? '+' : '−'}${words}` : words)
