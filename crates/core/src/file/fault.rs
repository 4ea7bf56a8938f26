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
    /// What kind of fault it is, for programs.
    #[serde(default)]
    pub code: FaultCode,
    /// What would help, where something does.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub hint: Option<String>,
}

/// A kind of fault: what a program does about it does not hang on words.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FaultCode {
    /// It makes no sense there.
    #[default]
    Invalid,
    /// A figure outside its range.
    OutOfRange,
    /// An id that nobody has.
    UnknownId,
    /// An id that another thing has already.
    DoubleId,
    /// It cannot be read: no JSON, no such field, a file of another kind.
    Unreadable,
    /// A version that this program does not read.
    Version,
    /// More than is looked at.
    TooLarge,
}

impl Fault {
    /// A fault at a place.
    pub fn new(path: impl Into<String>, message: impl Into<String>) -> Self {
        Fault { path: path.into(), message: message.into(), code: FaultCode::Invalid, hint: None }
    }

    /// The same with its kind.
    ///
    /// ```
    /// use bright_angle_core::file::{Fault, FaultCode};
    /// let fault = Fault::new("height_m", "-1 is outside 0 to 500 m").of(FaultCode::OutOfRange);
    /// assert_eq!(fault.to_string(), "height_m: -1 is outside 0 to 500 m");
    /// ```
    #[must_use]
    pub fn of(self, code: FaultCode) -> Self {
        Fault { code, ..self }
    }

    /// The same with what would help.
    #[must_use]
    pub fn hint(self, hint: impl Into<String>) -> Self {
        Fault { hint: Some(hint.into()), ..self }
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

impl From<crate::work::Over> for Fault {
    fn from(over: crate::work::Over) -> Fault {
        Fault::new("", over.to_string())
    }
}
