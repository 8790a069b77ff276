# Rules of a place.
rules-title = Water rules
rules-link = Water rules
rules-like = Begin with the rules of
rules-like-fill = Fill in
rules-like-check = Filled in, not saved yet. Check them with the authority of this place, then save.
rules-by = The authority allows
rules-by-hint = Some authorities go by the house number.
rules-any = any day
rules-weekdays = certain weekdays
rules-parity = days by odd or even house number
rules-digit = days by the last digit of the house number
rules-date = odd or even dates by the house number
rules-with-31st = Odd numbers may water on the 31st
rules-allowed = Allowed on
rules-odd = Odd house numbers
rules-even = Even house numbers
rules-digit-n = Numbers that end in { $digit }
rules-number-here = The number here: { $house-number }
rules-never = Never on
rules-never-hint = Mowing, events, days when the ground must be dry. No other place follows them.
rules-closed = Closed on these dates
rules-own = Days and hours of this place alone
rules-done-by = Watering done by
rules-done-by-hint = When the household or the public needs the place or its water, such as 07:30. Left empty, proposals end by 08:00.
rules-done-by-range = Enter a time from 05:00 to 12:00.
rules-done-by-line = watering done by { $time }
rules-why = Why
rules-closed-order = These dates end before they begin.
rules-sensor = Sensor
rules-needs-sensor = A working sensor is required
rules-needs-sensor-hint = Rain or freeze, as some authorities ask.
rules-ban-hour = Only between
rules-ban-hour-hint = Leave empty for the whole day.
rules-ban-hour-to = and
rules-hours = No watering between
rules-from = From
rules-to = To
rules-ban = Ban
rules-ban-both = Enter the first and the last day of the ban.
rules-ban-order = The ban ends before it begins.
rules-date-hint = Leave both empty if there is none.
rules-who = Source
rules-authority = Authority and article
rules-authority-hint = Shown beside every finding that rests on it.
rules-dated = As of
rules-here = Rules at this place
rules-open = No rules entered: every day and hour is allowed.
rules-hours-line = no watering { $from } to { $to }
rules-days-line = never on { $days }
rules-span = { $first } to { $last }
rules-ban-line = no watering at all { $span }
rules-ban-hours-line = { $hours }, { $span }
rules-odd-line = odd dates only
rules-odd-not-31st-line = odd dates only, not the 31st
rules-even-line = even dates only
rules-closed-line = closed { $why }
rules-closed-why = { $span } ({ $why })
rules-sensor-line = a working rain or freeze sensor is required
rules-caution = Check with the authority. Local water rules come first. They can cover well water as well as mains.
rules-season = Season { $number }: other days or hours for part of the year
rules-season-hint = These days and hours replace those above, every year. A season may run past New Year.
rules-season-from = First month
rules-season-to = Last month
rules-season-day-field = Day
rules-season-none = not used
rules-season-day = Enter the month and a day that it has.
rules-season-open = every day and hour allowed
rules-season-line = { $span }: { $what }
rules-seasons-meet = These seasons share a day.
rules-with = Places under the same rules
rules-with-hint = Saving changes them too, in one step that can be undone. Days and dates that they close themselves stay theirs. Untick a place that goes its own way.
rules-with-cannot = { $place }: { $error }
rules-bind = Every proposal keeps these rules. Allowed days are a ceiling, not a target.
rules-no-house-number = The rule goes by house number, and this place has none. Enter it on the Place page.
rules-no-day = These rules leave no day of the week to water.
rules-no-hour = These rules leave no hour of the day to water.
why-rules = water rules changed
field-time = Enter a time, such as 10:00.
field-date = Enter a date, such as 2026-06-11.

