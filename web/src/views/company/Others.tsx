/** Who else looks at the tour just now, and at which view of it; and that who reads along changes nothing. */
import styled from 'styled-components'
import { useCompany } from '../../api/company'
import { useDesk } from '../../api/tour'
import { phone } from '../../ui/theme'
import { useOthersHere } from './useOthersHere'

const Strip = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 2px 18px;
  padding: 3px 20px;
  border-bottom: 1px solid var(--hair);
  font-size: var(--size-note);
  font-stretch: var(--width-narrow);
  color: var(--ink2);
  ${phone} {
    padding: 3px 8px;
  }
`

export function Others({ views }: { views: { path: string; name: string }[] }) {
  const { sheet } = useDesk()
  const { told, alone } = useCompany()
  const { others, over } = useOthersHere()
  if (alone || !told) return null
  const reads = told.right === 'reads'
  if (!reads && !over && others.length === 0) return null
  return (
    <Strip aria-label="Riding together" className="no-print">
      {over && (
        <li>
          <b>You are no companion of this tour any more</b>, or it is gone: what stands here is how it was, and nothing is kept.
        </li>
      )}
      {reads && !over && <li>You read along: riders of this tour change it.</li>}
      {(over ? [] : others).map((other) => {
        const name = sheet.riders.find((rider) => rider.id === other.is_rider)?.name ?? other.known_as
        const view = views.find((one) => one.path === other.view)?.name
        return (
          <li key={other.known_as}>
            <b>{name}</b> is here{view && `, at ${view}`}
          </li>
        )
      })}
    </Strip>
  )
}
