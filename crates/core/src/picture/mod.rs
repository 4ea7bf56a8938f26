//! The picture that a head will have, worked out before anybody climbs: every pixel follows the ray that the sight lines follow,
//! through the very projection, bend, roll, image circle and sensor of the head.
//!
//! What is modelled: the projection, what stands in the way and what one sees through it, subjects of stated size at the places
//! that decide their sight lines, light that falls on surfaces by their slope, and by night lamps and the head's own infrared with its
//! fall-off and beam, and how a subject that moves is drawn out while the shutter is open. What is not: lens blur, noise,
//! compression, weather, shadows that things throw on each other by day, and colours, which are ours but for the site's overhead picture.
//!
//! ```
//! use bright_angle_core::Site;
//! use bright_angle_core::file::HeadRef;
//! use bright_angle_core::judge::Session;
//! use bright_angle_core::picture::{Light, Picture, PictureWish, Window};
//! # let json = include_str!("../../../../demo/tern-quay.json");
//! let session = Session::on(Site::parse(json).unwrap());
//! let head = HeadRef { camera: "c4".into(), head: "h1".into(), view: None };
//! let wish = PictureWish { window: Window::Whole { width: 32 }, light: Light::Day, grid: false, samples: 1, shutter_s: 0.0 };
//! let mut picture = Picture::begin(&session, &head, &wish, None).unwrap();
//! while picture.step(session.site()) {}
//! assert_eq!(picture.rgba().len(), (picture.width() * picture.height() * 4) as usize);
//! ```

mod drape;
mod face;
mod figure;
mod level;
mod light;
mod paint;
mod person;
mod plate;
mod render;
mod surface;
mod texture;
mod vehicle;
mod window;

pub use drape::Drape;
pub use figure::{Figure, figures};
pub use light::{Exposed, Light};
pub use paint::Paint;
pub use plate::{CHARACTER_M, STROKE_M};
pub use render::{Mark, Picture, PictureTold, PictureWish};
pub use texture::COURSE_M;
pub use window::{Frame, Window};
