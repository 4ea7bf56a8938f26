//! Where something begins to hold along a way.

use crate::site::Head;

/// The greatest distance, m, at which a head gives a need on its axis, and half as far again: off the axis a rectilinear
/// picture is denser than on it.
pub fn range_of(head: &Head, need: f64) -> f64 {
    1.5 * head.view().projection.focal_px() / need
}

/// The place between `outside` and `inside` from which on `holds` is true, by bisection.
pub fn edge_between(outside: f64, inside: f64, holds: impl Fn(f64) -> bool) -> f64 {
    let (mut out, mut inn) = (outside, inside);
    if holds(out) {
        return out;
    }
    for _ in 0..50 {
        let middle = 0.5 * (out + inn);
        if holds(middle) { inn = middle } else { out = middle }
    }
    inn
}
