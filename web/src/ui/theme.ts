/** Colours, type and textures of the design language, in one place; components read them as CSS variables. */
import { createGlobalStyle } from 'styled-components'

const day = {
  sky: '#E1EBEA',
  tag: '#FCFEFD',
  hollow: '#CFDCDB',
  ink: '#0D2327',
  ink2: '#2F464A',
  ink3: '#465C60',
  edge: '#657B7E',
  hair: '#AFC0BF',
  land: '#11272B',
  onland: '#EEF5F3',
  onland2: '#B3C7C6',
  lwater: '#8CCBF6',
  landline: '#3F5C61',
  skyline: '#11272B',
  now: '#FFC400',
  onnow: '#0D2327',
  water: '#0A62A4',
  'water-t': '#BBD9EF',
  food: '#9E4E00',
  'food-t': '#F7D9B1',
  fuel: '#96205A',
  'fuel-t': '#F1C9DC',
  kit: '#465F62',
  'kit-t': '#A9BCBC',
  power: '#4E610A',
  'power-t': '#D6E2A0',
  tyre: '#0D2327',
  metal: '#5C7276',
}
const night: typeof day = {
  sky: '#0C1517',
  tag: '#1A292C',
  hollow: '#060C0E',
  ink: '#DCE7E4',
  ink2: '#B7C7C5',
  ink3: '#93A8A7',
  edge: '#72898B',
  hair: '#2E4145',
  land: '#030809',
  onland: '#D9E4E1',
  onland2: '#9FB3B3',
  lwater: '#74C0F4',
  landline: '#2E4346',
  skyline: '#7C9496',
  now: '#FFC400',
  onnow: '#0D2327',
  water: '#74C0F4',
  'water-t': '#143D59',
  food: '#F2B05C',
  'food-t': '#4B3110',
  fuel: '#F293BE',
  'fuel-t': '#4C1C36',
  kit: '#9FB5B5',
  'kit-t': '#3B5255',
  power: '#C6D95E',
  'power-t': '#3A430F',
  tyre: '#748B8D',
  metal: '#7F9698',
}

/** Sizes and widths of letters: six steps and three widths for everything that is read. */
const type = {
  'size-fine': '12px',
  'size-note': '12.5px',
  'size-small': '13.5px',
  'size-text': '14px',
  'size-lead': '15.5px',
  'size-head': '19px',
  'size-figure': '25px',
  'width-narrow': '84%',
  'width-text': '90%',
  'width-sign': '118%',
}

const variables = (tokens: Record<string, string>) =>
  Object.entries(tokens)
    .map(([name, value]) => `--${name}: ${value};`)
    .join('')

export const sign = "'Archivo Variable', Archivo, Arial, sans-serif"
export const phone = '@media (max-width: 700px)'
export const narrow = '@media (max-width: 1099px)'
export const low = '@media (max-height: 740px)'
/** At 200 % on a small screen, or a phone lying down. */
export const veryLow = '@media (max-height: 600px)'

export const GlobalStyle = createGlobalStyle`
  :root { ${variables(type)} ${variables(day)} color-scheme: light; }
  :root[data-theme='dark'] { ${variables(night)} color-scheme: dark; }
  * { box-sizing: border-box; margin: 0; }
  html, body, #root { height: 100%; }
  body {
    font-family: 'Encode Sans Variable', 'Encode Sans', Arial, sans-serif; font-stretch: var(--width-text); font-size: var(--size-text);
    line-height: 18px; color: var(--ink); background: var(--sky); font-variant-numeric: tabular-nums lining-nums;
    -webkit-font-smoothing: antialiased;
  }
  button, input, select, textarea { font: inherit; color: inherit; }
  button { background: none; border: 0; padding: 0; text-align: inherit; cursor: pointer; }
  h1, h2, h3 { font-size: inherit; font-weight: inherit; }
  ul, ol { list-style: none; padding: 0; }
  table { border-collapse: collapse; }
  :focus-visible, [data-focus-visible] { outline: 3px solid var(--ink); outline-offset: 2px; }
  svg text { font-family: 'Encode Sans Variable', Arial, sans-serif; fill: var(--ink); font-variant-numeric: tabular-nums; }
  .sign { font-family: ${sign}; font-stretch: var(--width-sign); letter-spacing: -0.01em; }
  .unseen { position: absolute; top: 0; left: 0; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); white-space: nowrap; }
  ${phone} {
    main button:not([data-carrier]), main summary, main select, header button, main h2 > a { min-height: 44px; }
    main summary { padding-top: 11px; }
    main h2 > a { display: inline-flex; align-items: center; }
  }
  @media print {
    :root { ${variables({ ...day, sky: '#ffffff' })} }
    .no-print { display: none !important; }
    body { background: #fff; }
    html, body, #root { height: auto; }
    .unseen { display: none; }
    [role='tabpanel'] { display: block !important; height: auto !important; overflow: visible !important; }
  }
  @media (forced-colors: active) { svg [fill^='var(--now'] { fill: Highlight; } }
`
