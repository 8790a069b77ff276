weather-title = Weather
weather-none = No weather yet.
weather-none-more = Import a file for a place, or enter twelve normals.
weather-off = { $distance } off
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
series-if = { $month } would be { $one } or { $other } instead of { $now } a day.
good-near = reference ET and rain
good-far = reference ET; rain by the month, not by the day
good-very-far = too far for rain; reference ET only in similar country
good-typed = monthly percents; nothing by the day
good-rain-near = rain, day by day
good-rain = rain by the month, not by the day
good-history = normals only: the record ended on { $date }
good-ended = history: the record ended on { $date }
good-unknown = depends on the distance
compass-n = N
compass-ne = NE
compass-e = E
compass-se = SE
compass-s = S
compass-sw = SW
compass-w = W
compass-nw = NW
station-move = Move or rename the station
station-move-hint = Where it stands, and how high its wind sensor is. Reference ET and normals are worked out again for the new position.
station-move-save = Save station
why-weather-moved = weather station moved
why-weather-name = weather station renamed
method-none = no reference ET
rain-from-note = from { $station }
gaps-from-note = gaps from { $stations }
method-typed = entered by hand
method-typed-temperatures = from entered highs and lows (Hargreaves and Samani)
method-pm = Penman-Monteith, all inputs measured
method-pm-guesses =
    { $n ->
        [one] Penman-Monteith, one input estimated
       *[other] Penman-Monteith, { $n } inputs estimated
    }
method-hours = Penman-Monteith by the hour, all inputs measured
method-hours-guesses =
    { $n ->
        [one] Penman-Monteith by the hour, one input estimated
       *[other] Penman-Monteith by the hour, { $n } inputs estimated
    }
method-hargreaves = Hargreaves, from temperatures alone

# Twelve normals.
normals-title = Twelve normals
normals-sub = Reference ET and rain of an average year
normals-sub-temperatures = Mean highs, lows and rain of an average year
normals-by-climate = Describe the climate instead
normals-sub-climate = The climate in words, and the rain of an average year where it is known
normals-why-climate = Where nothing is printed for the region, its climate in words gives a range of reference ET for each season ([FAO-56] table 2); its middle stands in, and the months between go by the sun. It is marked as a guess. The percents need only how the year goes; the minutes of the peak month are as far off as the range is wide. Measured months replace it as they come in.
normals-air = Air
normals-summer = Warmest months
normals-winter = Coldest months
normals-season-hint = Mean of day and night.
normals-winter-warmer = The coldest months are not warmer than the warmest.
normals-covers = { $middle } ({ $range })
normals-climate = { $air }; warmest months { $summer }; coldest { $winter }
air-arid = dry
air-humid = humid
warmth-cold = cold, around freezing
warmth-cool = cool, around 10 °C (50 °F)
warmth-moderate = moderate, around 20 °C (68 °F)
warmth-warm = warm, over 30 °C (86 °F)
method-typed-climate = from a climate in words ({ $climate })
normals-by-et0 = Enter reference ET instead
normals-by-temperatures = Enter highs and lows instead
normals-work-out = Work out reference ET
normals-high = Mean high
normals-low = Mean low
normals-low-above-high = The low is above the high.
normals-why-temperatures = Any climate summary prints mean daily highs, lows and rain. Reference ET follows from those and the latitude (Hargreaves and Samani). It is marked as a guess: in humid or windy places it can be off by a fifth.
normals-new = No weather file?
normals-new-sub = use twelve normals
normals-hint = A new property often has no record. Monthly reference ET and rain from a climate summary are enough for the percents.
normals-type = Enter twelve normals
normals-edit = Edit normals
normals-table = Normals
normals-cell = { $quantity }, { $month }
normals-name = Normals for { $place }
normals-source = entered by hand
normals-typed = entered normals
normals-typed-measured = entered normals, partly measured since
normals-give-way =
    { $n ->
        [one] Entered normals give way to a month as soon as it is measured from end to end.
       *[other] Entered normals give way to measured months: each one counts 1/{ $n }, and after { $n } years nothing else.
    }
normals-rain-all = Enter rain for every month or for none. A blank is not 0.
normals-all-zero = Reference ET is 0 in every month. At least one month must be above 0.
normals-why-title = Where to find them
normals-why = Climate summaries of the nearest weather station list monthly reference ET. If not, the regional agricultural service often does.
normals-south = In the southern hemisphere the peak is around January. Enter the months as they are.
year-word = Year

