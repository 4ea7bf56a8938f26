//! The parts of mounts that ship with the program: generic ones, none of any maker. Weights and loads are made up; a firm's own go before.

use crate::file::{Fault, Form, MountPart};

const MOUNTS_JSON: &str = include_str!("../../data/mounts.json");

/// The parts there are.
///
/// # Errors
/// The list is held against its types in the tests; a fault means that the data file was changed and they were not run.
pub fn mount_parts() -> Result<Vec<MountPart>, Fault> {
    serde_json::from_str(MOUNTS_JSON).map_err(|error| Fault::new("mounts", error.to_string()))
}

/// Whether a part fits a form of camera.
pub fn fits(part: &MountPart, form: Form) -> bool {
    part.forms.is_empty() || part.forms.contains(&form)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_parts_are_read_and_each_form_has_one() {
        let parts = mount_parts().unwrap();
        for form in [
            Form::Bullet,
            Form::Turret,
            Form::Dome,
            Form::VandalDome,
            Form::Box,
            Form::Fisheye,
            Form::MultiHead,
            Form::Ptz,
        ] {
            assert!(parts.iter().any(|part| fits(part, form) && part.carries_kg.is_some()), "{form:?}");
        }
    }
}
