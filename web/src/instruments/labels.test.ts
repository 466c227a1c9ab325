/** Labels stand beside what they name and never on each other. */
import { expect, it } from 'vitest'
import { beside, spread } from './labels'

it('labels of a row keep apart, stay inside and as near as they can', () => {
  expect(
    spread(
      [
        { at: 50, half: 20 },
        { at: 60, half: 20 },
      ],
      0,
      200,
    ),
  ).toEqual([50, 90])
  expect(
    spread(
      [
        { at: 190, half: 20 },
        { at: 195, half: 20 },
      ],
      0,
      200,
    ),
  ).toEqual([140, 180])
})

it('a plate stands over its bag, else under it, and nowhere where all is taken', () => {
  const frame = { x: 0, y: 0, w: 100, h: 200 }
  const size = { w: 30, h: 20 }
  const low = { x: 30, y: 100, w: 40, h: 40 }
  expect(beside([low], size, frame)).toEqual([{ x: 35, y: 78, ...size }])
  const high = { x: 30, y: 60, w: 40, h: 38 }
  expect(beside([low, high], size, frame)).toEqual([
    { x: 35, y: 142, ...size },
    { x: 35, y: 38, ...size },
  ])
  expect(beside([{ x: 0, y: 0, w: 100, h: 200 }], size, frame)).toEqual([null])
})