# The preview of a weather file.
file-new = Import weather
file-new-sub = preview first, nothing saved
file-label = Weather file
file-hint = CSV with a row a day or many, whatever its headers; a typical year as EPW; GHCN-Daily (.dly).
file-look = Preview
file-look-again = Preview again
file-progress = Progress
file-sending = Uploading
file-reading = Reading the file
file-not-sent = The upload broke off. Check the connection and try again.
file-importing = Importing. Nothing is saved before all of it is.
waiting-title = Not imported yet
waiting-sub = kept for a day
waiting-said = { $size }, sent by { $who } { $when }
waiting-go-on = Continue
waiting-discard = Discard
waiting-left = Kept for a day as you leave it.
file-title = Weather file
file-taking-in = Importing a file
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
file-becomes-of = Import { $header } as
file-unit = Unit
file-unit-of = Unit of { $header }
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
unit-inches = inches
file-open-unit = { $header }: which unit is { $column } in?
file-open-missing = Choose the column with the { $column }.
file-open-twice = Two columns are the { $column }. Leave one out.
file-open-months = No days in { $months }. A full year is needed for all twelve months.
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
file-faults-sub = mend them here, or in the file and upload it again; it is all or nothing
file-leave-out = Leave this line out
file-mended =
  { $n ->
    [one] One line mended
   *[other] { $n } lines mended
  }
file-mended-sub = The file stays as it was sent. What you typed counts at the import.
file-mended-source = { $source } ({ $mended })
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
fault-cells = { $found } cells under { $expected } headers.
fault-date = “{ $text }” is not a date in this order.
fault-number = { $column }: “{ $text }” is not a number.
fault-duplicate = This day is already on line { $line }.
day-crossed = Lowest { $lowest } is above highest { $highest }. Swapped?
day-out-of-range = { $what } { $value }. { $allowed }
day-over-saturation = Humidity { $humidity } % is read as 100.
day-rh-crossed = Lowest humidity is above highest humidity.
day-dew-point = Dew point is above the highest temperature.
day-solar = Solar radiation { $measured } MJ/m² is above the clear-sky maximum here, { $most }.
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
file-take = Import { $days } days
file-station = Weather station
file-station-sub = from the place
file-station-told = from the file
file-mast = Wind sensor height
file-good-for = What this file is good for
good-every-day = every day
how-doubtful = Doubtful
good-sun-at-night =
    { $n ->
        [one] the sun shines at night on one day: are its times those of the place?
       *[other] the sun shines at night on { $n } days: are its times those of the place?
    }
good-some-days = { $there } of { $all } days
good-temperature-none = nothing can be worked out
file-too-large = The file is larger than 32 MB. A hundred years of daily data take about 4.
file-not-text = This is not a text file. Upload the CSV itself.
file-empty = The file is empty.
file-header-twice = The header “{ $header }” appears twice.
file-too-wide = The file has { $found } columns; up to { $most } are read.
file-too-long = The file has more than { $most } rows, which is more days than any record has.
file-no-rows = There is a header but no data.
file-malformed = Line { $line }: { $problem }
names-and-more = { $names } and { $more } more

record-shown = { $first } to { $last }
record-describe = { $name }, { $period }: rain, temperature, reference ET, and sun against a clear sky
record-where = { $lat }°, { $lon }°, { $height }, wind at { $wind }
record-import = Import
record-export = Export CSV
record-side = The last days, readings and flags
record-30-days = 30 days
record-this-year = This year
record-12-months = 12 months
record-all = All
record-earlier = Earlier
record-later = Later
record-closer = Zoom in
record-wider = Zoom out
record-means = each stroke is { $days } days
record-air = Air
record-high = high { $temperature }
record-low = low { $temperature }
record-no-rain = no rain
record-last-frost = last frost { $date }
record-dots = dots: normal
record-dashes = dashes: clear sky
record-sun-of = { $measured } of { $clear }
record-whole = Whole
record-whole-more = record
record-drag = drag an edge
record-keys = or keys + and −
record-normals = Normals
record-a-month = { $unit } a month
record-et0 = ET₀
record-et0-entered = ET₀ entered
record-et0-measured = ET₀ measured
record-rain = Rain
record-rain-dry = Rain, dry
record-rain-middle = Rain, middle
record-rain-wet = Rain, wet
record-years = { $first } to { $last }
record-spread-ends = dry and wet: driest and wettest of { $years } years
record-spread-rank = dry and wet: number { $rank } from each end of { $years } years
record-complete-h = Days on record, by month
record-complete = { $there } of { $due } days
record-all-days = all
record-30 = Last 30 days
record-recent-sub = { $first } to { $last }
record-of-rain = { $depth } of rain
record-of-scheduled = { $depth } scheduled, { $times }
record-high-col = High
record-low-col = Low
record-scheduled = Sched.
record-flag = Flag
record-controller = Controller
record-show-scheduled = Show its schedule
record-scheduled-note = as the schedule stands today
record-flags =
    { $n ->
        [0] No flags
        [one] One flag
       *[other] { $n } flags
    }
