"""Makes pyfao56_season.csv: a season of the balance by the package pyfao56 1.4.3 (PyPI).

Run with pyfao56 installed: python pyfao56_season.py ET0.csv > pyfao56_season.csv, where ET0.csv is what
`upland et0` gives for docs/examples/seattle-weather.csv, with the rain of that file as a fourth column.

Evaporation from bare soil is switched off (REW above TEW makes K_r 0), p is constant, runoff is off, and
roots and crop coefficient do not change, so that the package keeps the same account as eq. 82 to 88. The
package takes K_s at the start of a day, before rain and water; the season is chosen so that no water falls
while plants are under stress, where the two conventions agree.
"""

import csv
import datetime as dt
import sys

import pyfao56 as fao

rows = [r for r in csv.DictReader(open(sys.argv[1])) if "2014-04-01" <= r["date"] <= "2014-09-30"]
par = fao.Parameters(
    Kcbini=0.95 - 1e-9, Kcbmid=0.95, Kcbend=0.95, Lini=1, Ldev=1, Lmid=300, Lend=1, hini=0.1, hmax=0.1,
    thetaFC=0.300, thetaWP=0.145, theta0=0.300, Zrini=0.30, Zrmax=0.30, pbase=0.40, Ze=0.1, REW=80, CN2=70,
)
wth = fao.Weather()
wth.rfcrp, wth.z, wth.lat, wth.wndht = "S", 50, 47.61, 2
irr = fao.Irrigation()
season = []
for r in rows:
    day = dt.date.fromisoformat(r["date"])
    dry = day >= dt.date(2014, 8, 1)
    rain = 0.0 if dry else float(r["rain_mm"])
    key = day.strftime("%Y-%j")
    values = dict(Srad=20.0, Tmax=25.0, Tmin=15.0, Vapr=1.2, Tdew=10.0, RHmax=80.0, RHmin=40.0, Wndsp=2.0)
    wth.wdata.loc[key] = [*values.values(), rain, float(r["et0_mm"]), "M"]
    water = 12.0 if not dry and day.weekday() in (0, 2, 4) else 0.0
    if water:
        irr.addevent(day.year, int(day.strftime("%j")), water, 1.0)
    season.append((day, float(r["et0_mm"]), rain, water))
mdl = fao.Model(rows[0]["date"][:4] + "-091", "2014-273", par, wth, irr=irr, cons_p=True)
mdl.run()
out = csv.writer(sys.stdout, lineterminator="\n")
out.writerow(["date", "et0_mm", "rain_mm", "applied_mm", "ks", "et_actual_mm", "percolation_mm", "depletion_mm"])
for (day, et0, rain, water), (_, m) in zip(season, mdl.odata.iterrows()):
    eta = m["ETa"] if "ETa" in m else m["ETcadj"]
    out.writerow([day, et0, rain, water] + [format(float(x), ".9g") for x in (m["Ks"], eta, m["DP"], m["Dr"])])
