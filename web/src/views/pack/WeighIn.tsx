/** The weigh-in: what is put on the scale, its live reading, three readings and their median, and the parts against the scale. */
import styled from 'styled-components'
import { Muted } from '../../ui/controls'
import { narrow, phone } from '../../ui/theme'
import { OnTheScale } from './OnTheScale'
import { PartsAgainstScale } from './PartsAgainstScale'
import { useWeighIn } from './useWeighIn'
import { WeighList } from './WeighList'

const Grid = styled.div`
  display: grid;
  grid-template-columns: 270px minmax(0, 1fr) 320px;
  gap: 22px;
  padding: 10px 20px 24px;
  ${narrow} {
    grid-template-columns: 1fr;
  }
  ${phone} {
    padding: 10px 14px;
    > :nth-child(2) {
      order: -1;
    }
  }
`
export function WeighIn() {
  const weighIn = useWeighIn()
  const { bike, told } = weighIn
  if (!bike || !told) return <Muted style={{ padding: 20 }}>A bike and what rides on it come first: then each wheel and bag can be weighed.</Muted>
  const weighing = { ...weighIn, bike, told }
  return (
    <Grid>
      <WeighList weighing={weighing} />
      <OnTheScale weighing={weighing} />
      <PartsAgainstScale weighing={weighing} />
    </Grid>
  )
}
