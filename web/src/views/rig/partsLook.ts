/** How the lines of a bike's parts look: a table, and a list on a phone. */
import styled from 'styled-components'
import { phone } from '../../ui/theme'

export const Lines = styled.table`
  width: 100%;
  border-collapse: collapse;
  font-size: var(--size-small);
  font-stretch: var(--width-text);
  th {
    text-align: left;
    vertical-align: bottom;
    font-size: var(--size-note);
    border-bottom: 2px solid var(--ink);
    padding: 3px 10px 3px 0;
  }
  td {
    border-bottom: 1px solid var(--hair);
    padding: 4px 10px 4px 0;
    vertical-align: middle;
  }
  tbody th {
    font-size: var(--size-small);
    font-weight: 640;
    vertical-align: middle;
    border-bottom: 1px solid var(--hair);
  }
  .figure {
    text-align: right;
    white-space: nowrap;
    font-variant-numeric: tabular-nums;
  }
  .whole {
    white-space: nowrap;
  }
  .beside {
    display: flex;
    align-items: center;
    gap: 8px;
    > div {
      width: 84px;
    }
    small {
      width: 44px;
    }
  }
  ${phone} {
    &.parts thead {
      display: none;
    }
    &.parts tr {
      display: grid;
      grid-template-columns: 1fr 1fr;
      border-bottom: 1px solid var(--hair);
      padding: 6px 0;
    }
    &.parts :is(th, td) {
      border: none;
    }
    &.parts :is(th, td:nth-child(n + 4)) {
      grid-column: 1 / -1;
    }
    &.parts td[data-label]::before {
      content: attr(data-label);
      display: block;
      font-size: var(--size-note);
      color: var(--ink2);
    }
  }
  small {
    display: block;
    font-weight: 500;
    color: var(--ink2);
    font-size: var(--size-note);
  }
`
export const Scroll = styled.div`
  overflow-x: auto;
`