# As found.
found-title = As found
found-link = As found
log-link = History
found-sub = What the panel holds, in its own order, before anything is changed
found-of = of { $all } values
found-never-overwritten = never overwritten
found-ledger = The values of the panel in order; full strokes are written down
found-clock = clock
found-minutes = minutes
found-program = Program { $program }
found-switches = Switches
found-windows = Water windows
found-switch = Off or on
found-sensor = Sensor switch
found-note = Note
found-date = Date
found-weekday = Weekday
found-not-shown = none
found-time = Time
found-unused = not in use
found-in-programs = Programs that run { $station }
found-minutes-hint = Leave empty where the panel shows 0. A station may be in several programs.
found-days = Days
found-mode-odd = Odd
found-mode-even = Even
found-mode-every = Every
found-days-of = Days of program { $program }
found-on = on
found-off = off
found-held = says off, a sensor holds
found-cycle = cycle
found-soak = soak
found-never = Never on
found-never-of = Days on which program { $program } never waters
found-number = Number of today
found-number-today = Choose the number that the panel shows for today.
found-mode-numbers = Numbers
found-numbers = Day numbers
found-numbers-hint = As the panel numbers them, such as 1 3 5.
found-numbers-bad = Enter numbers from 1 to 7, such as 1 3 5.
found-months = Percents by month
found-months-hint = Where the panel shows them: all twelve, or none. Type off for a month that is off.
found-month-bad = Enter a percent, or off.
found-differences =
    { $n ->
        [0] The panel reads as planned
        [one] { $n } value differs from the plan
       *[other] { $n } values differ from the plan
    }
found-against-sub = as found against planned
found-against-none = Nothing has to be dialled in.
found-against-value = Value
found-against-panel = Panel
found-against-plan = Plan
found-against-take = Keep
found-against-keep = keep
found-against-take-of = Keep the panel’s value: { $what }
found-against-cannot = not in the plan
found-against-how = Tick what the panel has right: it becomes the plan. The rest is on the list to dial in.
found-against-save = Keep ticked values
found-against-dial = Dial in the plan
found-take-none = Tick at least one value to keep.
found-part-minutes = Minutes, { $station }
found-part-programs = Programs, { $station }
found-part-cycle = Cycles, { $station }
found-part-days = Days, program { $program }
found-part-starts = Starts, program { $program }
found-part-percent = Percent, program { $program }, { $month }
found-part-none = none
found-part-through = in one run
found-part-cycle-of = { $cycle } min, then { $soak } min of rest
why-adopted = values of the panel as found kept
found-sensor-none = no sensor
found-sensor-active = sensor active
found-sensor-bypassed = sensor bypassed
found-note-label = Anything else
found-note-hint = Up to 500 characters.
found-seen = Seen at
found-seen-hint = By your own clock.
found-keep = Save as found
found-less = Fewer
found-more = More
found-again = Write it down again
found-so-far = so far
found-none = No findings so far.
found-findings =
    { $n ->
        [0] No findings
        [one] One finding
       *[other] { $n } findings
    }
found-water = Water per week
found-water-sub = as found, and what { $month } needs
found-water-found = As found
found-water-need = Needed
found-water-total = { $found } { $unit } a week as found; { $need } needed.
found-earlier-title = Earlier records
found-no-earlier = No panel has been recorded yet.
found-earlier = { $date }, { $time }, by { $who }
found-no-start = no start: it does not run
found-no-days = no day
found-seen-bad = Enter a date and time that is not in the future, such as 2026-06-11 09:12.
found-date-missing = Enter the date or the weekday that the panel shows.
found-minutes-bad = Enter minutes, 0 to { $most }.
found-no-terminal = Station { $station } of { $stations }: this panel has no such terminal.
found-start-twice = This start is entered twice.
found-start-bad = Enter a time, such as 04:30, or leave it empty for off.
why-found = panel recorded as found
af-wrong-year = The year is wrong
af-year-is = The year is { $year }
af-year-more = Day and month are right, but it shows { $date }. Set the year first.
af-date = It shows { $date }
af-date-more = The date is wrong, so programs run on the wrong days.
af-hour-ahead = One hour ahead
af-hour-behind = One hour behind
af-hour-more = It was not changed for daylight saving.
af-half-day = Twelve hours off
af-half-day-more = AM and PM are swapped: a morning start runs in the evening.
af-clock-ahead = The clock is { $duration } ahead
af-clock-behind = The clock is { $duration } behind
af-clock-more = Set it. A weak battery loses time in a power cut.
af-off = The controller is off
af-off-more = It runs nothing until someone turns it on.
af-bypassed = The sensor is bypassed
af-bypassed-more = It waters in the rain. Who bypassed it, and until when?
af-too-much = { $program } gives too much water
af-too-little = { $program } gives too little water
af-week = { $found } a week, and the plants need { $needed }.
af-days = It waters { $found } times a week; the plan has { $planned }.
af-not-needed = This month needs no watering.
af-minutes = At { $percent } % it would be right with everything else as it is.
af-factory = Every station runs { $minutes } min every day
af-factory-more = This is how panels leave the factory, and what some go back to after a power cut.
af-unknown = Station { $station } runs { $minutes } min
af-unknown-more = It is not in the list of stations.
af-second-more = It starts twice: the start at { $start } uses { $volume } a week.
af-second-plain = It starts twice: the start at { $start } runs the whole program again.
af-leftover = { $program } is left over
af-leftover-more = It has starts, but no station we know of is in it.
af-percent-more = It is set to { $found }; the weather calls for { $called } %.
af-percent-fits = It is set to { $found }; the weather calls for { $called } %. { $found } would be right for { $month }.
af-two = { $station } is in two programs
af-two-more = Both programs water it.
af-window-more = The panel does not water outside of them. Move its start, or set other windows.
af-overrun = { $program } runs until { $time }
af-overrun-more = It runs into closed hours, as on { $date }.

