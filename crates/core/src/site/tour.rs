//! Tours: how long a head that is turned from afar looks at each of its presets, and how long it looks elsewhere.
//!
//! Source: handbook, section 11. Move time = max(|Δpan|, |Δtilt|) / slew rate, Δpan the short way round, at least the zoom time where
//! the focal length changes. Cycle = Σ dwell + Σ moves. What is seen from one preset only is unseen for cycle − dwell; an event of
//! length L is seen at all with the chance min(1, (dwell + L) / cycle).

use crate::file::{HeadFile, Preset};
use crate::math::Angle;

/// How fast a head turns where the file does not say, degrees a second (our default).
pub const USUAL_SLEW_DEG_S: f64 = 80.0;
/// How long a change of focal length takes where the file does not say, s (our default).
pub const USUAL_ZOOM_S: f64 = 2.0;

/// One stop of a tour.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Stop {
    /// How long it stays, s.
    pub dwell_s: f64,
    /// How long the move to it takes, from the stop before it, s.
    pub move_s: f64,
}

/// A tour over all presets of a head, again and again.
#[derive(Clone, Debug, PartialEq)]
pub struct Tour {
    stops: Vec<Stop>,
    cycle_s: f64,
}

impl Tour {
    /// The tour of a head; `None` for one without presets.
    pub fn of(head: &HeadFile) -> Option<Tour> {
        let count = head.presets.len();
        if count == 0 {
            return None;
        }
        let stop = |place: usize| {
            let (before, here) = (&head.presets[(place + count - 1) % count], &head.presets[place]);
            Stop { dwell_s: here.dwell_s, move_s: move_s(head, before, here) }
        };
        let stops: Vec<Stop> = (0..count).map(stop).collect();
        let cycle_s = stops.iter().map(|stop| stop.dwell_s + stop.move_s).sum();
        Some(Tour { stops, cycle_s })
    }

    /// Its stops, in the order of the presets.
    pub fn stops(&self) -> &[Stop] {
        &self.stops
    }

    /// How long it takes, s.
    pub fn cycle_s(&self) -> f64 {
        self.cycle_s
    }

    /// How long what is seen from one preset only goes unseen, s.
    pub fn gap_s(&self, place: usize) -> f64 {
        self.cycle_s - self.stops[place].dwell_s
    }

    /// The chance that an event of a length, s, is seen at all from a preset.
    pub fn chance(&self, place: usize, event_s: f64) -> f64 {
        ((self.stops[place].dwell_s + event_s) / self.cycle_s).min(1.0)
    }

    /// The dwell, the same at every stop, s, with which nothing goes unseen for longer than `gap_s`; `None` where the moves alone
    /// take too long, or another stop leaves no time.
    pub fn dwell_for(&self, gap_s: f64) -> Option<f64> {
        let moves: f64 = self.stops.iter().map(|stop| stop.move_s).sum();
        let others = self.stops.len() as f64 - 1.0;
        let dwell = if others > 0.0 { (gap_s - moves) / others } else { f64::INFINITY };
        (dwell > 0.0).then_some(dwell)
    }
}

fn move_s(head: &HeadFile, from: &Preset, to: &Preset) -> f64 {
    let pan = (Angle::degrees(to.pan_deg) - Angle::degrees(from.pan_deg)).wrapped().abs().deg();
    let tilt = (to.tilt_deg - from.tilt_deg).abs();
    let turn = pan.max(tilt) / head.slew_deg_s.unwrap_or(USUAL_SLEW_DEG_S);
    let zooms = from.focal_mm != to.focal_mm;
    if zooms { turn.max(head.zoom_s.unwrap_or(USUAL_ZOOM_S)) } else { turn }
}
