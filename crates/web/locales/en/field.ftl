# Rules of a place.
rules-title = Water rules
rules-link = Water rules
rules-by = The authority allows
rules-by-hint = Some authorities go by the house number.
rules-any = any day
rules-weekdays = certain weekdays
rules-parity = days by odd or even house number
rules-digit = days by the last digit of the house number
rules-allowed = Allowed on
rules-odd = Odd house numbers
rules-even = Even house numbers
rules-digit-n = Numbers that end in { $a }
rules-number-here = The number here: { $a }
rules-never = Never on
rules-never-hint = Mowing, events, days on which the ground has to be dry: the place’s own.
rules-hours = Hours without watering
rules-from = From
rules-to = To
rules-ban = A ban on all watering
rules-ban-both = A ban has a first and a last day.
rules-ban-order = The ban ends before it begins.
rules-date-hint = As in 2026-07-01; both empty when there is none.
rules-who = Who says so
rules-authority = Authority and article
rules-authority-hint = It stands beside every finding that rests on it.
rules-dated = As of
rules-here = What binds here
rules-open = No rule has been entered: every day and hour is open to the tool.
rules-hours-line = no watering { $a } to { $b }
rules-days-line = never on { $a }
rules-ban-line = none at all { $a } to { $b }
rules-caution = Check with the authority. Local water rules come first; they can bind well water as well as mains.
rules-bind = They bind everything the tool proposes. Allowed days are a ceiling, not a target.
rules-no-house-number = The rule goes by the house number, and the place has none. Enter it with the place.
rules-no-day = No day of the week is left to water on.
rules-no-hour = No hour of the day is left to water in.
why-rules = the water rules changed
field-time = A time of day, as in 10:00.
field-date = A date, as in 2026-06-11.

# As found.
found-title = As found
found-link = As found
log-link = The log
found-sub = What the panel holds, in its own order, before anything is changed
found-of = of { $a } values
found-never-over = never overwritten
found-ledger = The values of the panel in its order; full strokes are written down
found-clock = clock
found-minutes = minutes
found-program = Program { $a }
found-switches = Switches
found-switch = Off or on
found-sensor = Sensor switch
found-note = Note
found-date = Date it shows
found-date-hint = As in 2026-06-11.
found-weekday = Weekday it shows
found-not-shown = none
found-time = Time it shows
found-unused = not in use
found-in-programs = Programs that run { $a }
found-minutes-hint = Empty where the panel shows 0. A station may stand in more than one program.
found-days = Days
found-mode-odd = Odd
found-mode-even = Even
found-mode-every = Every
found-days-of = Days of program { $a }
found-on = on
found-off = off
found-sensor-none = no sensor
found-sensor-active = sensor active
found-sensor-bypassed = sensor bypassed
found-note-label = What else was seen
found-note-hint = Up to 500 characters.
found-seen = Written down at
found-seen-hint = By a good clock of the place.
found-keep = Keep it as found
found-less = Less
found-more = More
found-again = Write it down anew
found-so-far = so far
found-none = Nothing is wrong with it so far.
found-findings =
    { $n ->
        [0] No findings
        [one] One finding
       *[other] { $n } findings
    }
