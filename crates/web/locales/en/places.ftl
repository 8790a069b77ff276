place = Place
places-title = Places
places-count =
    { $n ->
        [0] none yet
        [one] one place
       *[other] { $n } places
    }
places-none = No place yet.
places-none-more = A place has a position, a time zone and its controllers.
place-new = New place
place-where = Location
place-controllers = Controllers
place-no-weather = none yet
place-position = { $lat } { $ns }, { $lon } { $ew }, { $z }
north = N
south = S
east = E
west = W
place-form-sub = Position, elevation and time zone decide sun and season
place-name = Name
place-house-number = House number
place-house-number-hint = Watering days may go by odd, even or last digit.
place-latitude = Latitude
place-latitude-hint = Decimal, or degrees, minutes and seconds. You can paste both here.
place-longitude = Longitude
place-longitude-hint = East is positive, west is negative.
place-elevation-m = Elevation
place-elevation-hint = Above sea level.
locate = Use this device’s position
locate-failed = This device gave no position. Enter it from a map.
locate-none = This browser does not give its position. Enter it from a map.
place-time-zone = Time zone
place-time-zone-hint = Leave empty to have it follow from the position.
place-time-zone-unknown = Unknown time zone. Choose from the list.
place-units = Your units
place-units-hint = Used on every page you see. What is stored does not change.
place-why-title = Why we ask
place-why-position = Position and elevation
place-why-position-more = Sun angle, day length and air pressure.
place-why-number = House number
place-why-number-more = Many local rules go by the house number.
place-weather-choose = Weather of this place
place-weather-none = No weather yet.
place-weather-none-more = Import a file from a nearby station, or enter twelve normals.
place-weather-use = Use these stations
place-weather-et0 = Reference ET
place-weather-rain = Rain
place-weather-gaps = Fills gaps
place-weather-et0-of = Reference ET from { $station }
place-weather-rain-of = Rain from { $station }
place-weather-gaps-of = Order in which { $station } fills gaps
place-weather-no-gaps = no
place-weather-how = Rain falls locally: take it from the nearest gauge. Reference ET may come from farther away. Gaps are filled in the order of the numbers.
place-weather-share = { $name }: { $days }.
place-weather-missing = Missing: { $days }.
place-weather-no-day = no day
place-weather-et0-days = { $n ->
    [one] reference ET of one day
   *[other] reference ET of { $n } days
}
place-weather-rain-days = { $n ->
    [one] rain of one day
   *[other] rain of { $n } days
}
year-of = Year of { $controller }

# The site file.
site-import-title = Import a site file
site-import-link = Import site file
site-import-sub = A whole place: rules, normals, controllers and panels as found
site-file = Site file
site-file-hint = JSON, as exported from a place. It becomes a new place.
site-look = Preview
site-no-file = Choose a file first.
site-too-large = The file has more than { $most } MB, the limit for a site file.
site-refused = { $file }: { $error }
site-from = in { $file }; nothing has been saved yet
site-zone = Time zone
site-weather = { $name }, twelve normals
site-sensors =
    { $n ->
        [0] no sensor
        [one] one sensor
       *[other] { $n } sensors
    }
site-found =
    { $n ->
        [0] none
        [one] one panel
       *[other] { $n } panels
    }
site-take-in = Import
site-other = Choose another file
site-nothing-yet = Everything is imported as a new place, or nothing is.
site-normals-source = normals of { $place }
site-export = Export site file
why-site = site file imported
