import { describe, expect, it } from 'vitest'
import document from '../../../docs/openapi.json?raw'
import { lasts } from './lasting'

const PATHS = Object.entries((JSON.parse(document) as { paths: Record<string, object> }).paths)
  .filter(([, methods]) => 'get' in methods)
  .map(([path]) => path.replaceAll(/\{[^}]+\}/g, 'x1'))

describe('what the device keeps', () => {
  it('is what a rider looks at under way, and nothing that is worked out on asking or live', () => {
    const kept = PATHS.filter(lasts)
    expect(kept).toContain('/api/tours/x1')
    expect(kept).toContain('/api/tours/x1/diary/course')
    expect(kept).toHaveLength(17)
    const asked = ['mends', 'ranking', 'rigs', 'ladder', 'loads', 'places', 'outlook/x1', 'things/x1/price', 'assumptions/x1', 'kit/unknown']
    for (const path of asked) {
      expect(PATHS).toContain(`/api/tours/x1/${path}`)
      expect(lasts(`/api/tours/x1/${path}`)).toBe(false)
    }
    for (const path of ['/api/session', '/api/scale/readings', '/healthz', '/metrics', '/api/tours/x1/kit.csv']) expect(lasts(path)).toBe(false)
  })
})
