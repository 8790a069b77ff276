# The Week: days, starts, runs, findings.
step-week = Week
next-week = Days and starts are not set, or something in them is wrong.
week-sub = { $a } to { $b }, as the controller would run it, one valve at a time
week-now = now
week-sunrise = sunrise { $a }
week-sunset = sunset { $a }
week-describe = Seven days by twenty-four hours: every run of every program, forbidden hours and days hatched
week-closed-hours = no watering { $a } to { $b }
week-closed-day = no watering on { $a }
week-total = { $a } { $b } this week
week-total-without =
    { $n ->
        [one] without one station of unknown area
       *[other] without { $n } stations of unknown area
    }
week-at-now = At { $a }’s percent
week-at-highest = At the year’s highest
week-program = Program
week-days = Days
week-starts = Starts
week-percent = Percent
week-ends = Ends
week-ends-highest = At { $a }’s { $b }
week-ends-never = at the highest
week-soaking = soaking in
week-meant = at the year’s highest
week-forbidden = forbidden
week-findings =
    { $n ->
        [0] No findings
        [one] One finding
       *[other] { $n } findings
    }
week-sound = Nothing stands in the way of this week: it keeps the rules, ends in time in every month, and no run lies on the ground too long.
week-repair-all = Make all repairs
week-undo = undo with Ctrl Z
week-working = Working
week-start-label = Program { $a }, start { $b }
week-drag = Arrow keys move it, Enter keeps it, Escape puts it back
week-toggle = { $a }: { $b }
week-program-head = Program { $a }
week-change = Change { $a }
week-mode = Days go by
mode-weekdays = weekdays
mode-odd-days = odd dates
mode-even-days = even dates
mode-every-days = every N days
mode-odd = odd dates
mode-even = even dates
mode-every = every { $a } days from { $b }
mode-never = { $a }, never { $b }
week-every = Every
week-next = Next watering
week-never = Never on
week-split = A watering is divided over
week-split-unit = starts
week-split-hint = 1 unless starts stand in for cycles.
week-start-n = Start { $a }
week-start-bad = Allowed: a time of day in steps of { $a } min, as in 04:30, or nothing for off.
week-every-bad = Allowed: 1 to { $a } days.
week-next-bad = A date, as in 2026-06-11.
week-mode-bad = This panel has no such day mode.
week-schedule-bad = This panel cannot be set so: { $a }.
week-stations = Stations at { $a }
week-minutes = Base
week-run = A run
week-cycles = Cycles
week-cycle = Cycle
week-soak = Soak
week-week-mm = A week
week-water = Water
week-minutes-hint = Empty: worked out from what the station needs.
week-minutes-bad = Allowed: minutes in steps of { $a }, up to { $b }, or nothing.
week-in-one = in one run
week-save = Save { $a }
week-as-worked = { $a } worked out
week-empty-title = Nothing is scheduled yet.
week-empty = The tool has grouped nothing and set nothing so far. A first proposal fits the rules of the place, the panel and the plants; every part of it can be changed.
week-propose-keep = Propose days and starts
week-propose-group = Group the stations too
week-propose-again = Propose anew
week-propose-why = Days as even as the rules allow, as many as soil and plants ask for; starts back to back, the last ending before { $a }, at the year’s highest percent.
week-propose-limit = the first closed hour
week-no-stations = There are no stations yet, so there is nothing to run.
week-shortfall-hours = It does not all fit: { $a } min are needed and { $b } are free at a stretch. More days, a second window or a program less would help.
week-shortfall-days = Program { $a } asks for { $b } waterings a week; fewer days are allowed, so each is heavier.
week-off-now = Nothing runs from { $a } to { $b }: { $c }
week-why-link = Why did it not water?
week-file-link = Runs as a calendar file
week-missing-minutes = Minutes and percents that were not chosen count as 0 min and 100 %: the place looks at no weather yet.
count-faults =
    { $n ->
        [one] one fault
       *[other] { $n } faults
    }
count-rules =
    { $n ->
        [one] one rule
       *[other] { $n } rules
    }
count-notes =
    { $n ->
        [one] one note
       *[other] { $n } notes
    }
