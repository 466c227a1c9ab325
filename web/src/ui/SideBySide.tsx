import styled from 'styled-components'

/** A table that compares a few things, a column each. */
export const SideBySide = styled.table`
  width: 100%; font-size: 13.5px; font-stretch: 90%; table-layout: fixed;
  th { text-align: left; vertical-align: bottom; padding: 4px 8px; border-bottom: 2px solid var(--ink); font-size: 14px; }
  th:first-child, td:first-child { width: 170px; color: var(--ink2); font-size: 12.5px; }
  td { padding: 4px 8px; border-bottom: 1px solid var(--hair); vertical-align: top; font-weight: 620; }
  td small { font-weight: 500; font-size: 12.5px; color: var(--ink2); display: block; }
  li { font-weight: 500; font-size: 12.5px; line-height: 16px; padding-bottom: 3px; }
`
