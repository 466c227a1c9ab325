/** One page a rider: where the companion finds what is wanted in a hurry; and the straps, counted. */
import styled from 'styled-components'
import { useDesk } from '../../api/tour'
import { Button, Muted, RailLine, Section } from '../../ui/controls'
import { Icon } from '../../ui/icons'
import { phone } from '../../ui/theme'
import { usePackPage } from './usePackPage'

const Pages = styled.div`
  padding: 12px 20px 24px;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(340px, 1fr));
  gap: 24px;
  ${phone} {
    padding: 10px 14px;
    grid-template-columns: 1fr;
  }
  table {
    width: 100%;
  }
  td {
    padding: 5px 8px 5px 0;
    border-bottom: 1px solid var(--hair);
    vertical-align: top;
  }
  td:first-child {
    font-weight: 650;
    width: 32%;
  }
  section {
    break-inside: avoid;
  }
`

export function RiderPages() {
  const { data } = usePackPage()
  const { sheet } = useDesk()
  if (!data) return null
  return (
    <Pages>
      {data.riders.map((page) => (
        <section key={page.rider_id} aria-label={`Page of ${page.name}`}>
          <Section>Where {page.name} has it</Section>
          <Muted>For whoever rides along: fold it into a pocket of your own.</Muted>
          {page.lines.length === 0 && <Muted>Nothing of what is sought in a hurry is stowed on this bike.</Muted>}
          <table>
            <tbody>
              {page.lines.map((line, i) => (
                <tr key={`${line.carrier_id} ${line.thing} ${line.words}`}>
                  <td>{page.lines[i - 1]?.words === line.words ? '' : line.words}</td>
                  <td>{line.thing}</td>
                  <td>
                    <b>{line.bag}</b>
                    {[line.mark, line.step].filter(Boolean).map((told) => `, ${told}`)}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      ))}
      <section aria-label="Straps" className="no-print">
        <RailLine>
          <Icon name="pack" size={17} />
          Straps, counted
        </RailLine>
        {data.straps.map((s) => (
          <p key={s.bike_id} style={{ padding: '5px 0' }}>
            <b>{sheet.rig.bikes.find((b) => b.id === s.bike_id)?.name}</b>: {s.needed} needed, {s.spare} to spare.
            {s.hang.length > 0 && <Muted>One lost strap stops {s.hang.join(', ')}; a tie, a cord or a shoe lace may stand in for it.</Muted>}
          </p>
        ))}
        <Button onPress={() => window.print()}>
          <Icon name="print" size={16} />
          Print the pages
        </Button>
      </section>
    </Pages>
  )
}
