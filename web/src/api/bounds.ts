/** Made by bin/documents from the nouns of the core: what a field can be. */
import type { components } from './schema'

export const BOUNDS = {
  Aims: {
    low: [0, 5],
    middle: [0, 5],
    reach: [0, 5],
    together: [0, 5],
    weather: [0, 5],
    carry: [0, 5],
    bags: [0, 5],
    sides: [0, 5],
    front: [0, 5],
    sway: [0, 5],
    riders: [0, 5],
    room: [0, 5],
    ease: [0, 5],
    changes: [0, 5],
    front_share_low: [0, 1],
    front_share_high: [0, 1],
  },
  Bank: {
    holds_wh: [0, 20000],
    takes_w: [0, 1000],
    charged: [0, 1],
  },
  BedLayer: {
    warms_k: [0, 15],
  },
  Bike: {
    mass_kg: [1, 200],
    mass_x_mm: [-10000, 10000],
    mass_y_mm: [-10000, 10000],
    maximum_system_kg: [0, 1000],
    front_wheel_limit_kg: [0, 1000],
    rear_wheel_limit_kg: [0, 1000],
    wheelbase_mm: [700, 2500],
    chainstay_mm: [300, 700],
    bottom_bracket_drop_mm: [-50, 150],
    bare_front_kg: [0, 1000],
    bead_seat_mm: [250, 700],
    tyre_width_mm: [18, 130],
    wheel_radius_mm: [150, 400],
    narrowest_mm: [20, 200],
    rim_depth_mm: [0, 100],
    speeds: [1, 14],
    seat_angle_deg: [60, 82],
    head_angle_deg: [60, 80],
    fork_rake_mm: [0, 120],
    stack_mm: [400, 800],
    frame_reach_mm: [250, 600],
    saddle_height_mm: [400, 1000],
    ridden_front_kg: [0, 1000],
    ridden_rear_kg: [0, 1000],
    bar_inner_width_mm: [200, 900],
    crank_mm: [130, 190],
    post_travel_mm: [0, 250],
    fork_travel_mm: [0, 250],
    fork_bolts: [0, 4],
    tyre_most_bar: [0, 12],
    tyre_least_bar: [0, 8],
    price: [0, 100000],
    front_share_low: [0, 1],
    front_share_high: [0, 1],
    drag_area_m2: [0, 2],
    rolling_resistance: [0, 0.1],
    low_chainring: [10, 70],
    low_cog: [9, 60],
    low_hub_ratio: [0, 4],
  },
  BikePart: {
    behind_km: [0, 100000],
    lasts_km: [100, 200000],
    renewed_km: [0, 50000],
  },
  Carrier: {
    mass_kg: [0, 1000],
    volume_l: [0, 1000],
    most_l: [0, 1000],
    limit_kg: [0, 1000],
    longest_mm: [0, 10000],
    thick_mm: [0, 10000],
    stand_off_mm: [0, 300],
    drag_area_m2: [0, 0.5],
    straps: [0, 12],
    price: [0, 100000],
  },
  Cells: {
    set_wh: [0, 20000],
  },
  Charger: {
    outputs: [1, 12],
    output_w: [0, 1000],
  },
  DayCut: {
    hours: [0, 20],
    distance_km: [1, 500],
    days: [1, 1000],
  },
  DayStart: {
    at_km: [0, 50000],
    hour: [0, 20],
  },
  Device: {
    wh_a_day: [0, 20000],
    wh_a_dark_hour: [0, 20000],
    saver_wh_a_day: [0, 20000],
    battery_wh: [0, 20000],
    charged: [0, 1],
  },
  Fit: {
    bead_seat_mm: [200, 700],
    valve_mm: [20, 120],
    speeds: [1, 14],
    stroke_ml: [5, 1000],
  },
  Food: {
    kcal_per_100g: [0, 900],
    l_per_kg: [0, 30],
    sold_l_per_kg: [0, 30],
    keeps_days: [1, 1000],
    keeps_hot_days: [1, 1000],
    pack_g: [0, 20000],
    price_per_kg: [0, 10000],
  },
  FoodShare: {
    tenths: [1, 10],
  },
  Found: {
    at_km: [0, 50000],
    amount: [0, 10000],
  },
  FrameTriangle: {
    seat_tube_mm: [200, 900],
    top_tube_mm: [200, 900],
    head_tube_mm: [50, 400],
    down_tube_mm: [300, 1000],
  },
  FuelVessel: {
    holds_kg: [0, 20],
    fill_price: [0, 100000],
  },
  Garment: {
    dries_h: [0, 100],
  },
  Hazard: {
    from_km: [0, 50000],
    to_km: [0, 50000],
  },
  Journey: {
    at_km: [0, 50000],
    departs_h: [0, 24],
    bike_most_kg: [0, 500],
    piece_most_kg: [0, 500],
    pieces: [0, 20],
    longest_mm: [0, 10000],
  },
  Mat: {
    r_value: [0, 12],
  },
  MonthNormals: {
    mean_max_c: [-60, 60],
    mean_min_c: [-60, 60],
    spread_max_c: [0, 20],
    spread_min_c: [0, 20],
    rain_days: [0, 31],
    humidity_pct: [0, 100],
    wind_ms: [0, 60],
  },
  Night: {
    at_km: [0, 50000],
    rest_days: [0, 30],
    from_km: [0, 50000],
  },
  OuterSize: {
    length_mm: [20, 2000],
    height_mm: [20, 2000],
    width_mm: [20, 2000],
  },
  Panel: {
    peak_w: [0, 1000],
  },
  Part: {
    first: [0, Infinity],
  },
  Placement: {
    count: [1, 200],
    filled_l: [0, 1000],
  },
  Rider: {
    body_mass_kg: [20, 250],
    all_day_power_w: [30, 400],
    height_cm: [100, 250],
    age_years: [5, 110],
  },
  Road: {
    odds: [0.01, 0.5],
    start_hour: [0, 20],
    pause_factor: [1, 4],
    narrowest_mm: [300, 3000],
    ascent_threshold_m: [0, 100],
  },
  Serving: {
    share: [0, 1],
  },
  SleepingBag: {
    comfort_c: [-40, 30],
  },
  Station: {
    at_km: [0, 50000],
    lat_deg: [-90, 90],
    lon_deg: [-180, 180],
    elevation_m: [-500, 9000],
    width_k: [0, 20],
  },
  Stop: {
    at_km: [0, 50000],
    detour_km: [0, 100],
    opens_h: [0, 24],
    closes_h: [0, 24],
    opens_again_h: [0, 24],
    closes_again_h: [0, 24],
    plug_outlets: [1, 50],
    plug_hours: [0, 240],
    people: [0, 5e+07],
  },
  StoreStep: {
    amount: [0, 10000],
  },
  Stores: {
    meal_price: [0, 100000],
    wash_every_days: [1, 60],
    minutes_per_money: [0, 10000],
    parcel_price: [0, 10000],
    post_days: [1, 90],
    holding_days: [1, 90],
  },
  Stove: {
    efficiency: [0, 1],
  },
  Support: {
    mass_kg: [0, 1000],
    limit_kg: [0, 1000],
    bolts: [0, 8],
    price: [0, 100000],
  },
  SurfaceStretch: {
    from_km: [0, 50000],
    to_km: [0, 50000],
  },
  Thing: {
    count: [1, 200],
    mass_kg: [0, 1000],
    volume_l: [0, 1000],
    pressed_l: [0, 1000],
    longest_mm: [0, 10000],
    thick_mm: [0, 10000],
    holds_water_l: [0, 1000],
    price: [0, 100000],
    unused_tours: [0, 50],
    year: [1950, 2200],
  },
  TrailerFrame: {
    hitch_to_axle_mm: [200, 4000],
    own_mass_ahead_of_axle_mm: [-10000, 10000],
    wheel_radius_mm: [0, 10000],
    bead_seat_mm: [200, 700],
    hitch_most_kg: [0, 1000],
    drag_area_m2: [0, 1],
  },
  Transfer: {
    from_km: [0, 50000],
    to_km: [0, 50000],
    hours: [0, 240],
  },
  Treatment: {
    minutes_per_l: [0, 60],
    wait_min: [0, 600],
    litres_a_piece: [0, 20],
  },
  TypedDay: {
    distance_km: [0, 500],
    ascent_m: [0, 10000],
    highest_m: [-500, 9000],
    lowest_m: [-500, 9000],
  },
  UsedUp: {
    holds: [0, 10000],
    content_kg: [0, 1000],
    rate: [0, 10000],
    waste: [0, 1],
  },
  Weather: {
    from_km: [0, 50000],
    day_high_c: [-60, 60],
    night_low_c: [-60, 60],
    humidity_pct: [0, 100],
    at_elevation_m: [-500, 9000],
  },
  Whereabouts: {
    from_km: [0, 50000],
    width_mm: [0, 10000],
    height_mm: [0, 10000],
  },
  ZoneStretch: {
    from_km: [0, 50000],
  },
} as const

