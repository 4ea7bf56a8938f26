"""Where points of a plan lie on the earth: PROJ's geodesics on WGS 84 (pyproj), from the origin along the bearing of each point."""
import json
from math import atan2, degrees, hypot
from pathlib import Path

from pyproj import Geod

GEOD = Geod(ellps="WGS84")
cases = []
for name, lon, lat in [("north", -1.55, 50.79), ("south", 151.2, -33.9), ("tropics", -60.0, 2.5), ("far north", 25.8, 68.4)]:
    for x, y in [(0, 0), (84.5, 36.2), (-120, 75), (300, -250), (-5, -480)]:
        east, north, _ = GEOD.fwd(lon, lat, degrees(atan2(x, y)), hypot(x, y))
        cases.append({"place": name, "origin": [lon, lat], "at": [x, y], "lon": east, "lat": north})
(Path(__file__).parent / "wgs84.json").write_text(json.dumps(cases, indent=1) + "\n")
