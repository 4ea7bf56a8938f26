//! What is taken along on paper.

pub mod card;
pub mod landmarks;
pub mod parts;
