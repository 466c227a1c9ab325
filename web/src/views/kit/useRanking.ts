import { api } from '../../api/client'
import { useWorkedOut } from '../../api/workedOut'

/** The whole kit by its price on this tour, worked out once for each state of the tour, and only where it is shown. */
export const useRanking = (wanted = true) => useWorkedOut('ranking', api.ranking, { wanted, meanwhile: true })
