/** The colour or label by which a rider knows a bag: a dot where it is a colour, a small plate where it is words. */
import styled from 'styled-components'

/** Offered where one is chosen; any other words do as well. */
export const COLOURS: Record<string, string> = {
  red: '#C3231F',
  orange: '#E07000',
  yellow: '#F2C300',
  green: '#2E8B3D',
  blue: '#1E63B8',
  violet: '#7A3FA0',
  black: '#111111',
  white: '#FFFFFF',
}

const Dot = styled.i`
  display: inline-block;
  width: 11px;
  height: 11px;
  border-radius: 50%;
  border: 1.5px solid var(--ink);
  margin-right: 5px;
  vertical-align: -1px;
  print-color-adjust: exact;
`
const Plate = styled.i`
  display: inline-block;
  border: 1px solid var(--ink);
  border-radius: 2px;
  padding: 0 4px;
  margin-right: 5px;
  font-style: normal;
  font-size: var(--size-fine);
  line-height: 15px;
  font-weight: 650;
`

export const colourOf = (words: string): string | undefined => COLOURS[words.trim().toLowerCase()]

export function Swatch({ colour }: { colour: string }) {
  if (!colour) return null
  const found = colourOf(colour)
  return found ? <Dot style={{ background: found }} role="img" aria-label={colour} /> : <Plate>{colour}</Plate>
}
