weather-title = Weather
weather-none = No weather yet.
weather-none-more = A place takes in its file, or has twelve normals typed.
weather-off = { $a } off
series = Series
series-name = Name of the series
series-count =
    { $n ->
        [0] none yet
        [one] one series
       *[other] { $n } series
    }
series-days = Days
series-span = { $from } to { $to }, { $days } days
series-typed = twelve typed normals
series-used-by = Looked at by
series-distance = Distance
series-good-for = Good for
series-method = How it was worked out
series-method-name = In files
series-source = Source
series-if = { $month } would be { $a } or { $b } instead of { $now } a day.
good-near = reference ET and rain
good-far = reference ET; months of rain, single days poor
good-very-far = too far for rain; reference ET only if the land is alike
good-typed = percents by month; nothing by the day
good-unknown = depends on the distance
method-typed = typed
method-pm = Penman-Monteith, all inputs measured
method-pm-guesses =
    { $n ->
        [one] Penman-Monteith, one input stood in for
       *[other] Penman-Monteith, { $n } inputs stood in for
    }
method-hargreaves = Hargreaves, from temperatures alone

# Twelve normals.
normals-title = Twelve normals
normals-sub = Reference ET and rain of an average year
normals-new = No file?
normals-new-sub = twelve normals carry it
normals-hint = A new property often has no series. Monthly reference ET and rain from a climate summary give the percents just as well.
normals-type = Type twelve normals
normals-edit = Change the normals
normals-table = Normals
normals-cell = { $a }, { $b }
normals-name = Normals for { $a }
normals-source = typed by hand
normals-typed = typed normals
normals-rain-all = Rain in every month, or in none: a blank is not 0.
normals-all-zero = Reference ET is 0 in every month; nothing can be a share of it.
normals-why-title = Where to find them
normals-why = Climate summaries of the nearest station give monthly reference ET; where there is none, the agricultural service of the region often has it.
normals-south = In the south the peak is around January; type the months as they are.
year-word = Year

# A weather file that is looked at.
file-new = A weather file
file-new-sub = looked at first, nothing stored
file-label = Daily weather as CSV
file-hint = Commas between columns, points in numbers, one line a day. Headers may be anything; you say what they mean.
file-look = Look at it
file-look-again = Look again
file-title = Weather file
file-taking-in = Taking in a file
file-format = comma, decimal point, UTF-8
file-nothing-stored = nothing stored
file-lines =
    { $n ->
        [one] one line
       *[other] { $n } lines
    }
file-sub = { $lines } lines, { $from } to { $to }
file-columns = Columns of the file
file-in-file = In the file
file-first = First value
file-read-by = Read by
file-becomes = Becomes
file-becomes-of = { $a } becomes
file-unit = Unit there
file-unit-of = Unit of { $a }
read-by-name = its name
read-by-hand = your hand
read-by-nobody = nobody
read-not-settled = not settled
column-leave-out = leave it out
column-date = date
column-tmax = highest temperature
column-tmin = lowest temperature
column-rhmax = highest humidity
column-rhmin = lowest humidity
column-rhmean = mean humidity
column-dewpoint = dew point
column-wind = wind
column-solar = solar radiation
column-rain = rain
unit-choose = choose a unit
unit-ymd = year-month-day
unit-dmy = day-month-year
unit-mdy = month-day-year
unit-c = °C
unit-f = °F
unit-pct = %
unit-ms = m/s
unit-kmh = km/h
unit-mph = mph
unit-kn = knots
unit-mj = MJ/m² a day
unit-w = W/m²
unit-ly = langleys a day
unit-mm = mm
unit-in = in
file-open-unit = { $a }: { $b } in what unit?
file-open-missing = No column is the { $a }.
file-open-twice = Two columns are the { $a }; leave one out.
file-open-months = No day in { $a }: twelve months take a year or more.
file-series = The series
file-series-sub = each month from its mean lowest to its mean highest; rain hangs
file-series-describe = Temperature and rain of the file by month
file-by-month-c = °C by month
file-by-month-mm = by month
file-faults =
    { $n ->
        [one] One line that cannot stand
       *[other] { $n } lines that cannot stand
    }
file-faults-sub = mend them in the file and send it again; it is all or nothing
file-notes =
    { $n ->
        [one] One line to look at
       *[other] { $n } lines to look at
    }
file-notes-sub = they bar nothing
file-more =
    { $n ->
        [one] and one more
       *[other] and { $n } more
    }
file-line = Line
file-date = Date
file-wrong = What is wrong
file-doubtful = What is doubtful
fault-cells = { $a } cells under { $b } headers.
fault-date = “{ $a }” is no day in this order.
fault-number = { $a }: “{ $b }” is not a number.
fault-duplicate = The same day stands on line { $a } already.
day-crossed = Lowest { $a } stands above highest { $b }: changed places?
day-out-of-range = { $what } { $value }. { $allowed }
day-over-saturation = Humidity { $a } % is taken as 100.
day-rh-crossed = The lowest humidity stands above the highest.
day-dew-point = The dew point stands above the highest temperature.
day-solar = Sun { $a } MJ/m² is more than a clear sky gives here, { $b }.
note-no-temperature = A temperature is missing: the day has no reference ET.
note-gap =
    { $n ->
        [one] One day is missing before this line.
       *[other] { $n } days are missing before this line. Is the year typed right?
    }
note-out-of-order = The day comes before the one above it.
note-stuck = The highest temperature has not moved for { $n } days: a stuck sensor?
quantity-temperature = Temperature
quantity-humidity = Humidity
quantity-wind = Wind
quantity-solar = Sun
quantity-rain = Rain
file-nothing-yet = Nothing goes in yet
file-all-settled = All settled
file-all-or-nothing = all or nothing
file-to-settle =
    { $n ->
        [one] thing to settle first:
       *[other] things to settle first:
    }
file-to-settle-more = then all days go in together, or none.
file-ready = days are sound.
file-ready-more = They go in together; undo stays open.
file-take = Take in { $a } days
file-station = The station
file-station-sub = taken from the place
file-mast = Wind mast
file-good-for = What the data are good for
good-every-day = every day
good-some-days = { $a } of { $b } days
good-temperature-none = nothing can be worked out
file-too-large = The file is larger than 32 MB. A hundred years of days take about 4.
file-not-text = This is not a text file, whatever its name says. Send the CSV itself.
file-not-utf8 = Line { $a } is not UTF-8 text. Save the file as UTF-8.
file-empty = The file is empty.
file-semicolons = The columns are separated by semicolons. Save the file with commas between the columns and points in the numbers.
file-tabs = The columns are separated by tabs. Save the file with commas between the columns.
file-header-twice = The header “{ $a }” is there twice.
file-no-rows = There is a header but no line under it.
file-malformed = Line { $a }: { $b }
