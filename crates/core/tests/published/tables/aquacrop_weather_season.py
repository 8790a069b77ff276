"""Makes aquacrop_weather_season.csv: a season of the balance by the package pyfao56 1.4.3 (PyPI) in the sample
weather of another one, aquacrop 3.1.0 (PyPI): its daily file tunis_climate.txt, whose reference ET is its own.

Run with pyfao56 installed: python aquacrop_weather_season.py tunis_climate.txt > aquacrop_weather_season.csv

The first seven months of 1990: a wet January, 28 mm every fifth day from February to May, then a dry summer
(the 3.2 mm of June are left out: they fell under stress, where the two conventions of K_s differ). The settings
that keep the package's account that of eq. 82 to 88 are those of pyfao56_season.py, which says why.
"""

import csv
import datetime as dt
import sys

import pyfao56 as fao

rows = [r for r in csv.DictReader(open(sys.argv[1]), delimiter="\t") if r["Year"] == "1990" and int(r["Month"]) <= 7]
par = fao.Parameters(
    Kcbini=1.05 - 1e-9, Kcbmid=1.05, Kcbend=1.05, Lini=1, Ldev=1, Lmid=300, Lend=1, hini=0.1, hmax=0.1,
    thetaFC=0.350, thetaWP=0.200, theta0=0.350, Zrini=0.60, Zrmax=0.60, pbase=0.50, Ze=0.1, REW=80, CN2=70,
)
wth = fao.Weather()
wth.rfcrp, wth.z, wth.lat, wth.wndht = "S", 10, 36.8, 2
irr = fao.Irrigation()
season = []
for r in rows:
    day = dt.date(int(r["Year"]), int(r["Month"]), int(r["Day"]))
    rain, et0 = 0.0 if day.month in (6, 7) else float(r["Prcp(mm)"]), float(r["Et0(mm)"])
    values = dict(Srad=20.0, Tmax=25.0, Tmin=15.0, Vapr=1.2, Tdew=10.0, RHmax=80.0, RHmin=40.0, Wndsp=2.0)
    wth.wdata.loc[day.strftime("%Y-%j")] = [*values.values(), rain, et0, "M"]
    water = 28.0 if 2 <= day.month <= 5 and day.day % 5 == 0 else 0.0
    if water:
        irr.addevent(day.year, int(day.strftime("%j")), water, 1.0)
    season.append((day, et0, rain, water))
mdl = fao.Model("1990-001", "1990-212", par, wth, irr=irr, cons_p=True)
mdl.run()
out = csv.writer(sys.stdout, lineterminator="\n")
out.writerow(["date", "et0_mm", "rain_mm", "applied_mm", "ks", "et_actual_mm", "percolation_mm", "depletion_mm"])
for (day, et0, rain, water), (_, m) in zip(season, mdl.odata.iterrows()):
    eta = m["ETa"] if "ETa" in m else m["ETcadj"]
    out.writerow([day, et0, rain, water] + [format(float(x), ".9g") for x in (m["Ks"], eta, m["DP"], m["Dr"])])