# Everything temporary.
temp-title = Temporary settings
temp-link = Temporary settings
temp-sub = Each has a reason and an end
temp-none = No temporary settings.
temp-new = Add a temporary setting
temporary-kind = Setting
kind-percent = another percent
kind-weaning = less week by week
kind-grow-in = a new planting
kind-rain-delay = a rain delay
temp-kind-delay = a rain delay, up to { $days } days
kind-bypass = a sensor bypassed
kind-off = controller Off
temp-all-programs = all programs
temporary-sensor = Sensor
temp-sensor-hint = A bypass does not stop an ET sensor from changing the percent.
temporary-program = Program
temporary-percent = Percent
temporary-by = Set by
temporary-since = First day
temporary-until = Last day
temp-until-hint = From the next day on, Today asks to put it back.
temporary-reason = Reason
temp-reason-hint = Kept in the history.
temporary-extra-pct = Added at first
temporary-step-pct = Less each week
temp-weaning-bad = Enter a whole number from 1 to { $most }.
temp-grow-program = Choose the program of the new planting.
temporary-starts = Starts a day
temp-grow-starts-bad = This panel has 1 to { $starts } starts.
temporary-from = First start
temporary-to = Last start
temp-grow-order = The last start comes before the first one.
temp-grow-hint = Every day, spread evenly; each start runs this percent of the minutes. Until the planting comes, bridge the days with a rain delay.
temp-weaning-hint = For plants used to too much water. Each week’s percent is to be dialled; Today says so. It ends by itself at the month’s percent.
temp-off-hint = Off stops everything and keeps the programs. A controller left Off is a classic fault.
temp-set = Save
temp-percent-bad = Enter { $min } to { $max } %, in steps of { $step }.
temp-needs-end = When does it end? Enter a date, such as 2026-06-11.
temp-needs-reason = Why? Enter 1 to 200 characters.
temp-order = It ends before it begins.
temp-delay-long = This panel’s rain delay is at most { $days } days.
temp-percent-all = all programs at { $percent }
temp-percent = program { $program } at { $percent }
temp-delay = rain delay
temp-program = program { $program }
temp-grow = { $program } grows in: every day at { $starts }, { $percent } of its minutes
temp-weaning = { $program } weaned: +{ $extra } % of the month’s percent, { $step } less each week
temp-bypass = bypassed: { $sensor }
temp-off = the controller is Off
temp-span = { $first } to { $last }
temp-over = { $first } to { $last }: ended, to be put back
temp-reason-line = { $reason } ({ $person })
temp-back-percent = Percent put back
temp-back-grow = Usual schedule put back
temp-back-delay = Delay ended
temp-back-bypass = Sensor active again
temp-back-off = Switched on again
temp-week-title = This week
temp-week-none = No rain on record for the last two days.
temp-week-gauge = Enter rain read at the gauge
temp-week-line = It rained { $depth } since { $date }.
temp-week-same = no change
temp-week-working = Since then: rain { $rain }, watering { $watered }, used by the plants { $used }. Kept day by day, the root zone lacks { $missing } this morning. Up to the last watering { $days } days at { $use } follow. { $waterings } waterings give { $base } each at 100 %: ({ $missing } + { $days } × { $use }) ÷ ({ $waterings } × { $base }) = { $exact } %.
temp-week-source = Our own method on the daily balance of [FAO-56] eq. 85 to 88. Rain to come is not counted on.
temp-week-reason = { $depth } of rain since { $date }
temp-week-set = Set { $percent } until { $date }
temp-week-back = Then the month’s percent applies again, and Today says so.
why-temporary = temporary setting added
why-put-back = temporary setting put back

