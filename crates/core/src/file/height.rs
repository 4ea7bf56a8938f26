//! How high something is.

/// How high something is.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub(crate) struct Height {
    /// Over the ground at its foot, m.
    pub over_ground: f64,
    /// Height of that ground, m.
    pub ground: f64,
}