found-water = Water in a week
found-water-sub = as found, and what { $a } asks for
found-water-found = As found
found-water-need = Needed
found-water-total = { $found } { $unit } a week as found; { $need } are needed.
found-earlier-title = Found before
found-no-earlier = No panel has been written down yet.
found-earlier = { $date }, { $time }, by { $who }
found-no-start = no start: it does not run
found-no-days = no day
found-seen-bad = A date and time that is not to come, as in 2026-06-11 09:12.
found-date-missing = The date it shows, or the weekday.
found-minutes-bad = Allowed: minutes, 0 to { $a }.
found-no-terminal = Station { $a } of { $b }: the panel has no such terminal.
found-cannot-be = This panel cannot stand so: { $a }.
found-start-twice = This start is there twice.
found-start-bad = A time of day, as in 04:30, or nothing for off.
why-found = a panel was written down as found
af-wrong-year = The year is wrong
af-year-is = The year is { $a }
af-year-more = Day and month are right, and it shows { $a }: set the year first.
af-date = It shows { $a }
af-date-more = The date is another: every day of the program falls elsewhere.
af-hour-ahead = One hour ahead
af-hour-behind = One hour behind
af-hour-more = Daylight saving was not changed on it.
af-half-day = Twelve hours off
af-half-day-more = AM stands for PM: a morning start runs in the evening.
af-clock-ahead = The clock is { $a } ahead
af-clock-behind = The clock is { $a } behind
af-clock-more = Set it; a weak battery loses time in an outage.
af-off = It is off
af-off-more = It ignores every program until somebody turns it on again.
af-bypassed = The sensor is bypassed
af-bypassed-more = It waters in the rain. Who did it, and until when?
af-second = { $a } starts twice
af-second-more = The start at { $a } costs { $b } a week.
af-second-plain = The start at { $a } runs the whole program again.
af-leftover = { $a } is left over
af-leftover-more = It has starts, and no station that we know waters by it.
af-percent = { $a } stands at { $b }
af-percent-more = The weather calls for { $a } %.
af-percent-fits = The weather calls for { $a } %; it would be right for { $b }.
af-two = { $a } is in two programs
af-two-more = It is watered by both.
af-overrun = { $a } runs until { $b }
af-overrun-more = Into hours that are closed, as on { $a }.

# Everything temporary.
temp-title = Temporary
temp-link = Temporary
temp-sub = Everything set for a while has a reason and an end
temp-none = Nothing is set for a while.
temp-new = Set for a while
temp-kind = What
temp-kind-percent = another percent
temp-kind-delay = a rain delay, up to { $a } days
temp-kind-bypass = a sensor bypassed
temp-kind-off = the controller Off
temp-all-programs = all programs
temp-sensor = Sensor
temp-sensor-hint = A bypass does not stop an ET sensor from changing the percent.
temp-since = First day
temp-until = Last day
temp-until-hint = From the next day on, putting it back is due on Today.
temp-reason = Reason
temp-reason-hint = Up to 60 characters: it stands in the log.
temp-off-hint = Off ignores everything and keeps the programs. A controller left Off is a classic fault.
temp-set = Set it
temp-percent-bad = Allowed: { $min } to { $max } %, in steps of { $step }.
temp-needs-end = When does it end? A date, as in 2026-06-11.
temp-needs-reason = Why? 1 to 60 characters.
temp-order = It ends before it begins.
temp-delay-long = This panel’s rain delay has up to { $a } days.
temp-cannot = That cannot be set: { $a }.
temp-percent-all = all programs at { $a }
temp-percent = program { $a } at { $b }
temp-delay = rain delay
temp-bypass = bypassed: { $a }
temp-off = the controller is Off
temp-span = { $a } to { $b }
temp-over = { $a } to { $b }: over, and due to be put back
temp-reason-line = { $a } ({ $b })
temp-back-percent = The percent is back
temp-back-delay = The delay is over
temp-back-bypass = The sensor is active again
temp-back-off = It is on again
temp-week-title = This week
temp-week-none = No rain is on record for these days: this needs a measured series that reaches to today.
temp-week-line = It rained { $a } since { $b }.
temp-week-same = as it stands
temp-week-working = Rain { $rain } and watering { $watered }, less what the plants used, { $used }, leaves { $left } in the root zone. The coming week needs that much less: { $now } % becomes { $exact } %.
temp-week-source = Own method, a week’s water balance after [FAO-56] eq. 85 without runoff and rise.
temp-week-reason = { $a } of rain since { $b }
temp-week-set = Set { $a } until { $b }
temp-week-back = Then the month’s percent comes back, and Today says so.
why-temporary = something was set for a while
why-put-back = something temporary was put back