# Why did it not water?
dry-title = Why did it not water?
dry-sub = Everything that stopped a station on a day
dry-day = Day
dry-ask = Show
dry-head = { $station } on { $day }, { $date }
dry-should-have-run = By everything on record it should have run.
dry-nothing-due = Nothing was due, and no cause is on record.
dry-causes =
    { $n ->
        [one] One cause.
       *[other] { $n } causes; any one of them is enough.
    }
dry-all = all stations
dry-all-head = { $weekday }, { $date }
dry-cause = First cause
dry-was-due = Nothing in the way. Due
dry-more-causes =
    { $n ->
        [one] and 1 more
       *[other] and { $n } more
    }
dry-by-plan = Judged by the plan of that day. Nobody had recorded what the panel held.
dry-by-dialled = Judged by what was dialled in on { $date }.
dry-by-found = Judged by the panel as it was found on { $date }.
dry-by-oldest = Judged by the oldest plan on record: nothing is on record of that day.
dry-due = { $start } for { $minutes } min
dry-would = Otherwise it would have run:
dry-unknown = What we cannot know
dry-off = The controller was Off since { $date }
dry-off-overdue = { $reason }. It should have been switched on by then.
dry-reason = { $reason }.
dry-delay = A rain delay ran until { $date }
dry-delay-more = The panel counts the days by itself.
dry-found-off = The panel was found off on { $date }
dry-found-off-more = Nothing on record says it was switched on since.
dry-no-station = The station is not in use
dry-no-station-more = No station has this number.
dry-by-hand = { $program } is watered by hand
dry-by-hand-more = The panel has no start for it. The week’s card says how long each station runs.
dry-no-start = { $program } has no start
dry-no-start-more = A program without a start never runs.
dry-not-day = Not a day of { $program }
dry-not-day-more = It runs on { $before } and { $after }.
dry-never = no day within a month
dry-window = { $program } starts outside of the panel’s water windows
dry-window-more = The panel makes no start there.
dry-never-day = A never-water day of { $program }
dry-never-day-more = That day’s watering is skipped.
dry-not-yet = Its day count starts on { $date }
dry-not-yet-more = Nothing runs before that.
dry-month-off = { $month } is off
dry-month-off-more = The month’s percent is set to off.
dry-no-minutes = Its minutes are 0
dry-no-minutes-more = The panel skips it.
dry-to-nothing = { $percent } leaves nothing of its minutes
dry-to-nothing-more = { $minutes } min at 100 %, which rounds to nothing.
dry-held = Held back by the { $sensor }
dry-held-more = At its setting, the weather on record would have tripped it.
dry-clock = The panel’s clock was wrong
dry-clock-more = It was found wrong and not set since, so programs run on other days or hours.
unknown-power = Whether it had power.
unknown-clock = Whether the panel’s clock was right.
unknown-hand = Whether someone switched it off and on again.
unknown-valve = Whether the valve opened: wire, solenoid, water.
unknown-not-set = Whether every value was on the panel. Some could not be set when it was dialled in.
unknown-sensor = What the { $sensor } reported: there is no weather for that day, or it measures something weather does not show.
unknown-bypass = Whether the { $sensor } was bypassed the right way.

# The log.
log-title = History
log-sub = Changes, panels found, values dialled and rounds, newest first
log-version = version { $version }
log-value = { $what }: { $old } → { $new }
log-nothing = none
log-more-values =
    { $n ->
        [one] and one more value
       *[other] and { $n } more values
    }
log-csv = Export CSV
log-judged = Ground on rounds
log-judged-sub = the last ones, newest at the right
log-dialled =
    { $n ->
        [one] one value dialled in
       *[other] { $n } values dialled in
    }
log-not-set =
    { $n ->
        [one] one value could not be set
       *[other] { $n } values could not be set
    }
log-next = The panel’s next watering: { $panel }; ours: { $ours }
log-look-again = next round on { $date }
log-round =
    { $n ->
        [one] round: one station checked
       *[other] round: { $n } stations checked
    }
log-accepted = { $change }: accepted
log-rejected = { $change }: not now, { $reason }

