/** A dialog over the page, which asks before what was typed in it is lost. */
import { createContext, type KeyboardEvent, type ReactNode, useState } from 'react'
import * as Aria from 'react-aria-components'
import styled from 'styled-components'
import { Button, Title } from './controls'

const Overlay = styled(Aria.ModalOverlay)`
  position: fixed;
  inset: 0;
  z-index: 50;
  display: grid;
  place-items: center;
  padding: 16px;
  background: color-mix(in srgb, var(--land) 55%, transparent);
`
const Sheet = styled(Aria.Modal)<{ $wide?: boolean }>`
  width: min(${(p) => (p.$wide ? 860 : 520)}px, 100%);
  max-height: calc(100dvh - 32px);
  overflow: auto;
  background: var(--sky);
  border: 2px solid var(--ink);
  border-radius: 3px;
  padding: 20px;
  /* A wide one grows and shrinks while it is used: what is pressed stays where it is. */
  ${(p) => p.$wide && 'align-self: start; margin-top: min(32px, 3dvh);'}
  [role='dialog'] {
    outline: none;
    display: flex;
    flex-direction: column;
    gap: 12px;
  }
`

const Asking = styled.p`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  border: 2px solid var(--ink);
  padding: 8px 10px;
`

/** The first field of a dialog takes the focus; a finger would get a keyboard it did not ask for. */
export function focusFirstField(dialog: HTMLElement | null) {
  if (window.matchMedia('(pointer: coarse)').matches) return
  dialog?.querySelector<HTMLElement>('input:not([type=hidden], [type=file]), textarea, button[aria-haspopup=listbox]')?.focus()
}

/** Tells the dialog around a control that something was changed in it: not every control lets the page see that. */
export const Changed = createContext(() => {})

/** A dialog over the page. Escape closes it wherever the focus is, and asks first where something was typed or chosen in it. */
export function Dialog({
  title,
  open,
  onClose,
  children,
  wide,
  draft = false,
}: {
  title: string
  open: boolean
  onClose: () => void
  children: ReactNode
  wide?: boolean
  /** What is changed in it is kept only when its button says so; else it is kept at once, and closing asks nothing. */
  draft?: boolean
}) {
  const [changed, setChanged] = useState(false)
  const [asking, setAsking] = useState(false)
  const leave = () => {
    if (draft && changed && !asking) setAsking(true)
    else {
      setChanged(false)
      setAsking(false)
      onClose()
    }
  }
  const escape = (e: KeyboardEvent) => {
    // What is open above the dialog, a list or a menu, closes by itself.
    const target = e.target as HTMLElement
    if (e.key !== 'Escape' || !e.currentTarget.contains(target) || target.getAttribute('aria-expanded') === 'true') return
    e.preventDefault()
    e.stopPropagation()
    leave()
  }
  return (
    <Overlay isOpen={open} onOpenChange={(next) => !next && leave()} isDismissable>
      <Sheet $wide={wide}>
        <div role="presentation" onKeyDownCapture={escape} onInputCapture={() => setChanged(true)}>
          <Aria.Dialog ref={focusFirstField}>
            {asking && (
              <Asking role="alert">
                What was changed here is not kept yet.
                <Button $small onPress={() => setAsking(false)}>
                  Go on
                </Button>
                <Button $small onPress={leave}>
                  Close without keeping it
                </Button>
              </Asking>
            )}
            <Title as={Aria.Heading} slot="title">
              {title}
            </Title>
            <Changed value={() => setChanged(true)}>{children}</Changed>
          </Aria.Dialog>
        </div>
      </Sheet>
    </Overlay>
  )
}
