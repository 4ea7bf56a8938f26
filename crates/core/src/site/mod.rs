//! The site: a whole design, validated once so that the rest of the program can trust it.

pub mod fault;
pub mod file;
pub mod schema;
pub mod survey_file;
mod validate;
mod validate_survey;

use crate::rules::Rules;
use crate::{Head, Scene, Target};
pub use fault::Fault;
use file::SiteFile;

/// A validated site: its file and what is computed from it once.
///
/// It is only made by [`Site::parse`] and [`Site::from_file`], so whoever holds one holds numbers
/// in range, ids that exist and outlines that enclose something.
#[derive(Clone, Debug)]
pub struct Site {
    file: SiteFile,
    /// The solids in the way.
    pub(crate) scene: Scene,
    /// The targets, in the file's order.
    pub(crate) targets: Vec<Target>,
    /// All heads of all cameras, in the file's order.
    pub(crate) heads: Vec<Head>,
}

impl Site {
    /// Reads a site file; every fault is named with its place.
    pub fn parse(text: &str) -> Result<Site, Vec<Fault>> {
        Site::from_file(SiteFile::parse(text)?)
    }

    /// Validates a file that was read already.
    pub fn from_file(file: SiteFile) -> Result<Site, Vec<Fault>> {
        let faults = validate::faults(&file);
        if !faults.is_empty() {
            return Err(faults);
        }
        let rules = &file.rules;
        let scene = Scene::new(file.obstacles.iter().map(file::Obstacle::solid).collect());
        let targets = file.targets.iter().map(|target| target.compile(rules)).collect();
        let heads = file
            .cameras
            .iter()
            .enumerate()
            .flat_map(|(place, camera)| (0..camera.heads.len()).map(move |head| Head::new(place, camera, head, rules)))
            .collect();
        Ok(Site { file, scene, targets, heads })
    }

    /// The file it was made from.
    pub fn file(&self) -> &SiteFile {
        &self.file
    }

    /// The limits and uncertainties that its verdicts are given under.
    pub fn rules(&self) -> &Rules {
        &self.file.rules
    }

    /// The solids in the way.
    pub fn scene(&self) -> &Scene {
        &self.scene
    }

    /// The targets, in the file's order.
    pub fn targets(&self) -> &[Target] {
        &self.targets
    }

    /// All heads of all cameras, in the file's order.
    pub fn heads(&self) -> &[Head] {
        &self.heads
    }

    /// Horizontal distance of a reading, m.
    pub(crate) fn horizontal_m(&self, reading: &survey_file::Reading) -> f64 {
        let [from, to] = [&reading.from, &reading.to].map(|id| self.file.height_of(id).unwrap_or(0.0));
        reading.horizontal_m(from, to).unwrap_or(0.0)
    }

    /// The head with these ids.
    pub fn head(&self, camera: &str, head: &str) -> Result<&Head, Fault> {
        let of_camera = self.heads.iter().filter(|h| h.camera_id == camera);
        of_camera.clone().find(|h| h.id == head).ok_or_else(|| match of_camera.count() {
            0 => Fault::new("camera", format!("the site has no camera \"{camera}\"")),
            _ => Fault::new("head", format!("camera \"{camera}\" has no head \"{head}\"")),
        })
    }

    /// The place in [`Site::targets`] of the target with this id.
    pub fn target_place(&self, target: &str) -> Result<usize, Fault> {
        let place = self.targets.iter().position(|t| t.id == target);
        place.ok_or_else(|| Fault::new("target", format!("the site has no target \"{target}\"")))
    }
}