/** Distances along the road that gestures ask for [km]. */
export const NEAR = {
  snap_to_stop_km: 1.5,
  same_place_km: 0.5,
  shortest_day_km: 1,
  same_start_km: 1,
} as const

/** Where it hurts, and what is changed against it. */
export const ACHES = ['hands', 'seat', 'feet', 'knees', 'neck', 'back'] as const

export const CHANGED = ['saddle', 'saddle height', 'bar', 'gloves', 'shorts', 'shoes', 'pedals'] as const

/** What bags of the rig are kept with in the library. */
export const BAGS_KIT = 'bags of the rig'

/** What a stove burns. */
export const FUEL_WORDS = {
  gas: 'gas canisters',
  petrol: 'petrol',
  alcohol: 'alcohol',
} as const

/** What files of a road are called. */
export const TRACK_FILES = ['.gpx', '.fit', '.tcx', '.kml', '.kmz', '.geojson', '.json']

/** What of a stop each part of it says. */
export const STOP_FIELDS = {
  water: ['water', 'treat_water', 'dry_months'],
  shop: ['shop', 'closed_weekdays', 'opens_h', 'closes_h', 'opens_again_h', 'closes_again_h', 'closed_dates'],
  services: ['services'],
  fuels: ['fuels'],
  bike_shop: ['bike_shop'],
  shelter: ['shelter'],
} as const

