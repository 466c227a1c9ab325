import styled from 'styled-components'
import { phone } from './theme'

/** A plain table with a head that stays. */
export const Sheet = styled.table`
  width: 100%;
  font-size: var(--size-small);
  font-stretch: var(--width-text);
  th {
    position: sticky;
    top: 0;
    background: var(--sky);
    text-align: left;
    font-size: var(--size-note);
    font-weight: 650;
    font-stretch: var(--width-narrow);
    padding: 3px 5px;
    border-bottom: 2px solid var(--ink);
    z-index: 1;
  }
  td {
    padding: 2px 5px;
    border-bottom: 1px solid var(--hair);
    height: 34px;
  }
  th.n,
  td.n {
    text-align: right;
    white-space: nowrap;
  }
  tr[aria-current='true'] td {
    border-bottom: 2px solid var(--ink);
    font-weight: 650;
  }
  td button.plain {
    text-decoration: underline;
    text-underline-offset: 3px;
    text-decoration-color: var(--edge);
  }
  th.wide {
    width: 34%;
  }
  th.choice {
    width: 88px;
  }
  select,
  input {
    min-height: 30px;
    ${phone} {
      min-height: 44px;
    }
    border: 1.5px solid var(--edge);
    border-radius: 3px;
    background: var(--tag);
    padding: 0 4px;
    font-size: var(--size-small);
    font-stretch: var(--width-narrow);
    width: 100%;
  }
`
