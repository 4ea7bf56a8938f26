//! An amount in decimals, as it is written: money, hours, shares in per cent. Never a binary fraction.

use serde::{Deserialize, Serialize};
use std::fmt;
use utoipa::ToSchema;

/// So many digits an amount has before its point, and so many after it.
const MOST_DIGITS: [usize; 2] = [12, 6];

/// A decimal that is not negative, as text such as `12.50`.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(transparent)]
#[schema(value_type = String)]
pub struct Amount(pub String);

impl Amount {
    /// What is wrong with it, if anything is.
    ///
    /// ```
    /// use bright_angle_core::file::Amount;
    /// assert_eq!(Amount("12.50".into()).fault(), None);
    /// assert_eq!(Amount("-3".into()).fault(), Some("\"-3\" is negative".into()));
    /// assert_eq!(Amount("12,50".into()).fault(), Some("\"12,50\" is no amount such as 12.50".into()));
    /// ```
    pub fn fault(&self) -> Option<String> {
        let text = self.0.as_str();
        if let Some(rest) = text.strip_prefix('-')
            && digits(rest)
        {
            return Some(format!("\"{text}\" is negative"));
        }
        let shown: String = text.chars().take(40).collect();
        (!digits(text)).then(|| format!("\"{shown}\" is no amount such as 12.50"))
    }
}

fn digits(text: &str) -> bool {
    let (whole, part) = text.split_once('.').unwrap_or((text, "0"));
    [(whole, MOST_DIGITS[0]), (part, MOST_DIGITS[1])]
        .into_iter()
        .all(|(digits, most)| (1..=most).contains(&digits.len()) && digits.bytes().all(|byte| byte.is_ascii_digit()))
}

impl fmt::Display for Amount {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(&self.0)
    }
}
