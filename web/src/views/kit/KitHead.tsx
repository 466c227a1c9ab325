/** The kit in sum, how it is arranged, and the ways in: by name, from the library, from a list, by hand. */
import * as Aria from 'react-aria-components'
import styled from 'styled-components'
import { useDesk } from '../../api/tour'
import { minutesWords } from '../../instruments/Tag'
import { Button, Muted, Section } from '../../ui/controls'
import { Icon } from '../../ui/icons'
import { useUnits } from '../../ui/preferences'
import { phone } from '../../ui/theme'
import { AddByName } from './AddByName'
import { type Arrangement, litresOf, massOf } from './groups'
import { Unknown } from './Unknown'

const Head = styled.div`
  display: flex;
  align-items: center;
  gap: 6px 12px;
  margin-bottom: 8px;
  flex-wrap: wrap;
  input {
    min-height: 32px;
    padding: 2px 8px;
    border: 1.5px solid var(--edge);
    border-radius: 3px;
    background: var(--tag);
    width: 180px;
  }
  .grow {
    flex: 1;
  }
  ${phone} {
    input {
      width: 100%;
      min-height: 44px;
    }
  }
`
const Arranged = styled(Aria.ToggleButtonGroup)`
  display: flex;
  gap: 14px;
  button {
    min-height: 32px;
    font-size: var(--size-text);
    font-weight: 600;
    font-stretch: var(--width-text);
    color: var(--ink2);
    cursor: pointer;
  }
  button[data-selected] {
    color: var(--ink);
    font-weight: 720;
    box-shadow: inset 0 -3px 0 var(--ink);
  }
  ${phone} {
    button {
      min-height: 44px;
    }
  }
`
interface Props {
  arranged: Arrangement
  onArrange: (arranged: Arrangement) => void
  query: string
  onFind: (query: string) => void
  library: boolean
  onLibrary: (open: boolean) => void
  onBring: () => void
  onAdd: () => void
}

export function KitHead({ arranged, onArrange, query, onFind, library, onLibrary, onBring, onAdd }: Props) {
  const { sheet, assessment } = useDesk()
  const units = useUnits()
  return (
    <>
      <Head>
        <Section>Kit</Section>
        <Muted as="span">
          {sheet.kit.length} kinds, {units.show(massOf(sheet.kit), 'mass')}, {units.show(litresOf(sheet.kit), 'volume', 0)}
          {minutesWords(assessment.road ? Object.values(assessment.minutes_a_day).reduce((s, m) => s + m, 0) : undefined)}
        </Muted>
        <Arranged
          aria-label="Arranged"
          selectedKeys={[arranged]}
          disallowEmptySelection
          onSelectionChange={(keys) => onArrange(([...keys][0] ?? 'moment') as Arrangement)}
        >
          <Aria.ToggleButton id="moment">By moment</Aria.ToggleButton>
          <Aria.ToggleButton id="price">By price</Aria.ToggleButton>
          <Aria.ToggleButton id="serves">By what it serves</Aria.ToggleButton>
          <Aria.ToggleButton id="kit">By kit</Aria.ToggleButton>
          <Aria.ToggleButton id="rider">By rider</Aria.ToggleButton>
          <Aria.ToggleButton id="table">As a table</Aria.ToggleButton>
        </Arranged>
        <span className="grow" />
        <Unknown />
      </Head>
      <Head>
        <AddByName />
        <input type="search" id="find" aria-label="Find a thing" placeholder="Find a thing" value={query} onChange={(e) => onFind(e.target.value)} />
        <span className="grow" />
        <Button $small aria-pressed={library} onPress={() => onLibrary(!library)}>
          {library ? 'Close the library' : 'Library'}
        </Button>
        <Button $small onPress={onBring}>
          Bring a list
        </Button>
        <Button $small $wanted onPress={onAdd}>
          <Icon name="plus" size={14} />
          Add a thing
        </Button>
      </Head>
    </>
  )
}