record-flags-sub = the original is kept
record-flags-none = Nothing in this record looks doubtful.
record-decided = Reviewed values
record-value = Value
record-read = Read
record-counts = Counts
reading-title = Enter rain by hand
reading-sub = read at the gauge
reading-date = Day
reading-save = Save rain
reading-reason = read at the gauge
reading-date-range = A day between the first of this record and today.
flag-many = { $days } days: { $what }
flag-many-fact = Between { $first } and { $last }.
flag-clear-sky = Sun above a clear sky
flag-clear-sky-fact = { $date }: { $value }; a clear sky gives { $clear }.
flag-saturation = Humidity above 100 %
flag-saturation-fact = { $date }: { $value }, taken as 100 %.
flag-dew-point = Dew point above the day’s high
flag-dew-point-fact = { $date }: { $value }; the high was { $high }.
flag-stuck = High of { $value } again and again
flag-stuck-fact = { $from } to { $to }: the same for { $days } days.
flag-neighbours = Doubtful { $element }: { $value }
flag-neighbours-fact = { $date }; the days beside it had { $before } and { $after }.
flag-accept = Accept
flag-exclude = Exclude
flag-correct = Correct it
flag-value = Right value
flag-reason = Reason
flag-save = Save correction
decision-nothing = nothing
decision-accepted = as read
decision-excluded = excluded
decision-back = Take back
decision-back-of = Take back the decision on the { $name } of { $date }
decision-too-much = This cannot be left out. { $error }
decision-reason-long = At most { $most } characters.
decision-low-above-high = The low would be above the high of that day.
decision-humidity-crossed = The lowest humidity would be above the highest.
decision-impossible = This value is not possible.
layout = { $separator }, { $encoding }
layout-joined = { $rows } rows joined to { $days } days
layout-joined-utc = { $layout }; times with their offset from UTC, days of { $zone }
layout-comma = comma, decimal point
layout-semicolon = semicolon, decimal comma
layout-tab = tab, decimal comma
layout-preamble = { $n ->
        [one] , one line above the header
       *[other] , { $n } lines above the header
    }
propose-date = The dates can be read day first or month first.
propose-range = { $low } to { $high }: { $unit }.
propose-hottest = As { $unit } the warmest would be { $value } °C.
propose-rain = As { $unit } it would be { $value } mm a year.
propose-wind = As { $unit } the mean would be { $value } m/s.
propose-sun = As { $unit } the sunniest day would have { $value } MJ/m².
propose-take =
    { $n ->
        [one] Use this unit
       *[other] Use these { $n } units
    }
join-title = Station or record
join-into = Import as
join-new = a new station
join-known = more of { $station }
join-typed = measured months of { $station }
join-added =
    { $n ->
        [0] No day is new.
        [one] One day is new.
       *[other] { $n } days are new.
    }
join-same =
    { $n ->
        [one] One day is on record already.
       *[other] { $n } days are on record already.
    }
join-filled =
    { $n ->
        [one] One missing value is filled.
       *[other] { $n } missing values are filled.
    }
join-hours =
    { $n ->
        [one] The hours of one day are new.
       *[other] The hours of { $n } days are new.
    }
join-differs =
    { $n ->
        [one] One value is replaced:
       *[other] { $n } values are replaced:
    }
join-dropped =
    { $n ->
        [one] One reviewed value has changed and is reviewed again.
       *[other] { $n } reviewed values have changed and are reviewed again.
    }
join-more = and { $more } more.
join-doubtful = Most values differ from { $station }: is this the same station?
join-table = Values that are replaced
join-was = On record
join-is = In the file
join-nothing = days are new.
join-nothing-more = All days of this file are on record already.

# The hours of a day.
hours-title = Hours of { $date }
hours-describe = { $name }, { $date }, hour by hour: rain, temperature, wind, reference ET, and sun against a clear sky
hours-none = No hours are on record for this day.
hours-show = Show day
hours-from = From
hours-note = Estimated
hours-side = Reference ET of the day
hours-up-to = up to { $wind }
hours-sum = Sum of the hours
hours-daily = Daily equation
hours-no-figure = needs every hour of the day
hours-counts-sum = The sum of the hours counts: it knows when the wind blew and the sun shone.
hours-counts-missing = The daily equation counts, as hours are missing.
hours-counts-doubted = The daily equation counts, as a value of this day was excluded or corrected.
hours-counts-guessed = The daily equation counts, as more would have to be estimated for the hours.
