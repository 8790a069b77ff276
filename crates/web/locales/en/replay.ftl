# Replay: the weather on record run again under another setting.
replay-title = Replay
replays-sub = the weather on record, run again under another setting
replays-none = No controller has stations yet.
replays-what =
    { $n ->
        [one] one station
       *[other] { $n } stations
    }
replay-missing-days = A replay needs weather by the day. This place has none yet.
replay-missing-days-go = Import weather
replay-missing-stations = A replay needs stations.
replay-missing-stations-go = Enter stations
replay-sub = water left in the root zone, { $part } of { $station }
replay-plate = Water left in the root zone, { $part } of { $station }: what is tried against the present
replay-average = average
replay-driest = driest quarter
replay-average-short = Average
replay-driest-short = Driest quarter
replay-part = Part of the station
replay-period = Period
replay-stations = Stations
replay-years =
    { $n ->
        [one] The record
       *[other] { $n } years
    }
replay-export = Export days
replay-export-svg = Export drawing
replay-rain = Rain
replay-root = Soil
replay-capacity = field capacity
replay-held = { $depth } held
replay-refill = refill point
replay-wilting = wilting point
replay-lane-tried = Tried
replay-lane-now = Now
replay-lane-runs = { $runs } runs, { $depth }
replay-lane-lost = lost { $depth }
replay-reading = { $date }: { $left } { $unit } left; present { $present }
replay-reading-keys = Arrow keys move by a day, with Shift by a week
replay-key-tried = tried
replay-key-present = present
replay-key-stress = stress, as tried
replay-key-rain = rain, { $year }
replay-key-runs = runs
replay-key-lost = percolation and runoff
replay-what-if = What if
replay-what-if-more = nothing is saved until you apply it
replay-scale = Percents
replay-days = Days a week
replay-trip = Rain trips at
replay-trip-own = { $setting }, as set
replay-trip-none = no rain sensor
replay-wait = Then waits
replay-wait-unit = d
replay-price = Price of water
replay-price-unit = a m³
replay-enough = Enough from
replay-show = Show
replay-adequacy = adequacy { $adequacy }
replay-strategies = Strategies side by side
replay-strategies-sub = all stations of the program
replay-strategy = Strategy
replay-applied = Applied
replay-water = Water
replay-lost = Lost
replay-stress = Stress
replay-stress-unit = days
replay-waterings = Waterings
replay-waterings-unit = in all
replay-adequacy-head = Adequacy
replay-adequacy-unit = of 1
replay-money = Money
replay-saves = Saves
replay-base = base
replay-nothing = No water
replay-present = Present
replay-as-planned = as planned
replay-found-on = as found { $date }
replay-fixed = Fixed
replay-fixed-note = 100 % all year
replay-by-month = By month
replay-by-month-note = percents from Year
replay-et-sensor = ET sensor
replay-et-note = seven-day mean
replay-rain-sensor = Rain sensor
replay-rain-own = as set on Sensors
replay-rain-usual = the usual 13 mm
replay-soil-sensor = Soil sensor
replay-soil-note = from half of the readily available water
replay-deficit = Refill by depletion
replay-deficit-note = each station by itself
replay-by-hand-note = once a week, what is missing
replay-plan = The plan
replay-tried = As tried
replay-foot = Lost: percolation and runoff. Stress: the driest quarter’s worst station, stress coefficient under 0.9. Dotted: under { $enough }.
replay-filled =
    { $n ->
        [one] One day without reference ET takes its month’s mean.
       *[other] { $n } days without reference ET take their month’s mean.
    }
replay-no-rain =
    { $n ->
        [one] One day without measured rain counts as dry.
       *[other] { $n } days without measured rain count as dry.
    }