at-stake = At stake
rule = Rule
note = Note
rule-of-the-place = water rules of the place; check with the authority
rule-of = { $a }; check with the authority
stake-volume = { $a } { $b } a week
stake-missing = { $a } { $b } a week are missing
stake-depth = { $a } a week
stake-runoff = up to { $a } of a run lies on the ground and runs off
note-waits = whoever waits there meets it late
note-neighbours = the ground has no day to dry between them
note-ghost = it opens no valve now, and would as soon as a station is put in it
note-no-minutes = what it waters gets nothing
note-not-scheduled = its stations get nothing
note-sensor = what is set by hand is overwritten every night
note-two-ways = each part of a run is cut again, and none reaches the roots
note-plain = worth a look
f-second-start = { $a } starts twice
f-second-start-more = A start at { $a } waters everything once more.
f-two-ways = { $a } soaks in two ways
f-two-ways-more = The panel cuts the runs, and the starts divide them too.
f-two-programs = { $a } is in two programs
f-two-programs-more = { $a } runs it, and { $b } runs it again.
f-not-scheduled = { $a } never runs
f-not-scheduled-more = It has stations, and neither days nor starts.
f-ghost = { $a } starts with nothing in it
f-ghost-more = Days and starts are set, and no station belongs to it.
f-no-minutes = { $a } has no minutes
f-no-minutes-more = { $a } skips it.
f-runs-off = { $a } runs off
f-runs-off-more = It runs { $a } min at a time; after { $b } min the water lies.
f-too-few = { $a } has too few starts
f-too-few-more = { $a } of the { $b } starts that its minutes are divided over.
f-days-minutes = { $a } waters { $b } times a week
f-days-minutes-more = Its minutes are for { $a }.
f-fights = { $a }’s percent is set twice
f-fights-more = A month is set by hand, and a sensor sets the percent.
f-day = { $a } runs on { $b }
f-day-more = That day is closed to all watering.
f-date-more = That date is closed to all watering.
f-hour = { $a } runs after { $b }
f-hour-more = It ends at { $a }.
f-late = From { $month }, { $program } ends at { $end }
f-late-more = { $now } now; at { $month }’s percent it goes past { $from }.
f-waits = { $a } waits for { $b }
f-waits-more = Begins at { $begins }, not { $planned }: up to { $minutes } min late.
f-odd = { $a } runs on the 31st and the 1st
f-odd-more = Both are odd, so it waters two days running.
f-neighbours = { $a } waters two days running
f-neighbours-more = { $a } and { $b } are neighbours; every other day has none.
r-remove-start = Remove { $a }
r-move-start = Start { $a } at { $b }
r-take-off = Take { $a } off { $b }
r-set-days = { $a } on { $b }
r-odd = { $a } on odd dates
r-even = { $a } on even dates
r-every = { $a } every { $b } days
r-never = { $a } never on { $b }
r-cycle = { $station }: { $cycle } min at a time, { $soak } to soak
r-divide = Divide { $a } over { $b } starts
r-whole = { $a } whole at { $b }
r-clear = Clear { $a }
r-proposal = Take the proposal for { $a }
r-minutes = { $a }: { $b } min as worked out
r-leave = Take { $a } out of { $b }
r-minutes-for = { $a }’s minutes for { $b } a week
r-free = Let the sensor set { $a }
found-second-start = A start time starts the whole program. The first start is the watering; every further one that is not part of a divided watering adds its own water.
found-two-ways = A cycle limit on a station of the program, and a watering divided over more than one start.
found-two-programs = The station stands in both programs; its runs of the second one are at stake.
found-not-scheduled = A program with stations and no start, or no day on which it may run.
found-ghost = A program with days and starts and no station.
found-no-minutes = Its minutes on the panel are 0; a real base time also serves manual runs.
found-runs-off = Longest run before runoff = 60 × surface accumulation ÷ (rate − intake); the run is that of the year’s highest percent. A minute is let pass.
found-too-few = A watering divided over N starts needs all N; the rest of the water is at stake.
found-days-minutes = Base minutes give a week’s need in so many waterings; on other days the week gets more or less.
found-fights = A percentage that a sensor rewrites must not also be set by month.
found-day = Every start of the days looked at, against the rules of the place.
found-hour = Every run of the days looked at, against the closed hours, at the percent of its date.
found-late = The same at the highest percent of the year.
found-waits = One valve line: a program that starts while another runs waits until it has ended.
found-odd = The 31st is odd and so is the 1st after it; 29 February and 1 March likewise.
found-neighbours = Four weekdays with one pair of neighbours are every other day that does not come out even.
lens-title = { $a }, program { $b }
lens-bar = { $a } min to { $b }
lens-soak = soak { $a }
lens-why = { $station }: runoff after 60 × { $asa } ÷ ({ $rate } − { $intake }) = { $longest } min; soak 60 × { $asa } ÷ { $intake } = { $soak } min
at-hundred-short = 100 %
