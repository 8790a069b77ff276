# Words of every page.
product = Upland Almanac
product-line = Watering that follows the weather, with the working shown.
skip-to-page = Skip to the page
nav-views = Views
nav-today = Today
nav-places = Places
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
saved-on = Saved on { $a }
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
keys-undo = take the last change back
keys-escape = leave a month as it was
a-day = { $a } a day
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
date-short = { $a } { $b }
date-long = { $a } { $b }
month-year = { $a } { $b }

# What is wrong beside a field.
field-not-a-number = “{ $a }” is not a number.
field-allowed = Allowed: { $from } to { $to } { $unit }
field-name = A name has 1 to 60 characters.
field-choice = Choose one of the list.
form-errors =
    { $n ->
        [one] One field needs a look. Nothing was saved; what you typed is kept.
       *[other] { $n } fields need a look. Nothing was saved; what you typed is kept.
    }

# Pages that say what went wrong.
error-home = To the first page
error-not-found-title = Nothing is here
error-not-found-text = There is no such page, or it belongs to somebody else.
error-forged-title = Not saved
error-forged-text = This change did not come from a page of this session. Go back, load the page again, and save once more.
error-not-a-form-title = Not understood
error-not-a-form-text = What was sent is not what our pages send. Nothing was changed.
error-too-large-title = Too much at once
error-too-large-text = More was sent than is taken in one go. Nothing was changed.
error-away-title = The records are out of reach
error-away-text = The database does not answer. Nothing was lost; load the page again in a moment, it comes back by itself.
error-ours-title = A mistake of ours
error-ours-text = This page could not be made. Nothing was changed. The time and the request’s id are in the server’s log.
undo-conflict-title = Not taken back
undo-conflict-text = Somebody has gone on from this change since. Open the page and change it by hand, so that their work stays.
undo-in-use-title = Not taken back
undo-in-use-text = Something else hangs on what would go. Take that away first.

# Two people at once.
conflict-title = Two people at once
conflict-who = { $a } saved this at { $b } UTC,
conflict-text = while you were at work on it. Both sides are below; choose one.
conflict-what = What
conflict-theirs = As it stands
conflict-mine = As you have it
conflict-keep-theirs = Keep what stands
conflict-save-mine = Save mine over it

# What was done, for undo and the log.
why-undo = a change taken back
why-place = a place changed
why-place-new = a new place
why-controller = a controller changed
why-controller-new = a new controller
why-stations = stations changed
why-month = a month changed
why-program = a program changed
why-weather-choice = other weather chosen
why-weather-file = a weather file taken in
why-normals = typed normals

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
next-step = Next: { $a }
next-stations = Minutes follow from what is watered, by what and on what soil.
next-weather = Percents follow from the weather of the place.
next-year = Something keeps the year from being worked out.
next-door-card = All figures are there to be taken along.

# How a figure is known.
how-measured = Measured
how-table = Table
how-guessed = Guessed
how-measured-low = measured
how-table-low = from a table
how-guessed-low = guessed
provenance = Where the inputs come from
working = Working
not-there = not there
entered = entered as a number
why-week = the Week changed
why-repair = a finding repaired
why-repair-all = all findings repaired
why-proposal = a proposal taken over
wd-1 = Mon
wd-2 = Tue
wd-3 = Wed
wd-4 = Thu
wd-5 = Fri
wd-6 = Sat
wd-7 = Sun