# Why did it not water?
dry-title = Why did it not water?
dry-sub = Everything that stood in the way of a station on a day
dry-day = Day
dry-ask = Ask
dry-head = { $station } on { $day }, { $date }
dry-should-have-run = From all that is on record it should have run.
dry-nothing-due = Nothing was due, and nothing on record says why.
dry-causes =
    { $n ->
        [one] One thing stood in the way.
       *[other] { $n } things stood in the way; each of them alone is enough.
    }
dry-due = { $a } for { $b } min
dry-would = Were nothing in the way:
dry-unknown = What cannot be known from here
dry-off = The controller was Off since { $a }
dry-off-overdue = { $a }. It should have been back on by then.
dry-reason = { $a }.
dry-delay = A rain delay ran until { $a }
dry-delay-more = The panel counts its days by itself.
dry-found-off = The panel was found off on { $a }
dry-found-off-more = Nothing on record says that it was turned on since.
dry-no-station = The station is not in use
dry-no-station-more = No valve of this number is known here.
dry-no-start = { $a } has no start
dry-no-start-more = A program without a start never runs.
dry-not-day = It was no day of { $a }
dry-not-day-more = It runs on { $a } and on { $b }.
dry-never = no day within a month
dry-never-day = A never-water day of { $a }
dry-never-day-more = The day’s watering is left out.
dry-not-yet = Its count of days begins on { $a }
dry-not-yet-more = Until then nothing runs.
dry-month-off = { $a } is off
dry-month-off-more = The month’s percent is set to off.
dry-no-minutes = Its minutes are 0
dry-no-minutes-more = The panel skips it.
dry-to-nothing = { $a } makes nothing of its minutes
dry-to-nothing-more = { $a } min at 100 %: under the panel’s step.
dry-held = Held by the { $a }
dry-held-more = The weather on record would have tripped it, as it is set.
dry-clock = The panel’s clock was wrong
dry-clock-more = It was found so, and nothing was dialled since: it runs on other days or hours.
unknown-power = Whether it had power.
unknown-clock = Whether the panel’s clock was right.
unknown-hand = Whether somebody switched it off and on again.
unknown-valve = Whether the valve opened: wire, solenoid, water.
unknown-sensor = What the { $a } said: there is no weather on record for that day, or it measures what weather does not tell.
unknown-bypass = Whether the { $a } was bypassed the right way.

# The log.
log-title = The log
log-sub = What was changed, found, dialled and seen, newest first
log-version = version { $a }
log-dialled =
    { $n ->
        [one] one value was dialled
       *[other] { $n } values were dialled
    }
log-not-set =
    { $n ->
        [one] one value could not be set
       *[other] { $n } values could not be set
    }
log-next = The panel’s next watering: { $a }; ours: { $b }
log-look-again = look again on { $a }
log-round =
    { $n ->
        [one] one station was looked at
       *[other] { $n } stations were looked at
    }
log-accepted = { $a }: accepted
log-rejected = { $a }: not now, { $b }

# Dial in.
dial-title = Dial in
dial-link = Dial it in
field-back = Back to the week
dial-sub = { $controller } · card { $card } · { $who }
dial-of = of { $a } dialled
dial-nth = of { $a }
dial-ledger = The values of the panel in its order; full strokes are dialled, short ones must be off
dial-clock = Clock
dial-station = Station { $a }
dial-all = All programs
dial-sensor = Sensor
dial-sensor-short = sensor
dial-date = date
dial-time = time
dial-days = days
dial-start = start { $a }
dial-cycle = cycle
dial-soak = soak
dial-switch = switch
dial-active = active
dial-bypass = bypass
dial-how-date = The year first, then month and day: it must say { $a }.
dial-how-time = By a good clock.
dial-how-off = Step on past { $a } until it reads off.
dial-how-start = It goes by { $a } min.
dial-how-none = Not in use: it must read 0.
dial-how-minutes = Minutes at 100 %.
dial-how-cycle = The longest run at once.
dial-how-soak = The rest between two runs.
dial-how-percent = It goes by { $a }.
dial-how-percent-off = No watering in this month.
dial-how-every = Days until the next watering: { $a }.
dial-how-never = And never on { $a }.
dial-how-days = All others off.
dial-how-sensor = At bypass it waters in the rain.
dial-shows = It shows
dial-now = now
dial-dialled = dialled
dial-then = then
dial-cannot-short = not set
dial-skipped = skipped
dial-reads = It reads { $a }
dial-back = Back
dial-cannot = Cannot set it
dial-skip = Skip
dial-then-line = At the end: read all { $a } back, then ask the panel for its next watering. Ours:
dial-only =
    { $n ->
        [0] Only the clock: nothing else changed
        [one] Only the one that changed
       *[other] Only the { $n } that changed
    }
