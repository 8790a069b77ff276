# The Week: days, starts, runs, findings.
step-week = Week
next-week = Days and starts are not set, or something in them is wrong.
week-sub = { $first } to { $last }, as the controller would run it, one valve at a time
week-now = now
week-sunrise = sunrise { $time }
week-sunset = sunset { $time }
week-describe = Seven days by twenty-four hours: every run of every program, forbidden hours and days hatched
week-closed-hours = no watering { $from } to { $to }
week-closed-day = no watering on { $day }
week-total = { $volume } { $unit } this week
week-total-without =
    { $n ->
        [one] one station without an area is not counted
       *[other] { $n } stations without an area are not counted
    }
week-at-now = At { $month }’s percent
week-at-highest = At the year’s highest
week-program = Program
week-days = Days
week-starts = Starts
week-percent = Percent
week-ends = Ends
week-ends-highest = At { $month }’s { $percent }
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
week-sound = No findings: this week keeps the rules, ends in time in every month, and no run exceeds what the soil takes.
week-repair-all = Repair all
week-undo = undo with Ctrl Z
week-working = Working
week-start-label = Program { $program }, start { $time }
week-drag = Arrow keys move it, Enter saves, Escape cancels
week-toggle = { $program }: { $day }
week-program-head = Program { $program }
week-change = Edit { $program }
week-mode = Days by
mode-weekdays = weekdays
mode-odd-days = odd dates
mode-even-days = even dates
mode-every-days = every N days
mode-odd = odd dates
mode-even = even dates
mode-every = every { $days } days from { $date }
mode-never = { $days }, never { $never }
week-every = Every
week-next = Next watering
week-never = Never on
week-split = Divide each watering over
week-split-unit = starts
week-split-hint = 1, unless several starts replace cycle and soak.
week-start-n = Start { $number }
week-start-bad = Enter a time in steps of { $step } min, such as 04:30, or leave it empty for off.
week-every-bad = Enter 1 to { $days } days.
week-next-bad = Enter a date, such as 2026-06-11.
week-mode-bad = This panel has no such day mode.
week-stations = Stations at { $month }
week-minutes = Base
week-run = Per run
week-cycles = Cycles
week-cycle = Cycle
week-soak = Soak
week-week-mm = Per week
week-water = Water
week-minutes-hint = Leave empty to have them worked out.
week-minutes-bad = Enter minutes in steps of { $step }, up to { $longest }, or leave it empty.
week-in-one = one run
week-by-hand = A person starts each run of this program. Enter days and a start to give it back to the panel.
week-save = Save { $program }
week-as-worked = { $minutes } worked out
week-empty-title = No schedule yet.
week-empty = Propose a schedule that fits the local rules, this panel and the plants. You can change every part of it.
week-propose-keep = Propose schedule
week-propose-group = Group stations by what they need: turf, beds, drip, roofed
week-propose-again = Propose again
proposals-link = Compare schedules
proposals-head = Compare schedules
proposals-replayed = each replayed over the last year on record
proposals-normals = by the normals of the month; with weather by the day each would be replayed
proposals-grouping = Programs
proposals-keep = Programs as they are
proposals-by-need = Grouped by need
proposals-none = There are no stations to schedule yet.
proposals-best = closest fit
proposals-use = Use this schedule
proposals-title = { $days }, { $time }
proposals-weekdays = Weekdays
proposals-every = Every so many days
proposals-odd = Odd dates
proposals-even = Even dates
proposals-morning = morning
proposals-evening = evening
proposals-both = morning and evening
proposals-pins = Leave as they are
proposals-pins-apply = Propose round them
help-title = What would help
help-why = No schedule fits yet. Each change was tried by itself; what leaves least undone stands first.
help-split = Half of the stations of { $program } in { $other }
help-day = Watering on { $day } too
help-hours = Watering until { $to } instead of { $from }
help-cycles = A panel that cuts runs into cycles by itself
help-panel-days = A panel that waters on { $days } days a week
help-by-you = You can do this here.
help-ask = Ask the authority, or whoever closes it.
help-panel = Another controller.
help-all = everything fits
proposals-deviation = off the weekly need, mean of stations
proposals-adequacy = of the demand met
proposals-volume = a year
proposals-waterings = waterings a year, most of any station
proposals-days = days a week
proposals-ends = ends at the year’s highest percent
proposals-broken =
    { $n ->
        [one] One finding breaks a rule or is a fault.
       *[other] { $n } findings break a rule or are faults.
    }
