# Words of every page.
product = Upland Almanac
product-line = Watering that follows the weather, with the working shown.
skip-to-page = Skip to the page
nav-views = Views
nav-today = Today
nav-places = Places
nav-replay = Replay
nav-weather = Weather
nav-reference = Reference
crumbs = Where you are
close = Close
cancel = Cancel
save = Save
open = Open
undo = Undo
yes = yes
no = no
off = off
off-title = Off
row = Row
number = Number
minutes = Minutes
month = Month
saved-now = Saved just now
saved-minutes =
    { $n ->
        [one] Saved 1 min ago
       *[other] Saved { $n } min ago
    }
saved-hours =
    { $n ->
        [one] Saved an hour ago
       *[other] Saved { $n } hours ago
    }
saved-on = Saved on { $date }
ago-now = less than an hour ago
ago-hours =
    { $n ->
        [one] 1 hour ago
       *[other] { $n } hours ago
    }
ago-days =
    { $n ->
        [one] 1 day ago
       *[other] { $n } days ago
    }
units-to-us = Inches
units-to-metric = Millimetres
units-metric = metric (mm, m, °C)
units-us = US (in, ft, °F)
keys-title = Keys
keys-help = this list
keys-today = Today
keys-places = Places
keys-weather = Weather
keys-reference = Reference
keys-stations = next and previous station or month
keys-undo = undo the last change
keys-escape = put a month back as it was
a-day = { $depth } a day
month-1 = January
month-2 = February
month-3 = March
month-4 = April
month-5 = May
month-6 = June
month-7 = July
month-8 = August
month-9 = September
month-10 = October
month-11 = November
month-12 = December
mon-1 = Jan
mon-2 = Feb
mon-3 = Mar
mon-4 = Apr
mon-5 = May
mon-6 = Jun
mon-7 = Jul
mon-8 = Aug
mon-9 = Sep
mon-10 = Oct
mon-11 = Nov
mon-12 = Dec
day-1 = Monday
day-2 = Tuesday
day-3 = Wednesday
day-4 = Thursday
day-5 = Friday
day-6 = Saturday
day-7 = Sunday
date-short = { $day } { $month }
date-long = { $date } { $year }
month-year = { $month } { $year }

# A live answer that does not come.
live-late = Still working it out. The figures are those from before your change.
live-failed = The figures could not be updated and are those from before your change. What you typed is still here.
live-signed-out = You are signed out, so the figures are no longer updated. Sign in again in another tab; what you typed is still here.

# What is wrong beside a field.
field-not-a-number = “{ $text }” is not a number.
field-allowed = Enter { $from } to { $to } { $unit }
field-name = Enter 1 to 60 characters.
field-length = Enter { $min } to { $max } characters.
field-control = Control characters are not allowed.
field-months = { $count } numbers: twelve are needed, January first.
field-count = At most { $max } are allowed.
field-choice = Choose from the list.
form-errors =
    { $n ->
        [one] Check one field. Nothing was saved; what you typed is kept.
       *[other] Check { $n } fields. Nothing was saved; what you typed is kept.
    }

# Pages that say what went wrong.
error-home = Go to Today
error-not-found-title = Page not found
error-not-found-text = There is no page at this address, or it belongs to another company.
error-forged-title = Not saved
error-forged-text = This form has expired. Go back, reload the page and save again.
error-not-a-form-title = Request not understood
error-not-a-form-text = The form could not be read. Nothing was changed.
error-too-large-title = Too large
error-too-large-text = That is more than can be sent at once. Nothing was changed.
error-away-title = The database is not answering
error-away-text = Nothing was lost. Reload the page in a moment.
error-ours-title = Something went wrong here
error-ours-text = This page could not be shown. Nothing was changed. The server’s log has the time and the request’s id.
undo-conflict-title = Cannot undo
undo-conflict-text = Someone else has changed this since. Open the page and make the change by hand, so that their work is kept.
undo-in-use-title = Cannot undo
undo-in-use-text = Something else depends on it. Remove that first.

# Two people at once.
conflict-title = Someone else saved first
conflict-who = { $person } saved this at { $time } UTC
conflict-text = while you were editing. Compare the two versions and choose one.
conflict-what = Field
changed-of = { $thing }, { $field }
changed-panel = Panel
changed-station = Station { $station }
changed-program = Program { $program }
changed-sensor = Sensor { $sensor }
changed-temporary = Temporary setting { $id }
changed-month = percent of { $month }
changed-month-waterings = waterings a week in { $month }
changed-days = days
changed-starts = starts
changed-never = never on
changed-split = starts that share a watering
changed-computed = as worked out
changed-weekdays = weekdays
conflict-theirs = Saved
conflict-mine = Yours
conflict-keep-theirs = Keep the saved version
conflict-save-mine = Save mine instead

# What was done, for undo and the log.
why-undo = undone
why-place = place changed
why-place-new = place added
why-controller = controller changed
why-controller-new = controller added
why-replay = setting applied from a replay
why-stations = stations changed
why-month = month changed
why-program = program changed
why-weather-choice = weather chosen
why-weather-file = weather file imported
why-measured = application rate measured
why-felt = soil told by feel
why-weather-value = weather value reviewed
why-normals = normals entered

# Steps of a controller.
spine-label = Steps of this controller
step-place = Place
step-controller = Controller
step-stations = Stations
step-weather = Weather
step-year = Year
step-door-card = Door card
state-done = done
state-part = incomplete
state-fault = needs attention
state-todo = not yet
next-step = Next: { $step }
next-stations = Minutes are worked out from plants, sprinklers and soil.
next-weather = Percents are worked out from the weather.
next-year = The year cannot be worked out yet.
next-door-card = Everything is ready to dial in.

# How a figure is known.
how-measured = Measured
how-table = Table
how-guessed = Default
how-measured-low = measured
how-table-low = from a table
how-guessed-low = default
provenance = Where the inputs come from
working = Working
not-there = missing
entered = entered as a number
why-week = week changed
why-repair = finding repaired
why-by-hand = handed over to a person
why-repair-all = all findings repaired
why-proposal = proposed schedule applied
wd-1 = Mon
wd-2 = Tue
wd-3 = Wed
wd-4 = Thu
wd-5 = Fri
wd-6 = Sat
wd-7 = Sun
error-not-allowed-title = Your role does not allow this
error-not-allowed-text = A lead of your company can do it, or change your role.
undo-done-title = It is undone already
undo-done-text = Nothing was changed.
read-only = You can read everything here, and change nothing.

## Long lists

finder-go = Find
finder-all = Show all
finder-shown = { $first } to { $last } of { $total }
finder-before = Previous
finder-after = Next
finder-nothing = Nothing is called that.
finder-place = Find a place or controller