dial-read-back = Read all { $a } back
dial-next = { $day }, { $time }, { $program }
dial-next-none = none within two months
dial-next-ours = Our next watering:
dial-next-panel = The panel’s next watering
dial-next-what = What it says, if it says another
dial-next-unseen = it does not say
dial-next-same = says the same
dial-next-other = says another
dial-what-says = What does it say? The two must be compared.
dial-left =
    { $n ->
        [one] One value does not stand: it will be due on Today.
       *[other] { $n } values do not stand: they will be due on Today.
    }
dial-caution = Leave the panel on, the sensor switch at active and the door shut; take nothing off the terminals.
dial-done = Dialled on
dial-changed = The program was changed meanwhile: go through the values once more.
why-dialled = the panel was dialled

# Rounds.
nav-rounds = Rounds
keys-rounds = Rounds
round-title = Round
round-link = Walk a round
round-sub = { $controller } · { $date }, { $time }
round-percent = Percent seen, { $a }
round-percent-all = Percent seen
round-called = { $a } calls for { $b } %
round-roofed = roofed
ground-dry = Dry
ground-right = Right
ground-wet = Wet
judged-dry = dry
judged-right = right
judged-wet = wet
round-one-change = The one next change
round-seen = { $a } of { $b } seen
round-because = Because
round-expect = Expect
round-look-again = Look again
round-keep = Keep the round
round-accept = Take { $a }
round-not-now = Not now
round-unit-percent = %
round-unit-minutes = min at 100 %
round-days-of = Days of { $a }
round-no-change = nothing to change
round-line = { $what }: { $from } to { $to } { $unit }
round-reason = Why not now
round-reason-hint = Only for Not now: it stands in the log.
round-needs-reason = Why not? 1 to 60 characters.
round-note = What else was seen
round-note-hint = Runoff, broken heads, roots: up to 500 characters.
round-other-offer = The proposal follows from what was seen, and has changed: look at it once more.
because-panel = the panel does not stand at what it should: put it back before anything else is judged.
because-percent-off = every station that it waters is { $a }, and the percent is not what the weather calls for: a step towards it.
because-percent-right = every station that it waters is { $a }, and the percent is right: the days are not.
because-one = it alone is { $a } (right: { $b }): the percent is right, the station is not.
because-soon = the last change was on { $a }: the ground shows it after a week. One change at a time.
because-right = everything is right. Leave it.
because-nothing = nothing was judged yet.
because-limit = it is { $a }, but this panel cannot be set further.
because-waits = { $a } waits a week.
expect-more = a week gives { $after }, was { $before }; { $more } { $unit } more.
expect-less = a week gives { $after }, was { $before }; { $more } { $unit } less.
rounds-sub = Every controller, what is due first
rounds-none = There is no controller yet.
rounds-due = Look again: due since { $a }
rounds-on = Look again on { $a }
rounds-never = Never dialled in
rounds-no-visit = Nobody was there yet
rounds-last = Last visit on { $a }
rounds-round = Round
why-round = a round was walked, and its change taken over
