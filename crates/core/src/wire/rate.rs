//! What a camera sends: measured, or a start value by its picture (handbook, section 12; common practice, no source).

use crate::file::{CameraFile, Codec, HeadFile, WiringRules};

/// Start values at 15 pictures a second, H.265, moderate motion: megapixels and Mbit/s.
const START: [(f64, f64); 4] = [(2.0, 2.0), (4.0, 3.5), (5.0, 4.0), (8.0, 6.5)];
/// The pictures a second that they are for, and how the rate goes with others.
const START_FPS: f64 = 15.0;
const BY_FRAMES: f64 = 0.7;
/// What H.264 takes where H.265 takes one, and what a scene takes in which much moves.
const H264: f64 = 1.7;
const BUSY: f64 = 1.6;

/// A bit rate with what it may be, Mbit/s.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Rate {
    /// As stated or by its start value.
    pub mbps: f64,
    /// The least and the most that it may be; the same where it was measured.
    pub between: [f64; 2],
}

/// What a camera sends, all its heads together. What its pictures take at night is within the spread.
pub fn rate_of(camera: &CameraFile, rules: &WiringRules) -> Rate {
    if let Some(mbps) = camera.stream.and_then(|stream| stream.mbps) {
        return Rate { mbps, between: [mbps; 2] };
    }
    let sensor = &camera.model.sensor;
    let one = start_mbps(f64::from(sensor.width_px) * f64::from(sensor.height_px) / 1e6);
    let heads = camera.heads.iter().map(|head| one * by_frames(frames_of(camera, head) / START_FPS));
    let stream = camera.stream.as_ref();
    let packed = if stream.and_then(|stream| stream.codec) == Some(Codec::H264) { H264 } else { 1.0 };
    let busy = if stream.is_some_and(|stream| stream.busy) { BUSY } else { 1.0 };
    let mbps = heads.sum::<f64>() * packed * busy;
    Rate { mbps, between: [1.0 - rules.rate_less_share, 1.0 + rules.rate_more_share].map(|share| mbps * share) }
}

/// How the rate goes with frames: times so many, times this.
pub fn by_frames(times: f64) -> f64 {
    times.powf(BY_FRAMES)
}

/// The pictures a second that are recorded of a head.
pub fn frames_of(camera: &CameraFile, head: &HeadFile) -> f64 {
    let stated = camera.stream.and_then(|stream| stream.fps);
    stated.or(head.exposure.as_ref().map(|exposure| exposure.fps)).unwrap_or(START_FPS)
}

/// The start value of a picture of so many megapixels: between two of the table in proportion, beyond it as at its end.
fn start_mbps(megapixels: f64) -> f64 {
    let [first, .., last] = START;
    if megapixels <= first.0 {
        return first.1 * megapixels / first.0;
    }
    for pair in START.windows(2) {
        let ((x0, y0), (x1, y1)) = (pair[0], pair[1]);
        if megapixels <= x1 {
            return y0 + (y1 - y0) * (megapixels - x0) / (x1 - x0);
        }
    }
    last.1 * megapixels / last.0
}

/// The share of the day that is recorded of a camera.
pub fn share_recorded(camera: &CameraFile) -> f64 {
    camera.stream.and_then(|stream| stream.share_recorded).unwrap_or(1.0)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn start_values_are_those_of_the_table_and_run_on_between() {
        for (megapixels, mbps) in START {
            assert!((start_mbps(megapixels) - mbps).abs() < 1e-12);
        }
        assert!((start_mbps(3.0) - 2.75).abs() < 1e-12 && (start_mbps(1.0) - 1.0).abs() < 1e-12);
        assert!((start_mbps(16.0) - 13.0).abs() < 1e-12);
    }
}
