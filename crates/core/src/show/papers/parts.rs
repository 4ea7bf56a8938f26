//! What a design is made of: the cameras by model, in the order in which they first stand in the file, with the spots of each.

use crate::site::Site;
use serde::Serialize;
use utoipa::ToSchema;

/// So many cameras of a model.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Part {
    /// What the model is called.
    pub model: String,
    /// How many of it.
    pub count: usize,
    /// What the cameras are called, in the file's order.
    pub cameras: Vec<String>,
}

/// The cameras that are bought for a site, by model.
///
/// ```
/// use bright_angle_core::{Site, show::papers::parts::parts, file::SiteFile};
/// assert!(parts(&Site::from_file(SiteFile::empty("A yard")).unwrap()).is_empty());
/// ```
pub fn parts(site: &Site) -> Vec<Part> {
    let mut parts: Vec<Part> = Vec::new();
    for camera in site.file().cameras.iter().filter(|camera| camera.is_bought()) {
        let (model, name) = (&camera.model.name, camera.name.clone());
        match parts.iter_mut().find(|part| part.model == *model) {
            Some(part) => {
                part.count += 1;
                part.cameras.push(name);
            }
            None => parts.push(Part { model: model.clone(), count: 1, cameras: vec![name] }),
        }
    }
    parts
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn each_camera_of_the_demo_stands_once_under_its_model() {
        let site = Site::parse(include_str!("../../../../../demo/tern-quay.json")).unwrap();
        let (parts, cameras) = (parts(&site), &site.file().cameras);
        assert_eq!(parts.iter().map(|part| part.count).sum::<usize>(), cameras.len());
        for camera in cameras {
            let under: Vec<&str> = parts
                .iter()
                .filter(|part| part.cameras.contains(&camera.name))
                .map(|part| part.model.as_str())
                .collect();
            assert_eq!(under, [camera.model.name.as_str()]);
        }
    }
}
