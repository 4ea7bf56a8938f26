//! What is told of a site beside its verdicts, by subject.

pub mod coverage;
pub mod night;
pub mod papers;
pub mod plates;
pub mod seen;
pub mod sun;
