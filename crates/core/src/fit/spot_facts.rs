//! What is known of where a camera hangs, put together from its mount, its spot and its cables.

use crate::file::{
    Access, Behind, CableEntry, CableKind, CameraFile, Form, Housing, MountPart, MountedAs, PartKind, SiteFile, Spot,
    Surface,
};

/// A camera whose weight nobody states weighs as much as is usual for its form, kg (common practice, no source).
fn usual_kg(form: Form) -> f64 {
    match form {
        Form::Turret | Form::Dome | Form::Fisheye => 0.6,
        Form::VandalDome | Form::Bullet => 1.0,
        Form::Box | Form::Plate => 1.8,
        Form::MultiHead => 3.5,
        Form::Ptz => 6.0,
    }
}

/// A ladder is for heights up to this, m (ours).
pub const LADDER_TO_M: f64 = 6.0;

/// What is known of a camera's place.
#[derive(Clone, Debug)]
pub struct SpotFacts<'a> {
    /// The camera.
    pub camera: &'a CameraFile,
    /// Its spot.
    pub spot: Option<&'a Spot>,
    /// What it is screwed to: as its mount says, else in the surveyor's words.
    pub surface: Option<Surface>,
    /// Where its cable comes in; through the back where nobody says.
    pub entry: CableEntry,
    /// How it hangs.
    pub hangs: MountedAs,
    /// Whether it is outdoors; it is taken to be where nobody says.
    pub outdoor: bool,
    /// How many cables end at it.
    pub cables: usize,
    /// Whether it has no cable for pictures.
    pub wireless: bool,
}

impl<'a> SpotFacts<'a> {
    /// What is known of one camera.
    pub fn of(site: &'a SiteFile, camera: &'a CameraFile) -> SpotFacts<'a> {
        let spot = camera.spot.as_ref().and_then(|id| site.spots.iter().find(|spot| spot.id == *id));
        let mount = camera.mount.as_ref();
        let said = spot.and_then(|spot| Surface::named(spot.surface.as_deref()?));
        let cables = site.network.iter().flat_map(|network| &network.cables);
        let ends: Vec<CableKind> =
            cables.filter(|cable| cable.from == camera.id || cable.to == camera.id).map(|cable| cable.kind).collect();
        let at_spot = spot.and_then(|spot| MountedAs::at(spot.kind?));
        SpotFacts {
            camera,
            spot,
            surface: mount.and_then(|mount| mount.surface).or(said),
            entry: mount.and_then(|mount| mount.entry).unwrap_or(CableEntry::Back),
            hangs: camera.mounted_as.or(at_spot).unwrap_or(MountedAs::Wall),
            outdoor: spot.and_then(|spot| spot.outdoor).unwrap_or(true),
            cables: ends.iter().filter(|kind| **kind != CableKind::Wireless).count().max(1),
            wireless: ends.contains(&CableKind::Wireless),
        }
    }

    /// The parts of its mount, from the surface outwards.
    pub fn parts(&self) -> &'a [MountPart] {
        self.camera.mount.as_ref().map_or(&[], |mount| &mount.parts)
    }

    /// Whether a part of a sort is in its mount.
    pub fn has(&self, kind: PartKind) -> bool {
        self.parts().iter().any(|part| part.kind == kind)
    }

    /// Whether it stands in a housing.
    pub fn is_housed(&self) -> bool {
        self.has(PartKind::Housing)
            || self.camera.housing.as_ref().is_some_and(|housing| *housing != Housing::default())
    }

    /// Whether there is no room behind the surface for a plug and for tails.
    pub fn is_solid(&self) -> Option<bool> {
        let mount = self.camera.mount.as_ref();
        match mount.and_then(|mount| mount.behind) {
            Some(Behind::Solid | Behind::Insulation) => Some(true),
            Some(Behind::Cavity) => Some(false),
            None => self.surface.map(|surface| !surface.is_hollow()),
        }
    }

    /// Whether it takes a back box: one is in its mount, its spot says so, or there is no room behind it.
    pub fn wants_back_box(&self) -> bool {
        self.has(PartKind::BackBox)
            || self.spot.and_then(|spot| spot.back_box).unwrap_or_else(|| self.is_solid() == Some(true))
    }

    /// What the camera weighs, kg, and whether somebody states it.
    pub fn camera_kg(&self) -> (f64, bool) {
        let model = &self.camera.model;
        model.weight_kg.map_or((usual_kg(model.form), false), |kg| (kg, true))
    }

    /// What hangs on the surface, kg.
    pub fn hangs_kg(&self) -> f64 {
        self.camera_kg().0 + self.parts().iter().map(|part| part.weight_kg).sum::<f64>()
    }

    /// How many screws hold its first part, or itself.
    pub fn screws(&self) -> u32 {
        self.parts().first().and_then(|part| part.screws).unwrap_or(if self.parts().is_empty() { 3 } else { 4 })
    }

    /// The height of its foot over the ground, m.
    pub fn foot_m(&self) -> f64 {
        let drop = self.camera.mount.as_ref().map_or(0.0, |mount| mount.offset_m()[1]);
        self.camera.height_m + drop
    }

    /// From what it is put up.
    pub fn access(&self) -> Access {
        let said = self.camera.mount.as_ref().and_then(|mount| mount.access);
        said.unwrap_or(if self.foot_m() > LADDER_TO_M { Access::Lift } else { Access::Ladder })
    }
}