/** Whose the places are that ship. */
export const PLACES_OF = 'GeoNames'

/** What files of a map are called. */
export const MAP_FILES = ['.pbf', '.osm']

/** What files of heights are called. */
export const HEIGHT_FILES = ['.hgt', '.tif', '.tiff']

/** Standard deviations to each side that hold nine of ten. */
export const NINE_IN_TEN = 1.645

/** What of them is new and says nothing yet. */
export const BLANK: {
  Thing: components['schemas']['Thing-Output']
  Fit: components['schemas']['Fit-Output']
  Stop: components['schemas']['Stop-Output']
} = {
  Thing: {
    id: '',
    name: '',
    group: '',
    count: 1,
    mass_kg: 0,
    volume_l: 0,
    pressed_l: 0,
    longest_mm: 0,
    thick_mm: 0,
    reach: 'camp',
    dry: 'any',
    wet: false,
    natures: [],
    not_with: [],
    rider_id: null,
    holds_water_l: 0,
    soft_vessel: false,
    salts: false,
    fuel: false,
    food: false,
    guessed: [],
    may_stay: false,
    inside: null,
    bag: false,
    price: null,
    because: '',
    role: null,
    where: [],
    serves: [],
    fit: null,
    condition: 'trusted',
    held: 'owned',
    spare: false,
    must: false,
    unused_tours: 0,
    year: null,
    last_time: '',
    instead_of: null,
    library_id: null,
    hung: null,
    closed: false,
  },
  Fit: {
    bead_seat_mm: null,
    valve: null,
    valve_mm: null,
    speeds: null,
    keys: [],
    lengths_mm: [],
    stroke_ml: null,
    pattern: '',
  },
  Stop: {
    id: '',
    name: '',
    at_km: 0,
    detour_km: 0,
    take_detour: null,
    water: 'none',
    dry_months: [],
    treat_water: false,
    confirmed: null,
    shop: 'none',
    closed_weekdays: [],
    opens_h: null,
    closes_h: null,
    opens_again_h: null,
    closes_again_h: null,
    closed_dates: [],
    services: [],
    fuels: [],
    plug_outlets: 1,
    plug_hours: null,
    plug_shape: '',
    bike_shop: 'none',
    shelter: 'none',
    people: null,
    guessed: [],
    mapped: null,
    note: '',
  },
}
