//! For the new colleague: a view and a question, the truth with its evidence, and rules of thumb where they break.

pub mod lesson;
mod made_up;
