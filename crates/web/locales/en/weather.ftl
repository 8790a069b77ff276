weather-title = Weather
weather-none = No weather yet.
weather-none-more = Import a file for a place, or enter twelve normals.
weather-off = { $a } off
series = Series
series-name = Name
series-count =
    { $n ->
        [0] none yet
        [one] one series
       *[other] { $n } series
    }
series-days = Days
series-span = { $from } to { $to }, { $days } days
series-typed = twelve typed normals
series-used-by = Used by
series-distance = Distance
series-good-for = Good for
series-method = Method
series-method-name = Name in files
series-source = Source
series-if = { $month } would be { $a } or { $b } instead of { $now } a day.
good-near = reference ET and rain
good-far = reference ET; rain by the month, not by the day
good-very-far = too far for rain; reference ET only in similar country
good-typed = monthly percents; nothing by the day
good-unknown = depends on the distance
method-typed = entered by hand
method-pm = Penman-Monteith, all inputs measured
method-pm-guesses =
    { $n ->
        [one] Penman-Monteith, one input estimated
       *[other] Penman-Monteith, { $n } inputs estimated
    }
method-hargreaves = Hargreaves, from temperatures alone

# Twelve normals.
normals-title = Twelve normals
normals-sub = Reference ET and rain of an average year
normals-new = No weather file?
normals-new-sub = use twelve normals
normals-hint = A new property often has no record. Monthly reference ET and rain from a climate summary are enough for the percents.
normals-type = Enter twelve normals
normals-edit = Edit normals
normals-table = Normals
normals-cell = { $a }, { $b }
normals-name = Normals for { $a }
normals-source = entered by hand
normals-typed = entered normals
normals-rain-all = Enter rain for every month or for none. A blank is not 0.
normals-all-zero = Reference ET is 0 in every month. At least one month must be above 0.
normals-why-title = Where to find them
normals-why = Climate summaries of the nearest weather station list monthly reference ET. If not, the regional agricultural service often does.
normals-south = In the southern hemisphere the peak is around January. Enter the months as they are.
year-word = Year

# The preview of a weather file.
file-new = Import weather
file-new-sub = preview first, nothing saved
file-label = Daily weather as CSV
file-hint = Comma-separated, decimal points, one row a day. Any headers; you say what they mean.
file-look = Preview
file-look-again = Preview again
file-title = Weather file
file-taking-in = Importing a file
file-format = comma, decimal point, UTF-8
file-nothing-stored = nothing saved yet
file-lines =
    { $n ->
        [one] one line
       *[other] { $n } lines
    }
file-sub = { $lines } lines, { $from } to { $to }
file-columns = Columns
file-in-file = In the file
file-first = First value
file-read-by = Matched by
file-becomes = Import as
file-becomes-of = Import { $a } as
file-unit = Unit
file-unit-of = Unit of { $a }
read-by-name = name
read-by-hand = you
read-by-nobody = not used
read-needs-unit = needs a unit
column-leave-out = do not import
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
file-open-unit = { $a }: which unit is { $b } in?
file-open-missing = Choose the column with the { $a }.
file-open-twice = Two columns are the { $a }. Leave one out.
file-open-months = No days in { $a }. A full year is needed for all twelve months.
file-series = Preview
file-series-sub = each month from mean lowest to mean highest; rain hangs from the top
file-series-describe = Temperature and rain of the file by month
file-by-month-c = °C by month
file-by-month-mm = by month
file-faults =
    { $n ->
        [one] One line with an error
       *[other] { $n } lines with errors
    }
file-faults-sub = fix them in the file and upload it again; it is all or nothing
file-notes =
    { $n ->
        [one] One line to check
       *[other] { $n } lines to check
    }
file-notes-sub = these can be imported
file-more =
    { $n ->
        [one] and one more
       *[other] and { $n } more
    }
file-line = Line
file-date = Date
file-wrong = Error
file-doubtful = Check
fault-cells = { $a } cells under { $b } headers.
fault-date = “{ $a }” is not a date in this order.
fault-number = { $a }: “{ $b }” is not a number.
fault-duplicate = This day is already on line { $a }.
day-crossed = Lowest { $a } is above highest { $b }. Swapped?
day-out-of-range = { $what } { $value }. { $allowed }
day-over-saturation = Humidity { $a } % is read as 100.
day-rh-crossed = Lowest humidity is above highest humidity.
day-dew-point = Dew point is above the highest temperature.
day-solar = Solar radiation { $a } MJ/m² is above the clear-sky maximum here, { $b }.
note-no-temperature = A temperature is missing: the day has no reference ET.
note-gap =
    { $n ->
        [one] One day is missing before this line.
       *[other] { $n } days are missing before this line. Is the year typed right?
    }
note-out-of-order = This day comes before the one above it.
note-stuck = The highest temperature has not changed for { $n } days. Stuck sensor?
quantity-temperature = Temperature
quantity-humidity = Humidity
quantity-wind = Wind
quantity-solar = Sun
quantity-rain = Rain
file-nothing-yet = Nothing imported yet
file-ready-to-import = Ready to import
file-all-or-nothing = all or nothing
file-to-choose =
    { $n ->
        [one] thing to choose first:
       *[other] things to choose first:
    }
file-to-choose-more = then every day is imported, or none.
file-ready = days are ready.
file-ready-more = They are imported together and can be undone.
file-take = Import { $a } days
file-station = Weather station
file-station-sub = from the place
file-mast = Wind sensor height
file-good-for = What this file is good for
good-every-day = every day
good-some-days = { $a } of { $b } days
good-temperature-none = nothing can be worked out
file-too-large = The file is larger than 32 MB. A hundred years of daily data take about 4.
file-not-text = This is not a text file. Upload the CSV itself.
file-not-utf8 = Line { $a } is not UTF-8 text. Save the file as UTF-8.
file-empty = The file is empty.
file-semicolons = The columns are separated by semicolons. Save the file with commas between columns and decimal points.
file-tabs = The columns are separated by tabs. Save the file with commas between columns.
file-header-twice = The header “{ $a }” appears twice.
file-too-wide = The file has { $a } columns; up to { $b } are read.
file-too-long = The file has more than { $a } rows, which is more days than any record has.
file-no-rows = There is a header but no data.
file-malformed = Line { $a }: { $b }
names-and-more = { $a } and { $b } more
