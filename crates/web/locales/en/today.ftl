today-date = The date
today-day-of = day { $day } of { $days }
today-dial = Percent for { $month }
today-dial-count =
    { $n ->
        [0] nothing to set by what is on record
        [one] one to set
       *[other] { $n } to set
    }
today-its-year = Its year
today-program-of = { $controller }, { $program }
today-calls-for = Calls for
today-stands = Stands
today-stands-sensor = by sensor
today-set = Set
today-leave = Leave
today-unknown = Off, or not on record
today-soil = Soil
today-soil-note = soil: what its thirstiest station has left this morning before stress
today-dial-percent = Dial %
first-title = From nothing to a door card
first-sub = five steps, each with marked defaults
first-then = Then print the door card and dial it in.
first-place = Place
first-place-what = Where it is: name and position. Rules and house number can wait.
first-controller = Controller
first-controller-what = What its panel can be set to, from a preset.
first-controller-act = New controller
first-stations = Stations
first-stations-what = What each valve waters and with what. Minutes and cycles follow.
first-weather = Weather
first-weather-what = A file of days, or twelve typed normals.
first-schedule = Schedule
first-schedule-what = Days and starts that fit the rules and this panel, proposed with their reasons.
today-none = No controller has figures yet.
today-none-more = Add a place, its weather, a controller and its stations.
today-next-by-itself = { $dial } from { $date }, by itself
today-next-by-hand = { $dial } on { $date }, by hand
today-same-all-year = the same all year
today-scale = all on one scale, up to { $depth } a day
today-todo = To do
today-todo-none = Nothing is due.
today-normal = Normal for { $month }
today-seven = Seven days
today-seven-days = { $et0 } ET, { $rain } rain
today-yesterday = Yesterday
today-rain = { $unit } rain
today-record = on record
today-two-weeks = Two weeks
today-two-weeks-describe = Reference ET and rain of the last two weeks; yesterday { $et0 } and { $rain }
today-week = { $depth } ET
todo-weather = { $place } needs weather
todo-weather-more = { $place } has no weather yet.
todo-weather-act = Choose weather
todo-stations = { $controller } needs stations
todo-stations-more = At { $place }. Minutes are worked out from them.
todo-stations-act = Enter stations
todo-schedule = { $controller } needs a schedule
todo-schedule-more = Days and starts are proposed from its stations.
todo-short = { $controller } has short runs
todo-short-more =
    { $n ->
        [one] One month needs fewer days with longer runs.
       *[other] { $n } months need fewer days with longer runs.
    }
todo-short-act = Open Year
todo-turn = Set { $controller } to { $value }
todo-turn-more = A new month has started and this panel holds a single percent. { $date }
todo-turn-act = Show working
sun-describe = The sun’s height today, sunrise { $sunrise }, sunset { $sunset }
sun-length = sun { $hours } h { $minutes } min
sun-never-sets = the sun does not set
sun-never-rises = the sun does not rise
sun-none = none
sun-rise-at = sunrise { $time }
sun-set-at = sunset { $time }
sun-noon-at = noon { $time }, { $height }° high
sun-now = now { $time }
sun-closed = no watering { $from } to { $to }
sun-closed-day = no watering today
ephem-normal = { $month } normal
due-over = { $controller }: { $what }
due-over-more = Ended { $date } ({ $reason }). Put it back.
due-dial = { $controller }: values to dial in
due-dial-more = { $title }, and { $count } more.
due-week = { $controller }: faults in the schedule
due-week-rule = { $controller }: breaks the water rules
due-found = { $controller }: wrong on the panel as found
due-found-more = { $findings }, seen { $date }.
due-never = { $controller }: not dialled in yet
due-never-more =
    { $n ->
        [one] One value, in the order of the panel.
       *[other] { $n } values, in the order of the panel.
    }
