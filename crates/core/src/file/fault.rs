//! What is wrong with an input, and where.

use serde::{Deserialize, Serialize};
use std::fmt;
use utoipa::ToSchema;

/// One fault of an input: the place and the reason.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Fault {
    /// The place, as in `cameras[2].heads[0].focal_mm`; empty for the input as a whole.
    pub path: String,
    /// What is wrong there, in plain words.
    pub message: String,
}

impl Fault {
    /// A fault at a place.
    pub fn new(path: impl Into<String>, message: impl Into<String>) -> Self {
        Fault { path: path.into(), message: message.into() }
    }
}

impl From<Fault> for Vec<Fault> {
    fn from(fault: Fault) -> Self {
        vec![fault]
    }
}

impl fmt::Display for Fault {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self.path.as_str() {
            "" => f.write_str(&self.message),
            path => write!(f, "{path}: {}", self.message),
        }
    }
}
