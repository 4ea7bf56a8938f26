//! Power over the network cable by class (IEEE 802.3; handbook, sections 7 and 12).

/// What a power class says.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct PowerClass {
    /// The most that a port gives, W.
    pub source_w: f64,
    /// The most that a device may draw, W.
    pub device_w: f64,
    /// The least voltage of a port, V.
    pub source_v: f64,
    /// The least voltage that a device has to run on, V.
    pub least_v: f64,
    /// Over how many pairs of the cable it goes.
    pub pairs: u32,
}

const CLASSES: [PowerClass; 8] = [
    class(4.0, 3.84, 44.0, 37.0, 2),
    class(7.0, 6.49, 44.0, 37.0, 2),
    class(15.4, 12.95, 44.0, 37.0, 2),
    class(30.0, 25.5, 50.0, 42.5, 2),
    class(45.0, 40.0, 50.0, 44.3, 4),
    class(60.0, 51.0, 50.0, 42.5, 4),
    class(75.0, 62.0, 52.0, 42.9, 4),
    class(90.0, 71.3, 52.0, 41.1, 4),
];

const fn class(source_w: f64, device_w: f64, source_v: f64, least_v: f64, pairs: u32) -> PowerClass {
    PowerClass { source_w, device_w, source_v, least_v, pairs }
}

impl PowerClass {
    /// A class by its number, 1 to 8.
    pub fn of(class: u32) -> Option<PowerClass> {
        CLASSES.get(usize::try_from(class).ok()?.checked_sub(1)?).copied()
    }

    /// The lowest class of which a device may draw so much, if there is one.
    pub fn for_watts(watts: f64) -> Option<u32> {
        CLASSES.iter().position(|class| class.device_w >= watts).map(|place| place as u32 + 1)
    }
}
