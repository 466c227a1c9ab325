/** The frame of the pages before and beside the tours: one narrow column. */
import type { ReactNode } from 'react'
import styled from 'styled-components'
import { Title } from '../../ui/controls'
import { Mark } from '../../ui/icons'
import { Notice } from '../../ui/notices'
import { Brand } from '../TopBar'

const Column = styled.main`
  max-width: 460px;
  margin: 0 auto;
  padding: 20px 14px 60px;
  display: grid;
  gap: 12px;
  form {
    display: grid;
    gap: 10px;
  }
  h2 {
    margin-top: 18px;
    border-top: 3px solid var(--ink);
    padding-top: 8px;
  }
  ul {
    display: grid;
    gap: 8px;
  }
  li {
    display: flex;
    gap: 10px;
    align-items: center;
    justify-content: space-between;
  }
`

export function Door({ title, trouble, told, children }: { title: string; trouble: string; told: string; children: ReactNode }) {
  return (
    <>
      {trouble && <Notice urgent>{trouble}</Notice>}
      {told && <Notice>{told}</Notice>}
      <Column>
        <Brand to="/">
          <Mark /> omnifer
        </Brand>
        <Title>{title}</Title>
        {children}
      </Column>
    </>
  )
}
