//! How much work somebody is ready to wait for. The core knows no clock: whoever asks says, between two steps, whether to go on.

use std::fmt;

/// How long somebody waits.
///
/// ```
/// use bright_angle_core::work::Patience;
/// let patience = Patience::while_it(&|| false);
/// assert!(patience.is_over());
/// assert_eq!(patience.check(|| "it never ends".into()).unwrap_err().to_string(), "too large, because it never ends");
/// ```
#[derive(Clone, Copy)]
pub struct Patience<'a> {
    goes_on: Option<&'a (dyn Fn() -> bool + Sync)>,
}

impl fmt::Debug for Patience<'_> {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str("Patience")
    }
}

impl<'a> Patience<'a> {
    /// Waits however long it takes.
    pub const ENDLESS: Patience<'static> = Patience { goes_on: None };

    /// Waits while somebody says so. Once it was said that it is over, that must stay.
    pub fn while_it(goes_on: &'a (dyn Fn() -> bool + Sync)) -> Self {
        Patience { goes_on: Some(goes_on) }
    }

    /// Whether nobody waits any more.
    pub fn is_over(&self) -> bool {
        self.goes_on.is_some_and(|goes_on| !goes_on())
    }

    /// Goes on, or ends with a reason.
    ///
    /// # Errors
    /// When nobody waits any more.
    pub fn check(&self, because: impl FnOnce() -> String) -> Result<(), Over> {
        if self.is_over() { Err(Over(because())) } else { Ok(()) }
    }
}

/// Why a computation was not done, or not to its end: it is too large.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Over(pub String);

impl fmt::Display for Over {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "too large, because {}", self.0)
    }
}

impl std::error::Error for Over {}
