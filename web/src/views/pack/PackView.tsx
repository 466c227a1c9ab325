/** The last days at home: pack by the cards, weigh, check, and see how it travels. */
import { useSearchParams } from 'react-router'
import styled from 'styled-components'
import { Tabs } from '../../ui/Tabs'
import { phone } from '../../ui/theme'
import { Checks } from './Checks'
import { PackCards } from './PackCards'
import { RiderPages } from './RiderPages'
import { TravelPages } from './TravelPages'
import { WeighIn } from './WeighIn'

const Frame = styled.div`
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
  [role='tablist'] {
    padding: 0 20px;
  }
  [role='tabpanel'] {
    padding: 0;
  }
  ${phone} {
    overflow-y: auto;
    [role='tablist'] {
      padding: 0 14px;
    }
  }
  @media print {
    display: block;
    [role='tablist'] {
      display: none;
    }
  }
`

export function PackView() {
  const [search, setSearch] = useSearchParams()
  return (
    <Frame>
      <Tabs
        label="Pack"
        selected={search.get('sheet') ?? 'cards'}
        onChange={(sheet) => setSearch({ sheet }, { replace: true })}
        tabs={[
          { id: 'cards', name: 'Cards', content: <PackCards /> },
          { id: 'weigh', name: 'Weigh-in', content: <WeighIn /> },
          { id: 'checks', name: 'Checks', content: <Checks /> },
          { id: 'travel', name: 'Travel', content: <TravelPages /> },
          { id: 'riders', name: 'One page a rider', content: <RiderPages /> },
        ]}
      />
    </Frame>
  )
}
