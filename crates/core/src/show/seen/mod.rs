//! Seen and hidden: from where the cameras themselves are seen, and what that makes of the wish that they deter, or go unnoticed.

pub mod seen_from;
pub mod wish;
