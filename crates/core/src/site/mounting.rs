//! How a head's camera hangs where it hangs, and what it withstands there.

use crate::file::{CameraFile, Form, MountedAs, Spot, grade};

/// A dome or a PTZ with a longer lens than this is one of long range, mm; ours.
const LONG_RANGE_MM: f64 = 12.0;

/// A camera hangs at the height of its spot if it is no further off it than this, m.
const AT_ITS_HEIGHT_M: f64 = 0.05;

/// How a camera hangs, and what it withstands.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Mounting {
    /// Its build.
    pub form: Form,
    /// The least and the greatest tilt of its build, where the model says so.
    pub tilts: Option<[f64; 2]>,
    /// Whether its lens is one of long range.
    pub long_range: bool,
    /// How it hangs, as stated of it or as is usual at its spot.
    pub mounted_as: Option<MountedAs>,
    /// Whether a hand can reach its spot, where somebody said.
    pub in_reach: Option<bool>,
    /// Whether its spot is outdoors, where somebody said.
    pub outdoor: Option<bool>,
    /// Whether it stands in a housing.
    pub is_housed: bool,
    /// What is stated of protection against dust and water, of the housing where there is one.
    pub ip: Option<u32>,
    /// The same against blows.
    pub ik: Option<u32>,
    /// Its height over its ground, m.
    pub height_m: f64,
}

impl Mounting {
    /// How a camera hangs, on the spot that it hangs on, if any.
    pub fn of(camera: &CameraFile, spot: Option<&Spot>) -> Mounting {
        let (model, housing) = (&camera.model, camera.housing.as_ref());
        let stated = |own: &Option<String>, housing: Option<&Option<String>>| match housing {
            Some(housing) => grade(housing.as_deref()),
            None => grade(own.as_deref()),
        };
        // A spot within reach is so up to the height that was surveyed there, one out of reach from there on.
        let in_reach = spot.and_then(|spot| match spot.in_reach {
            Some(true) if camera.height_m > spot.height_m + AT_ITS_HEIGHT_M => None,
            Some(false) if camera.height_m < spot.height_m - AT_ITS_HEIGHT_M => None,
            said => said,
        });
        Mounting {
            form: model.form,
            tilts: model.tilts_deg,
            long_range: model.lens.focal_max_mm > LONG_RANGE_MM,
            mounted_as: camera.mounted_as.or_else(|| MountedAs::at(spot?.kind?)),
            in_reach,
            outdoor: spot.and_then(|spot| spot.outdoor),
            is_housed: housing.is_some(),
            ip: stated(&model.ip, housing.map(|housing| &housing.ip)),
            ik: stated(&model.ik, housing.map(|housing| &housing.ik)),
            height_m: camera.height_m,
        }
    }
}
