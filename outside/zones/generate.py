"""Time zones: the rule that each zone of the IANA database follows now, and when its clocks change.

The rule is the last line of the zone's TZif file (RFC 8536, section 3.3). The clock changes are those that Python's zoneinfo
finds, minute by minute bisected, for the zones of the check.
"""

import csv
import pathlib
from datetime import datetime, timedelta, timezone
from importlib import resources
from zoneinfo import ZoneInfo

import tzdata

HERE = pathlib.Path(__file__).parent
DATA = HERE.parent.parent / "crates/core/data/zones.csv"
ZONES = pathlib.Path(str(resources.files(tzdata))) / "zoneinfo"
CHECKED = ["Europe/London", "America/New_York", "America/Phoenix", "Australia/Sydney", "Asia/Kolkata", "Europe/Dublin",
           "Africa/Cairo", "America/Nuuk", "Pacific/Chatham", "Asia/Tehran", "America/Santiago", "Atlantic/Azores", "UTC"]


def rule(path: pathlib.Path) -> str:
    return path.read_bytes().rstrip(b"\n").rsplit(b"\n", 1)[1].decode()


def main() -> None:
    names = sorted((ZONES.parent / "zones").read_text().split())
    with DATA.open("w", newline="") as file:
        file.write("name,rule\n")
        for name in names:
            if (ZONES / name).is_file():
                file.write(f"{name},{rule(ZONES / name)}\n")
    with (HERE / "changes.csv").open("w", newline="") as file:
        out = csv.writer(file, lineterminator="\n")
        out.writerow(["zone", "utc", "offset_before_s", "offset_after_s"])
        for name in CHECKED:
            zone = ZoneInfo(name)
            offset = lambda at: int(at.astimezone(zone).utcoffset().total_seconds())
            at = datetime(2026, 1, 1, tzinfo=timezone.utc)
            out.writerow([name, at.strftime("%Y-%m-%dT%H:%M:%SZ"), offset(at), offset(at)])
            while at.year < 2030:
                after = at + timedelta(hours=12)
                if offset(at) != offset(after):
                    low, high = at, after
                    while high - low > timedelta(seconds=1):
                        middle = low + timedelta(seconds=int((high - low).total_seconds()) // 2)
                        low, high = (middle, high) if offset(middle) == offset(at) else (low, middle)
                    out.writerow([name, high.strftime("%Y-%m-%dT%H:%M:%SZ"), offset(at), offset(after)])
                at = after


main()