due-soon = { $controller }: to set on { $date }
due-soon-act = See what comes
due-rules = { $controller }: other water rules from { $date }
due-rules-more = The present schedule breaks them. Choose other days or hours before that day.
due-rules-act = See the week
ahead-title = The year ahead
ahead-link = What comes in the year ahead
ahead-sub = What is to be set by hand, what sensors and rounds ask for, and when clocks change. What a panel does by itself is not here.
ahead-calendar = Export calendar
ahead-nothing = Nothing comes within a year. Dates stand here once a panel, a sensor or a round asks for them.
ahead-everywhere = everywhere
ahead-from-to = { $slot } from { $now } to { $then }
ahead-to = { $slot }: { $then }
ahead-more =
    { $n ->
        [one] 1 more value
       *[other] { $n } more values
    }
ahead-battery = { $sensor }: battery due
ahead-proof = { $sensor }: prove that it works
ahead-round = Look at the ground again
ahead-rules-broken = Other water rules from this day; the present schedule breaks them
ahead-rules-kept = Other water rules from this day; the present schedule keeps them
ahead-clock-forward = Clocks go one hour forward: set the panels that do not adjust by themselves
ahead-clock-back = Clocks go one hour back: set the panels that do not adjust by themselves
due-dial-act = Dial in
due-look-again = { $controller }: round due
due-look-again-more = Due since { $date }. The ground now shows what the last change did.
due-look-again-act = Start round
due-sensor = { $controller }: { $sensor }
due-sensor-act = Open sensor
due-clock = Clocks change on { $weekday }, { $date }
due-clock-forward = One hour forward. Panels that do not adjust by themselves run an hour late until they are set.
due-clock-back = One hour back. Panels that do not adjust by themselves run an hour early until they are set.

jobs-everywhere = Everywhere
jobs-later = Later
jobs-back = Bring back
jobs-put-off = Until { $until }: { $reason } ({ $who })
jobs-put-off-count =
    { $n ->
        [one] One job was put off.
       *[other] { $n } jobs were put off.
    }
jobs-show-put-off = Show them
jobs-all = Show what is due
later-title = Do it later
later-sub = Put off with a reason and a date
later-until = Until
later-until-hint = On this day it is due again.
later-until-bad = Enter a day after today, up to { $last }.
later-reason = Why
later-reason-hint = Shown to everyone in the company.
later-reason-bad = Enter a reason of up to 200 characters.
later-save = Put off
job-all = Everything
job-clock = Clock change
job-ended = Something ended
job-fault = Faults
job-dial = To dial in
job-soon = Within a week
job-by-hand = Water by hand
due-by-hand = { $controller }: water by hand this week
due-by-hand-more = Program { $programs }. The card says how long each station runs.
today-by-hand = a person starts each run
by-hand = by hand
job-look-again = Round due
job-sensor = Sensor care
job-missing = Not complete
today-places-all =
    { $n ->
        [one] One place
       *[other] All { $n } places
    }
today-until = until { $date }
today-ended = was to end { $date }: put it back
today-over = what was set for a while ended { $date }
today-for-a-while = { $until }, then { $value }
today-by-sensor = set by the ET sensor: do not enter it
today-found-off = found off on { $date }
due-found-off = { $controller }: found off
due-found-off-more = Nothing says that it was switched on since { $date }.
due-found-off-act = Open panel
jobs-stops =
    { $n ->
        [one] One stop
       *[other] { $n } stops
    }
jobs-round = { $stops }, { $km }, { $time }, of which { $work } min at work
jobs-round-note = Ways are straight lines times { $factor } at { $speed } an hour, with { $arriving } min to arrive; minutes of work are usual ones.
jobs-way = { $km }, { $drive } min; { $work } min of work
jobs-minutes = { $minutes } min
jobs-hours = { $hours } h { $minutes } min
jobs-desk = from the desk
jobs-no-yard = Say where your rounds begin, and visits are listed in the order of a round.