replay-assumptions = Assumptions
replay-assume-1 = Rain itself never runs off; water runs off where it comes faster than the soil takes it, cycle by cycle.
replay-assume-2 = The disc of a rain sensor holds { $disc }, dries at reference ET times its vent, and lets go below { $release } % of its setting; both figures stand on Sensors. It is asked at a program’s first start of the day.
replay-assume-3 = Root zones begin 90 days before the period, at field capacity. Temporary settings are left out.
replay-assume-4 = The balance is FAO-56 eq. 82 to 88, by local day; rain and water enter before the plants drink.
replay-plan-saves = The plan saves
replay-plan-takes = The plan takes more
replay-tried-saves = This saves
replay-tried-takes = This takes more
replay-against = against the present
replay-say-money = and { $money } in money, { $share } % of the program.
replay-say-share = { $share } % of the program’s water.
replay-say-more = { $tried } instead of { $present }; adequacy { $adequacy }, limit { $limit }.
replay-short = Not enough: under { $enough } the plants go short.
replay-set = set
replay-now = now
replay-months = Percents by month
replay-days-same = Days: { $days }, as now.
replay-days-new = Days: { $days }; now { $now }.
replay-no-days = none
replay-rain-is = { $setting }, { $days } d
replay-rain-none = none
replay-rain-same = Rain sensor: { $now }, as now.
replay-rain-new = Rain sensor: { $setting }; now { $now }.
replay-find = Find the best setting
replay-find-more = searches percents, days and rain sensor for the least water that is enough; takes a few seconds
replay-apply = Apply this setting
replay-apply-more = changes the plan, not the panel: dial it in afterwards
replay-reset = Reset
replay-no-sensor = There is no rain sensor on this controller. Fit one and enter it on Sensors; then this can be applied.
replay-plot = Enough, not too much
replay-plot-sub = lost water upward
replay-plot-label = Strategies by adequacy and lost water
replay-plot-dry = too dry
replay-plot-enough = enough from { $enough }
replay-plot-x = share of the demand that is met
replay-other-years = In other years
replay-other-years-sub = the same setting
replay-year-rain = Year, rain
replay-the-year = { $year }, { $rain }
replay-dry = Dry { $year }, { $rain }
replay-middle = Middle { $year }, { $rain }
replay-wet = Wet { $year }, { $rain }
replay-number = a number from { $min } to { $max }
replay-search-title = Searching the best setting
replay-search-settings =
    { $n ->
        [one] One setting tried
       *[other] { $n } settings tried
    }
replay-search-tried = { $tried } in { $seconds } s
replay-search-more = This page leads to the answer by itself. You can leave it; Replay keeps the answer for half an hour.
replay-search-leave = Back to Replay
replay-search-going = A search of the best setting was begun here.
replay-search-see = See how far it is
replay-more = More to try
replay-minutes = Minutes, { $station }
replay-minutes-unit = min
replay-minutes-new = Station { $station }: { $to } min; now { $from }.
replay-refill-point = Refill point
replay-vent-usual = half open, as usual
replay-vent-own = { $vent }, as set
replay-account-title = Working: where the water went
replay-account = { $part } of { $station }. Rain and watering, less what its plants used, what ran off and what drained, is what the soil gained.
replay-account-rain = Rain
replay-account-applied = Watering
replay-account-used = Used
replay-account-wanted = of wanted
replay-account-runoff = Ran off
replay-account-drained = Drained
replay-account-gained = Gained
replay-place-sub = all controllers of { $place }, as they are planned
replay-place-strategies = all stations of the place
replay-place-controllers = By controller
replay-place-controllers-sub = its plan against its present; open one to try settings
replay-place-years = the plans
replay-best-named = Least water that is enough: { $name }, { $water } at an adequacy of { $adequacy } (limit { $limit }).
replay-best-none = None of these reaches an adequacy of { $enough }.
replay-account-in-rain = In rain
replay-account-in-frost = In frost
replay-account-breaks = Rules broken
replay-by-station = By station, as tried
replay-limit = What limits it
replay-limit-sets = Fares worst: the percents of all follow it
replay-limit-dry = Its driest quarter goes short between waterings
replay-limit-much = Gets much more than its soil holds
replay-limit-none = Nothing: enough, and little lost
