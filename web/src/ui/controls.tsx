/** Buttons, titles and rails: React Aria's behaviour, our looks. */
import type { ReactNode } from 'react'
import * as Aria from 'react-aria-components'
import styled, { css } from 'styled-components'
import { phone, sign } from './theme'

export const Button = styled(Aria.Button)<{ $wanted?: boolean; $small?: boolean }>`
  user-select: none;
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: 6px;
  white-space: nowrap;
  min-height: ${(p) => (p.$small ? 32 : 44)}px;
  padding: 0 ${(p) => (p.$small ? 10 : 16)}px;
  border: 1.5px solid var(--edge);
  border-radius: 3px;
  background: var(--tag);
  color: var(--ink);
  font-weight: 600;
  font-stretch: var(--width-text);
  font-size: ${(p) => (p.$small ? 13 : 14)}px;
  cursor: pointer;
  &[data-hovered] {
    border-color: var(--ink);
  }
  &[data-pressed] {
    background: var(--hollow);
  }
  &[data-disabled] {
    background: var(--hollow);
    color: var(--ink3);
    cursor: default;
  }
  ${(p) =>
    p.$wanted &&
    css`
      background: var(--ink);
      border-color: var(--ink);
      color: var(--tag);
      &[data-pressed] {
        background: var(--ink2);
      }
    `}
  ${phone} {
    min-height: 48px;
  }
`

export const IconButton = styled(Aria.Button)`
  width: 40px;
  height: 40px;
  display: grid;
  place-items: center;
  border-radius: 3px;
  cursor: pointer;
  &[data-hovered] {
    background: var(--hollow);
  }
  &[data-disabled] {
    color: var(--edge);
    cursor: default;
  }
  ${phone} {
    width: 48px;
    height: 48px;
  }
`

export const Section = styled.h2`
  font-family: ${sign};
  font-stretch: var(--width-sign);
  font-weight: 750;
  font-size: var(--size-lead);
  line-height: 20px;
  letter-spacing: -0.01em;
`

export const Title = styled.h1`
  font-family: ${sign};
  font-stretch: var(--width-sign);
  font-weight: 780;
  font-size: var(--size-figure);
  line-height: 28px;
  letter-spacing: -0.01em;
`

export const Muted = styled.p`
  font-size: var(--size-note);
  line-height: 17px;
  font-stretch: var(--width-narrow);
  color: var(--ink2);
`

export const RailLine = styled.div`
  display: flex;
  align-items: center;
  gap: 7px;
  border-top: 3px solid var(--ink);
  padding-top: 4px;
  font-size: var(--size-note);
  font-weight: 650;
  font-stretch: var(--width-text);
  > em {
    margin-left: auto;
    font-style: normal;
    font-weight: 500;
    color: var(--ink2);
  }
`

export const Actions = styled.div`
  display: flex;
  gap: 8px;
  justify-content: flex-end;
  flex-wrap: wrap;
`
export const Row = styled.div<{ $min?: number }>`
  display: grid;
  gap: 10px;
  grid-template-columns: repeat(auto-fit, minmax(${(p) => p.$min ?? 130}px, 1fr));
  align-items: end;
`

/** Opens the file chooser. */
export function FileButton({
  accept,
  onFile,
  onFiles,
  children,
  wanted,
  small,
}: {
  accept: string[]
  onFile?: (file: File) => void
  onFiles?: (files: File[]) => void
  children: ReactNode
  wanted?: boolean
  small?: boolean
}) {
  return (
    <Aria.FileTrigger
      acceptedFileTypes={accept}
      allowsMultiple={onFiles !== undefined}
      onSelect={(files) => {
        if (!files?.[0]) return
        onFile?.(files[0])
        onFiles?.([...files])
      }}
    >
      <Button $wanted={wanted} $small={small}>
        {children}
      </Button>
    </Aria.FileTrigger>
  )
}
