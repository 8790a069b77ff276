place = Place
places-title = Places
places-count =
    { $n ->
        [0] none yet
        [one] one place
       *[other] { $n } places
    }
places-none = No place yet.
places-none-more = A place has a position, a time zone, and the controllers that hang there.
place-new = New place
place-where = Where it is
place-controllers = Controllers
place-no-weather = none yet
place-position = { $lat } { $ns }, { $lon } { $ew }, { $z }
north = N
south = S
east = E
west = W
place-form-sub = Position, height and time zone decide sun and season
place-name = Name
place-house-number = House number
place-house-number-hint = Watering days may go by odd, even or last digit.
place-house-number-long = At most 12 characters.
place-latitude = Latitude
place-latitude-hint = North is plus, south is minus.
place-longitude = Longitude
place-longitude-hint = East is plus, west is minus.
place-elevation = Elevation
place-elevation-hint = Above sea level.
locate = Take the position of this device
locate-failed = This device gives no position. Type it from a map.
locate-none = This browser does not tell its position. Type it from a map.
place-time-zone = Time zone
place-time-zone-hint = Such as Europe/Zurich or Australia/Hobart.
place-time-zone-unknown = There is no such time zone. Choose one of the list.
place-units = Units you read and type
place-units-hint = For you, on every page; what is stored stays the same.
place-why-title = What it is for
place-why-position = Position and height
place-why-position-more = Sun, day length and air pressure follow from them.
place-why-number = House number
place-why-number-more = Local rules come first; many go by it.
place-weather-choose = Its weather
place-weather-none = No weather yet.
place-weather-none-more = Take in a file of a station near by, or type twelve normals.
place-weather-use = Look at this one
year-of = Year of { $a }

# The site file.
site-import-title = Take in a site file
site-import-link = Take in a site file
site-import-sub = A whole place: rules, normals, controllers, panels as found
site-file = Site file
site-file-hint = JSON, version 1, as a place gives it out. It becomes a new place.
site-look = Look at it
site-no-file = Choose a file first.
site-too-large = The file has more than { $a } MB: no place needs as much.
site-refused = { $a }: { $b }
site-from = in { $a }; nothing is stored yet
site-zone = Time zone
site-weather = { $a }, twelve normals
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
site-take-in = Take it in
site-other = Another file
site-nothing-yet = All of it becomes a new place, or nothing.
site-normals-source = normals of { $a }
site-export = Give out as a site file
why-site = a site file was taken in
