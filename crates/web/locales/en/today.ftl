today-date = The date
today-day-of = day { $a } of { $b }
today-dial = Percent for { $a }
today-dial-count =
    { $n ->
        [one] one figure to stand at
       *[other] { $n } figures to stand at
    }
today-its-year = Its year
today-calls-for = Calls for
today-dial-percent = Dial %
today-none = No controller has figures yet.
today-none-more = A place, its weather, a controller and its stations give them.
today-next-by-itself = { $b } from { $a }, by itself
today-next-by-hand = { $b } on { $a }, by hand
today-same-all-year = the same all year
today-scale = all to one scale, { $a } a day
today-todo = Next steps
today-todo-none = Nothing is missing anywhere.
today-normal = Normal for { $a }
today-rain-month = { $a } rain a month
today-seven = Seven days
today-week = { $a } ET
todo-weather = { $a } waits for weather
todo-weather-more = { $a } looks at no weather yet.
todo-weather-act = Choose it
todo-stations = { $a } waits for stations
todo-stations-more = At { $a }; minutes follow from them.
todo-stations-act = Enter them
todo-demand = { $a } needs no water
todo-demand-more = At { $a }: rain covers every month, or the base month. Look at the year.
todo-demand-act = Open Year
todo-short = { $a } has short runs
todo-short-more =
    { $n ->
        [one] One month is better watered on fewer days.
       *[other] { $n } months are better watered on fewer days.
    }
todo-short-act = Open Year
todo-turn = Turn { $a } to { $b }
todo-turn-more = The month has changed; this panel keeps one percent. { $a }
todo-turn-act = See why
sun-describe = The sun’s height today, sunrise { $a }, sunset { $b }
sun-length = sun { $a } h { $b } min
sun-never-sets = the sun does not set
sun-never-rises = the sun does not rise
sun-none = none
sun-rise-at = sunrise { $a }
sun-set-at = sunset { $a }
sun-noon-at = noon { $a }, { $b }° high
sun-now = now { $a }
ephem-normal = { $a } normal
due-over = { $a }: { $b }
due-over-more = Over since { $a } ({ $b }): put it back.
due-dial = { $a }: to dial
due-dial-more = { $a }, and { $b } more.
due-dial-act = Dial it in
due-look-again = { $a }: look again
due-look-again-more = Due since { $a }: the ground shows now what the last change did.
due-look-again-act = Walk a round
due-sensor = { $a }: { $b }
due-sensor-act = Open the sensor
due-clock = The clock changes on { $a }, { $b }
due-clock-forward = An hour forward: panels that do not change it themselves run an hour late until somebody sets them.
due-clock-back = An hour back: panels that do not change it themselves run an hour early until somebody sets them.
