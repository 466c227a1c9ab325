/** What the device keeps of the server's answers, to be read where there is no network: tours and what a rider looks at under way.
 * What is worked out on asking (mends, rankings, rigs beside each other, prices, outlooks) and live readings make no sense from memory. */
const OF_A_TOUR = ['aims', 'glance', 'diary', 'diary/course', 'diary/[^/]+/picture', 'pack', 'packed', 'weigh', 'debrief', 'stores/schedule']
const OF_ALL = ['catalogue', 'kinds', 'library', 'library/kits', 'library/[^/]+/picture', 'tours', 'tours/[^/]+']
const LASTING = new RegExp(`^/api/(${[...OF_ALL, ...OF_A_TOUR.map((path) => `tours/[^/]+/${path}`)].join('|')})$`)

/** Where they are kept. */
export const ANSWERS = 'answers'

export const lasts = (path: string) => LASTING.test(path)
