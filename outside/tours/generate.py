"""Tours played through, for crates/core/tests/tours.rs: events of a length begin at any moment of a long run of the tour; which share
of them is seen at all from a stop, and how long the stop's place goes unseen at most, by the clock and not by a formula."""

import json
import pathlib

import numpy as np

rng = np.random.default_rng(11)
EVENTS = 200_000
tours = []
for _ in range(6):
    count = int(rng.integers(2, 7))
    presets = [{"pan_deg": round(float(rng.uniform(0, 360)), 1), "tilt_deg": round(float(rng.uniform(-5, 60)), 1),
                "focal_mm": [5.0, 20.0, 50.0][int(rng.integers(3))], "dwell_s": round(float(rng.uniform(2, 15)), 1)} for _ in range(count)]
    slew, zoom, event = float(rng.uniform(20, 120)), float(rng.uniform(0.5, 3)), float(rng.uniform(1, 25))
    clock, stays = 0.0, []
    for cycle in range(400):
        for place, preset in enumerate(presets):
            before = presets[place - 1]
            pan = abs((preset["pan_deg"] - before["pan_deg"] + 180) % 360 - 180)
            move = max(pan, abs(preset["tilt_deg"] - before["tilt_deg"])) / slew
            if preset["focal_mm"] != before["focal_mm"]:
                move = max(move, zoom)
            clock += move
            stays.append((place, clock, clock + preset["dwell_s"]))
            clock += preset["dwell_s"]
    begins = rng.uniform(clock * 0.1, clock * 0.9, EVENTS)
    chances, gaps = [], []
    for place in range(count):
        mine = np.array([(a, b) for which, a, b in stays if which == place])
        # Seen if some stay begins before the event ends and ends after it begins.
        next_end = np.searchsorted(mine[:, 1], begins)
        chances.append(float(np.mean(mine[np.minimum(next_end, len(mine) - 1), 0] <= begins + event)))
        gaps.append(float(np.max(mine[1:, 0] - mine[:-1, 1])))
    tours.append({"presets": presets, "slew_deg_s": slew, "zoom_s": zoom, "event_s": event, "chances": chances, "gaps_s": gaps})
pathlib.Path(__file__).parent.joinpath("tours.json").write_text(json.dumps(tours, indent=1) + "\n")