proposals-caution = What is wet through the night stays wet longest, and some plants fall ill of it: water in the evening only where the morning does not do. Check days and hours with the local authority.
week-propose-why = Days are spread as evenly as the rules allow, as many as soil and plants need. Starts follow one another and end before { $limit }, even at the year’s highest percent.
week-propose-limit = the first closed hour
week-no-stations = There are no stations yet, so nothing runs.
week-shortfall-hours = It does not fit: { $needed } min are needed and { $free } are free in one stretch. More days, a second window or one program less would help.
week-shortfall-days = Program { $program } needs { $needed } waterings a week. Fewer days are allowed, so each watering is heavier.
week-off-now = Nothing runs from { $first } to { $last }: { $reason }
week-why-link = Why did it not water?
week-file-link = Export runs as calendar
week-missing-minutes = Minutes and percents not set by hand count as 0 min and 100 %, because the place has no weather yet.
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
rule-of-the-place = local water rules; check with the authority
rule-of = { $authority }; check with the authority
stake-volume = { $volume } { $unit } a week
stake-missing = short by { $volume } { $unit } a week
stake-depth = { $depth } a week
stake-runoff = up to { $depth } of a run exceeds what the soil takes and runs off
note-waits = anyone expecting water at the set time will not see it
note-not-done = water and pressure are shared with whoever is up by then
note-neighbours = the ground has no day to dry in between
note-ghost = it opens no valve now, but will as soon as a station is added
note-no-minutes = its plants get nothing
note-not-scheduled = its stations get nothing
note-sensor = the sensor overwrites it every night
note-two-ways = each part is cut again, so water does not reach the roots
note-rain-twice = a rainy week falls short
note-deeper-ready = the plants are under stress before each watering
note-openings = what comes after them is not checked
note-window = the plants go without what lies outside
note-plain = check it
f-second-start = { $program } starts twice
f-second-start-more = The start at { $start } waters everything once more.
f-two-ways = { $program } has cycle and soak set twice
f-two-ways-more = The panel splits the runs, and the starts split them again.
f-two-programs = { $station } is in two programs
f-two-programs-more = { $program } runs it, and so does { $second }.
f-not-scheduled = { $program } never runs
f-not-scheduled-more = It has stations but no days or starts.
f-ghost = { $program } starts without stations
f-ghost-more = Days and starts are set, but no station is in it.
f-no-minutes = { $station } has no minutes
f-no-minutes-more = { $program } skips it.
f-runs-off = { $station } runs off
f-runs-off-more = It runs { $run } min at a time; after { $longest } min water stands on the surface.
f-too-few = { $program } has too few starts
f-too-few-more = { $there } of the { $needed } starts its minutes are divided over.
f-too-many = Too many valve openings in a day
f-too-many-more = From { $date } on, the day’s starts and cycles come to more than 5,000 openings. Those beyond are left out here.
f-days-minutes = { $program } waters { $times } times a week
f-days-minutes-once = { $program } waters once a week
f-days-minutes-more = Its minutes are for { $times }.
f-rain-twice = { $program } counts rain twice
f-rain-twice-more = Its months have rain taken off, and a sensor holds it back for the same rain.
f-percent-held = { $month } calls for more than the panel’s highest percent
f-percent-held-more = It calls for { $called } %; the panel ends at { $highest } %.
f-run-held = { $station } needs more than the panel’s longest run
f-run-held-more = It needs { $needed } min; the panel ends at { $longest } min.
f-deeper-soil = { $station } gets more at once than its soil holds
f-deeper-soil-more = { $given } a watering; its roots reach { $reached }. The rest sinks away.
f-deeper-ready = { $station } waits too long for water
f-deeper-ready-more = { $given } a watering; its plants feel it after { $ready }.
f-fights = { $program }’s percent is set twice
f-fights-more = A month is set by hand and a sensor sets the percent too.
f-day = { $program } runs on { $days }
f-day-more = { $n ->
    [one] Watering is not allowed on that day.
   *[other] Watering is not allowed on those days.
}
f-date-more = Watering is not allowed on that date.
f-past-midnight = { $program } runs past midnight into { $date }
f-sensor-required = No rain or freeze sensor is at work
f-sensor-required-more = The rules of this place require one. With the power off, take out its jumper; or end its bypass.
f-hour = { $program } runs after { $time }
f-hour-more = It ends at { $time }.
f-window = { $program } runs outside of the panel’s water windows from { $time }
f-window-late = In { $month } { $program } runs outside of the panel’s water windows from { $from }
f-window-more = It would end at { $time }. The panel does not make what lies outside. Move the start, or set other windows.
f-not-done = { $program } waters until { $time }
f-not-done-late = In { $month } { $program } waters until { $ends }
f-not-done-more = Watering here should be done by { $start }.
f-late = From { $month }, { $program } ends at { $end }
f-late-more-off = It is off now; at { $month }’s percent it goes past { $from }.
f-late-more = { $now } now; at { $month }’s percent it goes past { $from }.
f-waits = { $program } waits for { $other }
f-waits-more = It begins at { $begins }, not { $planned }: up to { $minutes } min late.
f-odd = { $program } runs on the 31st and the 1st
f-odd-more = Both are odd, so it waters two days running.
f-neighbours = { $program } waters two days running
f-neighbours-more = { $first } and { $second } are next to each other; all other days are every other day.
r-remove-start = Remove { $start }
r-move-start = Start { $program } at { $start }
r-take-off = Remove { $days } from { $program }
r-set-days = { $program } on { $days }
r-odd = { $program } on odd dates
r-even = { $program } on even dates
r-every = { $program } every { $days } days
r-never = { $program } never on { $days }
r-cycle = { $station }: { $cycle } min at a time, { $soak } to soak
r-divide = Divide { $program } over { $starts } starts
r-whole = Run { $program } in one go at { $start }
r-clear = Clear { $program }
r-proposal = Apply the proposal for { $program }
r-minutes = { $station }: { $minutes } min as worked out
r-leave = Remove { $station } from { $program }
r-minutes-for = Minutes of { $program } for { $waterings } a week
r-more-often = { $program } on { $days }, with shorter runs
r-rain-to-sensor = { $program } leaves rain to the sensor
r-free = Let the sensor set { $program }
found-second-start = A start time starts the whole program. The first start is the watering; every further start that is not part of a divided watering adds its own water.
found-two-ways = A station has a cycle limit, and the watering is also divided over several starts.
found-too-many = Starts times stations times cycles of one day. No panel and no valve is meant for so many: use fewer starts or longer cycles.
found-two-programs = The station is in both programs. What the second one waters is at stake.
found-not-scheduled = A program with stations and no start, or no allowed day.
found-ghost = A program with days and starts and no station.
found-no-minutes = Its minutes on the panel are 0; a real base time also serves manual runs.
found-runs-off = Longest run before runoff = 60 × surface accumulation ÷ (rate − intake), compared with the run at the year’s highest percent. One minute over is ignored.
found-too-few = A watering divided over N starts needs all N; the rest of the water is at stake.
found-days-minutes = Base minutes deliver the week’s need in that many waterings. On other days the week gets more or less.
found-rain-twice = The program takes effective rain off its months, and a rain, soil or ET sensor that can act governs it. Rain is counted once.
found-percent-held = Demand of the month as a share of the base month’s plant demand, against the panel’s range.
found-run-held = Minutes of a watering at the year’s highest percent, against the panel’s longest run.
found-deeper-soil = Net depth of a watering at the year’s highest percent, against the total available water of its root zone.
found-deeper-ready = Net depth of a watering at the year’s highest percent, against the readily available water of its root zone and a tenth more.
found-fights = A percent that a sensor overwrites must not also be set by month.
found-day = Every start in this period, checked against the local rules.
found-hour = Every run in this period, checked against the closed hours at the percent of its date.
found-window = Every run in this period, now and at the year’s highest percent, checked against the panel’s own water windows.
found-sensor-required = Each rain and freeze sensor is checked for its jumper, and for a bypass in this week.
found-not-done = Every run in this period, now and at the year’s highest percent, against the hour by which the place wants watering done. Evenings from 17:00 are open.
found-late = The same check at the year’s highest percent.
found-waits = One valve at a time: a program that starts while another is running waits for it to end.
found-odd = The 31st is odd and so is the 1st after it; 29 February and 1 March likewise.
found-neighbours = Four weekdays with one pair side by side: every other day that does not come out even.
lens-title = { $day }, program { $program }
lens-bar = { $minutes } min to { $time }
lens-soak = soak { $minutes }
lens-why = { $station }: runoff after 60 × { $asa } ÷ ({ $rate } − { $intake }) = { $longest } min; soak 60 × { $asa } ÷ { $intake } = { $soak } min
at-hundred-short = 100 %
card-own-days = In { $months }: { $days }
