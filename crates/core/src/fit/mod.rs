//! From the plan to the ladder: what is brought, how it is mounted, the steps at each spot, and how a camera hangs as its picture shows.

pub mod corner;
pub mod day;
pub mod designed;
pub mod edge_match;
pub mod hangs;
pub mod landmarks;
pub mod materials;
pub mod mount_checks;
pub mod pose;
pub mod pose_points;
pub mod settings_card;
pub mod shortest_walk;
pub mod spot_facts;
pub mod steps;
pub mod turns;