# Dial in.
dial-title = Dial in
dial-link = Dial in
field-back = Back to the week
dial-sub = { $controller } · card { $card } · { $who }
dial-of = of { $all } dialled
dial-nth = of { $all }
dial-ledger = The values of the panel in order; full strokes are done, short ones must be off
dial-clock = Clock
dial-station = Station { $station }
dial-all = All programs
dial-sensor = Sensor
dial-sensor-short = sensor
dial-date = date
dial-time = time
dial-days = days
dial-start = start { $number }
dial-cycle = cycle
dial-soak = soak
dial-switch = switch
dial-percent = percent
dial-active = active
dial-bypass = bypass
dial-how-date = Set the year first, then month and day. It must show { $weekday }.
dial-how-time = By your own clock.
dial-how-off = Step past { $time } until it shows off.
dial-how-start = In steps of { $step } min.
dial-how-none = Not in use: set it to 0.
dial-how-minutes = Minutes at 100 %.
dial-how-cycle = Longest run at a time.
dial-how-soak = Rest between two runs.
dial-how-percent = In steps of { $step }.
dial-how-percent-off = No watering in this month.
dial-how-every = Days until the next watering: { $days }.
dial-how-never = And never on { $days }.
dial-how-days = All other days off.
dial-how-sensor = At bypass it waters in the rain.
dial-panel = Panel
dial-obeys = obeys
dial-ignores = ignores
dial-run = run
dial-delay-short = delay
dial-station-delay = pause between stations
dial-window-short = windows
dial-window-from = water window { $number }, from
dial-window-to = water window { $number }, to
dial-rain-delay = rain delay
dial-setting = setting
dial-vent = vent ring
dial-vent-open = open
dial-vent-half = half open
dial-vent-closed = closed
dial-days-after = days after rain
dial-threshold = threshold
dial-et-climate = climate step
dial-et-offset = offset
dial-how-off-key = Turn it off with the panel’s off key.
dial-how-off-cleared = Clear it until it shows dashes.
dial-how-station-delay = Seconds between two valves.
dial-how-window = The panel waters only inside of its windows.
dial-how-window-off = A window that was left on shuts programs out without a word.
dial-how-rain-delay = The panel counts these days by itself. The last one is { $date }.
dial-how-obeys = This station obeys the sensors.
dial-how-ignores = This station ignores the sensors. The others stay as they are.
dial-how-ignores-wired = This panel has no such switch: the station is wired past the sensor.
dial-how-on-sensor = On the sensor itself.
dial-how-vent = On the sensor itself, set before mounting.
dial-how-days-after = Days without watering once the sensor is dry; 0 for none.
dial-how-threshold = Waters below this reading.
dial-how-et = On the ET sensor itself, or on its add-on unit.
dial-how-run = The switch of the whole panel.
dial-how-switch-off = The panel keeps its programs and waters nothing.
dial-until = Until { $date }, then { $value }.
dial-puts-back = Puts back what was to end on { $date }.
dial-shows = It shows
dial-now = now
dial-dialled = dialled
dial-then = then
dial-cannot-short = not set
dial-skipped = skipped
dial-reads = It shows { $value }
dial-back = Back
dial-cannot = Cannot set it
dial-skip = Skip
dial-then-line = At the end, read all { $all } values back and check the panel’s next watering. Ours:
dial-only =
    { $n ->
        [0] Only the clock: nothing else changed
        [one] The clock and the changed value only
       *[other] The clock and the { $n } changed values only
    }
dial-read-back = Read all { $count } back
dial-next = { $day }, { $time }, { $program }
dial-next-none = none within two months
dial-next-ours = Our next watering:
dial-next-panel = The panel’s next watering
dial-next-what = What it shows, if different
dial-next-unseen = not shown
dial-next-same = the same
dial-next-other = different
dial-what-says = Enter what the panel shows, so that the two can be compared.
dial-left =
    { $n ->
        [one] One value is not set. It will be listed on Today.
       *[other] { $n } values are not set. They will be listed on Today.
    }
dial-caution = Leave the panel as read back and the door shut. Remove nothing from the terminals.
dial-done = Save as dialled in
dial-changed = The program was changed in the meantime. Go through the values once more.
why-dialled = panel dialled in

# Rounds.
nav-rounds = Rounds
keys-rounds = Rounds
round-title = Round
round-link = Start round
round-sub = { $controller } · { $date }, { $time }
round-percent = Percent seen, { $program }
round-percent-all = Percent seen
round-called = { $month } needs { $percent } %
round-called-sensor = the last seven days call for { $percent } %
round-roofed = roofed
ground-dry = Dry
ground-right = Right
ground-wet = Wet
judged-dry = dry
judged-right = right
judged-wet = wet
round-one-change = The one next change
round-seen = { $seen } of { $all } seen
round-because = Because
round-expect = Expect
round-look-again = Look again
round-keep = Save round
round-accept = Change to { $change }
round-not-now = Not now
round-offset-of = ET sensor’s offset for { $program }
round-dial-steps = { $n ->
        [one] one step
       *[other] { $n } steps
    }
