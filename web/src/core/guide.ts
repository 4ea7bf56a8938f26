/** What is asked and usual, as the core has it. Made by tools/generate; not to be changed by hand. */
import type { Guide } from "./api";

export const GUIDE: Guide = {
  "tasks": [
    {
      "says": "identify a face",
      "subject": "face",
      "task": "identify",
      "height_m": 1.6
    },
    {
      "says": "recognise a person",
      "subject": "face",
      "task": "recognise",
      "height_m": 1.6
    },
    {
      "says": "see what somebody does",
      "subject": "person",
      "task": "observe",
      "height_m": 1.2
    },
    {
      "says": "see that somebody is there",
      "subject": "person",
      "task": "detect",
      "height_m": 1.2
    },
    {
      "says": "see a crowd or a queue",
      "subject": "person",
      "task": "monitor",
      "height_m": 1.2
    },
    {
      "says": "read plates",
      "subject": "plate",
      "task": "read",
      "height_m": 0.7
    },
    {
      "says": "recognise a vehicle",
      "subject": "vehicle",
      "task": "recognise",
      "height_m": 1.0
    },
    {
      "says": "see that a vehicle is there",
      "subject": "vehicle",
      "task": "detect",
      "height_m": 1.0
    },
    {
      "says": "watch over the whole area",
      "subject": "scene",
      "task": "observe",
      "height_m": 0.5
    },
    {
      "says": "see small things, notes, hands",
      "subject": "scene",
      "task": "inspect",
      "height_m": 1.0
    }
  ],
  "usual": [
    {
      "kind": "home",
      "brief": {
        "retention_days": 14,
        "sound": false,
        "hours": "lived in"
      },
      "targets": [
        {
          "name": "Main entrance",
          "says": "identify a face"
        },
        {
          "name": "Side door",
          "says": "identify a face"
        },
        {
          "name": "Garage door",
          "says": "recognise a person"
        },
        {
          "name": "Back door",
          "says": "identify a face"
        },
        {
          "name": "Drive",
          "says": "recognise a vehicle"
        },
        {
          "name": "Garden gate",
          "says": "recognise a person"
        },
        {
          "name": "Garden",
          "says": "see that somebody is there"
        }
      ]
    },
    {
      "kind": "shop",
      "brief": {
        "retention_days": 30,
        "sound": false,
        "hours": "9 to 18, closed on Sundays"
      },
      "targets": [
        {
          "name": "Main entrance",
          "says": "identify a face"
        },
        {
          "name": "Till",
          "says": "see small things, notes, hands"
        },
        {
          "name": "Staff door",
          "says": "identify a face"
        },
        {
          "name": "Loading door",
          "says": "recognise a person"
        },
        {
          "name": "Stock room",
          "says": "see what somebody does"
        },
        {
          "name": "Sales floor",
          "says": "see what somebody does"
        }
      ]
    },
    {
      "kind": "office",
      "brief": {
        "retention_days": 30,
        "sound": false,
        "hours": "8 to 18 on weekdays"
      },
      "targets": [
        {
          "name": "Main entrance",
          "says": "identify a face"
        },
        {
          "name": "Reception",
          "says": "identify a face"
        },
        {
          "name": "Side door",
          "says": "identify a face"
        },
        {
          "name": "Server room door",
          "says": "identify a face"
        },
        {
          "name": "Car park",
          "says": "recognise a vehicle"
        }
      ]
    },
    {
      "kind": "yard",
      "brief": {
        "retention_days": 30,
        "sound": false,
        "hours": "7 to 18"
      },
      "targets": [
        {
          "name": "Gate, who comes in",
          "says": "identify a face"
        },
        {
          "name": "Gate, plates",
          "says": "read plates"
        },
        {
          "name": "Office door",
          "says": "identify a face"
        },
        {
          "name": "Loading dock",
          "says": "recognise a person"
        },
        {
          "name": "Stock",
          "says": "see what somebody does"
        },
        {
          "name": "Fence",
          "says": "see that somebody is there"
        }
      ]
    },
    {
      "kind": "other",
      "brief": {
        "sound": false
      },
      "targets": [
        {
          "name": "Main entrance",
          "says": "identify a face"
        },
        {
          "name": "Side door",
          "says": "identify a face"
        }
      ]
    }
  ],
  "brief": [
    {
      "field": "client",
      "asks": "Who is the client?"
    },
    {
      "field": "kind",
      "asks": "What kind of site is it?"
    },
    {
      "field": "must_see",
      "asks": "What must be seen, in the client's words?"
    },
    {
      "field": "retention_days",
      "asks": "How many days of recording?"
    },
    {
      "field": "recorder_place",
      "asks": "Where does the recorder go?"
    },
    {
      "field": "colour",
      "asks": "Which colour, black or white?"
    },
    {
      "field": "sound",
      "asks": "Is sound wanted?"
    },
    {
      "field": "viewers",
      "asks": "Who may see recordings?"
    },
    {
      "field": "night_light",
      "asks": "What light is there at night?"
    },
    {
      "field": "access",
      "asks": "How do the fitters get up there: ladder, lift, permit?"
    },
    {
      "field": "private_places",
      "asks": "Which private places stay out of view?"
    },
    {
      "field": "decides",
      "asks": "Who decides?"
    }
  ],
  "spot": [
    {
      "field": "kind",
      "asks": "what kind of place is it?"
    },
    {
      "field": "surface",
      "asks": "what is the surface?"
    },
    {
      "field": "back_box",
      "asks": "is a back box needed?"
    },
    {
      "field": "outdoor",
      "asks": "indoors or outdoors?"
    },
    {
      "field": "in_reach",
      "asks": "can a hand reach it?"
    },
    {
      "field": "cable_m",
      "asks": "how long is the cable way?"
    }
  ],
  "target": [
    {
      "field": "night_light",
      "asks": "what light is there at night?"
    }
  ],
  "sizes": [
    {
      "subject": "person",
      "size_m": [
        0.5,
        1.75
      ]
    },
    {
      "subject": "face",
      "size_m": [
        0.2,
        0.28
      ]
    },
    {
      "subject": "vehicle",
      "size_m": [
        1.8,
        1.5
      ]
    },
    {
      "subject": "plate",
      "size_m": [
        0.52,
        0.11
      ]
    }
  ],
  "plates": [
    {
      "size_m": [
        0.52,
        0.11
      ],
      "plate": {
        "name": "European",
        "character_m": 0.079,
        "stroke_m": 0.014,
        "reflecting": true
      },
      "basis": "UK regulations of 2001, from memory"
    },
    {
      "size_m": [
        0.52,
        0.11
      ],
      "plate": {
        "name": "European, not reflecting",
        "character_m": 0.079,
        "stroke_m": 0.014,
        "reflecting": false
      },
      "basis": "UK regulations of 2001, from memory"
    },
    {
      "size_m": [
        0.305,
        0.152
      ],
      "plate": {
        "name": "North American",
        "character_m": 0.0635,
        "stroke_m": 0.00508,
        "reflecting": true
      },
      "basis": "AAMVA standard, from memory"
    }
  ],
  "defaults": {
    "slew_deg_s": 80.0,
    "zoom_s": 2.0,
    "apart_deg": 30.0
  },
  "rules": {
    "needs": "2014",
    "plate_school": "level",
    "face_kept_deg": 15.0,
    "face_tight_deg": 30.0,
    "identify_turned_kept_deg": 30.0,
    "identify_turned_tight_deg": 60.0,
    "recognise_turned_kept_deg": 60.0,
    "recognise_turned_tight_deg": 80.0,
    "hidden_small_share": 0.0,
    "hidden_large_share": 0.3333333333333333,
    "level_side_deg": 15.0,
    "level_vertical_deg": 15.0,
    "raised_side_deg": 30.0,
    "raised_vertical_deg": 30.0,
    "mount_min_m": 2.4,
    "mount_max_m": 6.0,
    "usual_max_m": 3.6,
    "looks_kept": 3.0,
    "looks_tight": 1.0,
    "tour_chance": 0.9,
    "blur_kept_px": 1.0,
    "zone_stops": 2.0,
    "lane_width_m": 6.0,
    "overview_pair": true,
    "washed_out_stops": 4.0,
    "overexposed_times": 4.0,
    "retro_times": 50.0,
    "backlit_deg": 20.0,
    "lamp_near_deg": 10.0,
    "uncertainties": {
      "laser_m": 0.05,
      "plan_share": 0.02,
      "plan_m": 0.25,
      "guess_share": 0.1,
      "laser_across_m": 0.1,
      "plan_across_m": 0.25,
      "guess_across_m": 0.5,
      "guess_across_share": 0.02,
      "height_m": 0.05,
      "camera_height_m": 0.05,
      "roll_deg": 1.0,
      "aim_deg": 1.0,
      "focal_share": 0.03,
      "zoom_focal_share": 0.01
    }
  },
  "wiring": {
    "channel_m": 100.0,
    "sure_m": 90.0,
    "extended_m": 250.0,
    "extended_pair_m": 300.0,
    "extended_mbps": 10.0,
    "passes_w": 3.0,
    "free_share": 0.2,
    "cord_drop_share": 0.1,
    "slack_share": 0.1,
    "housing_m": 0.12,
    "signal_dbm": -65.0,
    "rate_less_share": 0.4,
    "rate_more_share": 0.6,
    "segment": "192.168.50.0",
    "segment_bits": 24
  },
  "proving": {
    "moved_deg": 0.15,
    "sharpness_share": 0.7,
    "contrast_share": 0.7,
    "light_share": 0.6,
    "region_share": 0.04,
    "grown_share": 0.01,
    "clock_s": 30.0,
    "density_share": 0.1,
    "cover_months": 6.0,
    "pictures_months": 6.0,
    "playback_months": 3.0,
    "firmware_months": 6.0,
    "password_months": 12.0,
    "joints_months": 12.0
  },
  "limits": [
    {
      "field": "identify_turned_kept_deg",
      "least": 0.0,
      "most": 90.0
    },
    {
      "field": "identify_turned_tight_deg",
      "least": 0.0,
      "most": 90.0
    },
    {
      "field": "recognise_turned_kept_deg",
      "least": 0.0,
      "most": 90.0
    },
    {
      "field": "recognise_turned_tight_deg",
      "least": 0.0,
      "most": 90.0
    },
    {
      "field": "face_kept_deg",
      "least": 0.0,
      "most": 90.0
    },
    {
      "field": "face_tight_deg",
      "least": 0.0,
      "most": 90.0
    },
    {
      "field": "level_side_deg",
      "least": 0.0,
      "most": 90.0
    },
    {
      "field": "level_vertical_deg",
      "least": 0.0,
      "most": 90.0
    },
    {
      "field": "raised_side_deg",
      "least": 0.0,
      "most": 90.0
    },
    {
      "field": "raised_vertical_deg",
      "least": 0.0,
      "most": 90.0
    },
    {
      "field": "hidden_small_share",
      "least": 0.0,
      "most": 0.9
    },
    {
      "field": "hidden_large_share",
      "least": 0.0,
      "most": 0.9
    },
    {
      "field": "mount_min_m",
      "least": 0.1,
      "most": 100.0
    },
    {
      "field": "mount_max_m",
      "least": 0.1,
      "most": 100.0
    },
    {
      "field": "usual_max_m",
      "least": 0.1,
      "most": 100.0
    },
    {
      "field": "looks_kept",
      "least": 1.0,
      "most": 1000.0
    },
    {
      "field": "looks_tight",
      "least": 1.0,
      "most": 1000.0
    },
    {
      "field": "tour_chance",
      "least": 0.0,
      "most": 1.0
    },
    {
      "field": "blur_kept_px",
      "least": 0.01,
      "most": 100.0
    },
    {
      "field": "zone_stops",
      "least": 0.1,
      "most": 20.0
    },
    {
      "field": "lane_width_m",
      "least": 1.0,
      "most": 100.0
    },
    {
      "field": "washed_out_stops",
      "least": 0.5,
      "most": 20.0
    },
    {
      "field": "overexposed_times",
      "least": 1.1,
      "most": 1000.0
    },
    {
      "field": "retro_times",
      "least": 1.0,
      "most": 1000.0
    },
    {
      "field": "backlit_deg",
      "least": 0.0,
      "most": 90.0
    },
    {
      "field": "lamp_near_deg",
      "least": 0.0,
      "most": 90.0
    },
    {
      "field": "laser_m",
      "least": 0.0,
      "most": 10.0
    },
    {
      "field": "plan_share",
      "least": 0.0,
      "most": 0.9
    },
    {
      "field": "plan_m",
      "least": 0.0,
      "most": 10.0
    },
    {
      "field": "guess_share",
      "least": 0.0,
      "most": 0.9
    },
    {
      "field": "laser_across_m",
      "least": 0.0,
      "most": 10.0
    },
    {
      "field": "plan_across_m",
      "least": 0.0,
      "most": 10.0
    },
    {
      "field": "guess_across_m",
      "least": 0.0,
      "most": 10.0
    },
    {
      "field": "guess_across_share",
      "least": 0.0,
      "most": 0.9
    },
    {
      "field": "height_m",
      "least": 0.0,
      "most": 10.0
    },
    {
      "field": "camera_height_m",
      "least": 0.0,
      "most": 10.0
    },
    {
      "field": "roll_deg",
      "least": 0.0,
      "most": 45.0
    },
    {
      "field": "aim_deg",
      "least": 0.0,
      "most": 45.0
    },
    {
      "field": "focal_share",
      "least": 0.0,
      "most": 0.9
    },
    {
      "field": "zoom_focal_share",
      "least": 0.0,
      "most": 0.9
    },
    {
      "field": "channel_m",
      "least": 1.0,
      "most": 1000.0
    },
    {
      "field": "sure_m",
      "least": 1.0,
      "most": 1000.0
    },
    {
      "field": "extended_m",
      "least": 1.0,
      "most": 2000.0
    },
    {
      "field": "extended_pair_m",
      "least": 1.0,
      "most": 2000.0
    },
    {
      "field": "extended_mbps",
      "least": 1.0,
      "most": 10000.0
    },
    {
      "field": "passes_w",
      "least": 0.0,
      "most": 100.0
    },
    {
      "field": "free_share",
      "least": 0.0,
      "most": 0.9
    },
    {
      "field": "cord_drop_share",
      "least": 0.01,
      "most": 0.9
    },
    {
      "field": "slack_share",
      "least": 0.0,
      "most": 1.0
    },
    {
      "field": "housing_m",
      "least": 0.0,
      "most": 10.0
    },
    {
      "field": "signal_dbm",
      "least": -100.0,
      "most": 0.0
    },
    {
      "field": "rate_less_share",
      "least": 0.0,
      "most": 0.9
    },
    {
      "field": "rate_more_share",
      "least": 0.0,
      "most": 5.0
    },
    {
      "field": "moved_deg",
      "least": 0.05,
      "most": 45.0
    },
    {
      "field": "sharpness_share",
      "least": 0.05,
      "most": 1.0
    },
    {
      "field": "contrast_share",
      "least": 0.05,
      "most": 1.0
    },
    {
      "field": "light_share",
      "least": 0.01,
      "most": 1.0
    },
    {
      "field": "region_share",
      "least": 0.005,
      "most": 1.0
    },
    {
      "field": "grown_share",
      "least": 0.002,
      "most": 1.0
    },
    {
      "field": "clock_s",
      "least": 1.0,
      "most": 86400.0
    },
    {
      "field": "density_share",
      "least": 0.01,
      "most": 1.0
    },
    {
      "field": "cover_months",
      "least": 1.0,
      "most": 120.0
    },
    {
      "field": "pictures_months",
      "least": 1.0,
      "most": 120.0
    },
    {
      "field": "playback_months",
      "least": 1.0,
      "most": 120.0
    },
    {
      "field": "firmware_months",
      "least": 1.0,
      "most": 120.0
    },
    {
      "field": "password_months",
      "least": 1.0,
      "most": 120.0
    },
    {
      "field": "joints_months",
      "least": 1.0,
      "most": 120.0
    }
  ],
  "begins": {
    "obstacles": [
      {
        "kind": "building",
        "closed": true,
        "base_m": 0.0,
        "top_m": 3.0,
        "see_through": 0.0
      },
      {
        "kind": "wall",
        "closed": false,
        "base_m": 0.0,
        "top_m": 2.0,
        "see_through": 0.0
      },
      {
        "kind": "fence",
        "closed": false,
        "base_m": 0.0,
        "top_m": 1.8,
        "see_through": 0.8
      },
      {
        "kind": "tree",
        "closed": true,
        "base_m": 2.0,
        "top_m": 7.0,
        "see_through": 0.0
      },
      {
        "kind": "glass",
        "closed": false,
        "base_m": 0.0,
        "top_m": 2.2,
        "see_through": 0.9
      },
      {
        "kind": "vehicle",
        "closed": true,
        "base_m": 0.0,
        "top_m": 1.8,
        "see_through": 0.0
      },
      {
        "kind": "eave",
        "closed": true,
        "base_m": 2.6,
        "top_m": 2.9,
        "see_through": 0.0
      },
      {
        "kind": "door",
        "closed": false,
        "base_m": 0.0,
        "top_m": 2.1,
        "see_through": 0.0
      },
      {
        "kind": "other",
        "closed": true,
        "base_m": 0.0,
        "top_m": 2.0,
        "see_through": 0.0
      }
    ],
    "bare_see_through": 0.7,
    "private_ground": {
      "base_m": 0.0,
      "top_m": 2.0
    },
    "private_window": {
      "base_m": 0.9,
      "top_m": 2.2
    },
    "lamp": {
      "height_m": 4.0,
      "lumens": 4000.0
    },
    "exposure": {
      "shutter_s": 0.001,
      "fps": 25.0,
      "focus_m": null
    },
    "dwell_s": 5.0,
    "flattened": {
      "tilt_deg": 30.0,
      "hfov_deg": 70.0
    }
  },
  "heights_m": [
    0.0,
    0.7,
    1.6
  ],
  "sits_on_within_m": 1.0,
  "link_pairs": 4,
  "shutter_s": 0.002,
  "kmh": 3.6
};
