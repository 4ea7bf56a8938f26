//! What the client is offered: how few cameras do, options of one design, what they cost, the papers that say so, and what was agreed.

pub mod agreed;
pub mod asked;
pub mod bill;
mod candidates;
mod client_words;
mod cover;
pub mod fewest;
mod keepers;
pub mod leave_out;
pub mod options;
pub mod paper;
pub mod photo_view;
pub mod prices_csv;
