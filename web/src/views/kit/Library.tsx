/** The rider's own things beside the tour's choice: found, taken along, changed once for all open tours; and what a kilogram less costs. */
import { useState } from 'react'
import styled from 'styled-components'
import { api, type Owned, Problem } from '../../api/client'
import { useWork } from '../../api/tour'
import { Button, Muted, Section } from '../../ui/controls'
import { narrow } from '../../ui/theme'
import { ComesAlong, Kits, Ladder, LeftAtHome } from './LibraryLists'
import { OwnedDialog } from './OwnedDialog'
import { useLibrary } from './useLibrary'

const Panel = styled.aside`
  border-left: 3px solid var(--ink);
  min-height: 0;
  overflow: auto;
  scrollbar-width: thin;
  padding: 10px 16px 20px;
  display: flex;
  flex-direction: column;
  gap: 8px;
  input[type='search'] {
    width: 100%;
    min-height: 34px;
    padding: 2px 8px;
    border: 1.5px solid var(--edge);
    border-radius: 3px;
    background: var(--tag);
  }
  header {
    display: flex;
    align-items: baseline;
    gap: 8px;
  }
  ${narrow} {
    border-left: 0;
    border-top: 3px solid var(--ink);
    overflow: visible;
  }
`
export function Library() {
  const library = useLibrary()
  const { data, error, told, tell, typed, find, put, loose, turned, first, setFirst } = library
  const { busy } = useWork()
  const [editing, setEditing] = useState<Owned | null>(null)
  const [removed, setRemoved] = useState<Owned | null>(null)
  return (
    <Panel aria-label="Library">
      <header>
        <Section as="h3">Library</Section>
        <Muted as="span">{data ? `${data.total} things of your own` : 'Looking …'}</Muted>
      </header>
      <input type="search" aria-label="Find in the library" placeholder="Find in the library" value={typed} onChange={(e) => find(e.target.value)} />
      {error && <Muted role="alert">{error instanceof Problem ? error.body.detail : 'The library does not answer.'}</Muted>}
      {told.map((words) => (
        <Muted key={words} role="status">
          {words}
        </Muted>
      ))}
      {removed && (
        <Button
          $small
          onPress={() => {
            void tell(api.restoreOwned(removed.id))
            setRemoved(null)
          }}
        >
          Fetch {removed.thing.name} back
        </Button>
      )}
      {data?.total === 0 && !typed.trim() && (
        <Muted>
          A thing that is kept here lives once: weigh it again and every open tour knows it, and the next tour begins with it. Tours that are over
          keep what they had.
        </Muted>
      )}
      {loose.length > 0 && (
        <Button $small isDisabled={busy !== ''} onPress={() => put(loose.map((t) => t.id))}>
          Keep the {loose.length} things of this tour here
        </Button>
      )}
      {data && data.total > 0 && (
        <>
          <LeftAtHome library={library} onOpen={setEditing} />
          <ComesAlong library={library} onOpen={setEditing} />
          {(turned.back || turned.on) && (
            <div style={{ display: 'flex', gap: 6 }}>
              <Button $small isDisabled={!turned.back} onPress={() => setFirst(Math.max(first - data.most, 0))}>
                Before
              </Button>
              <Button $small isDisabled={!turned.on} onPress={() => setFirst(first + data.most)}>
                More
              </Button>
            </div>
          )}
          <Kits library={library} />
        </>
      )}
      <Ladder />
      {editing && <OwnedDialog owned={editing} tell={tell} onClose={() => setEditing(null)} onRemoved={setRemoved} />}
    </Panel>
  )
}