round-climate-of = ET sensor’s climate step for { $program }
round-unit-percent = %
round-unit-minutes = min at 100 %
round-days-of = Days of { $program }
round-no-change = no change
round-line = { $what }: { $from } to { $to } { $unit }
round-reason = Why not now?
round-reason-hint = Only for “Not now”. Kept in the history.
round-needs-reason = Why not? Enter 1 to 60 characters.
round-note = Anything else
round-note-hint = Runoff, broken heads, roots: up to 500 characters.
round-other-offer = What you entered changed the proposal. Check it again.
because-panel = the panel is not set to the planned percent. Put it back before judging anything else.
because-panel-nearer = every station it waters is { $judged }, and the panel is not set to the planned percent but nearer to what the ground asks. The plan follows it.
because-month-on = it is off this month, and every station it waters is { $judged }.
because-month-off = it is { $judged }, and its program is off this month: other minutes would change nothing.
because-percent-off = every station it waters is { $judged }, and the percent is not what the weather calls for. This brings it there.
because-sensor = { $program } reads { $seen } % where the weather calls for { $called } %. The sensor sets it anew every night, so its dial moves, not the percent. If the plants look right, mark them so and leave it.
because-sensor-end = { $program } reads { $seen } % where the weather calls for { $called } %, and both dials of the sensor are at their ends. Check where it is mounted, or change the minutes.
because-percent-right = every station it waters is { $judged }, and the weather calls for no more and no less, so the whole program changes by an eighth.
because-one = only this one is { $judged } (right: { $others }), so the percent is right and this station is changed.
because-soon = the last change was on { $date }. The ground shows it after a week. One change at a time.
because-right = everything is right. Leave it as it is.
because-nothing = nothing has been judged yet.
because-limit = it is { $judged }, but this panel cannot be set any further.
because-waits = Wait a week with { $names }.
expect-more = { $after } a week, was { $before }; { $more } { $unit } more.
expect-met = In the weather of { $from } to { $to } it would have met { $after } % of the demand, instead of { $before } %.
expect-met-same = By the balance of { $from } to { $to } it makes no difference: { $before } % of the demand was met. If the ground says otherwise, look at pressure, heads, leaks and the clock first.
expect-less = { $after } a week, was { $before }; { $more } { $unit } less.
rounds-sub = Every controller, soonest first
rounds-none = No controllers yet.
rounds-due = Due since { $date }
rounds-on = Due on { $date }
rounds-never = Not dialled in yet
rounds-no-visit = No visit yet
rounds-last = Last visit on { $date }
rounds-round = Round
why-round = round saved with its change
soil-head = Soil that morning, left before stress
soil-left = { $depth } left
soil-before = before its plants feel it
soil-past = dry by { $depth }
soil-title = Its soil by the daily balance, weather up to { $date }
soil-missing = Missing to field capacity
soil-of-raw = plants feel it from { $depth } on
soil-of-raw-since = plants feel it from { $depth } on: since { $date }
soil-wanted = Its plants want
soil-since = since { $date }
soil-rain = Rain
soil-roofed = none under a roof
soil-watered = Watering
soil-on-days =
    { $n ->
        [0] on no day
        [one] on one day
       *[other] on { $n } days
    }
soil-last = { $days }, last on { $date }
soil-drained = Drained below the roots
soil-enough = The balance finds enough water in its root zone. If it looks dry, look for a cause on the spot: a head, the pressure, the valve, shallow roots.
soil-too-much = The balance finds enough water in its root zone, and { $depth } drained below it. If it looks dry, look for a cause on the spot: a head, the pressure, the valve, roots that stand in water.
soil-not-watered = It has had no watering since { $date }, and rain was not enough.
soil-short = Rain and watering were { $depth } short of what its plants want. Check its minutes, its percent and its days.
soil-dry-before = Since { $date } it got what its plants want. Its soil was dry before and has not been filled up.
soil-how = Days are watered as the panel was set on that day, with what was set for a while and what the sensors held. Mean over the station: its driest quarter is drier.
