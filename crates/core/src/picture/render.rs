//! The picture itself, worked out row by row.

use super::drape::Drape;
use super::figure::{Figure, figures};
use super::level::{horizon, level};
use super::light::{Exposed, Falling, Light, Night, Place};
use super::paint::Curve;
use super::surface::{Spot, ground, of_solid};
use super::window::{Frame, Window, not_before};
use crate::file::{Fault, HeadRef, NeedSet, ObstacleKind, Task};
use crate::judge::Session;
use crate::judge::automatic::{Plate, automatic_times};
use crate::judge::evaluation::{eye_around, viewer_of};
use crate::judge::sight::Viewer;
use crate::light::{DRAWN_LEAST_LUX, LampLight, WHITE, lux_upright};
use crate::math::RayCurve;
use crate::scene::{Eye, Scene};
use crate::site::ray::{Met, follow};
use crate::site::{Head, Mask, Site};
use crate::verdict::Verdict;
use glam::{DVec2, DVec3, Vec3};
use serde::{Deserialize, Serialize};
use std::sync::Arc;
use utoipa::ToSchema;

/// How many rows are worked out at a step.
const ROWS: u32 = 4;
/// Figures are looked for in so many columns at once.
const COLUMNS: u32 = 16;
/// The finest: samples a pixel to a side.
const MOST_SAMPLES: u32 = 8;
/// Where the lens has no picture: transparent.
const NOTHING: [u8; 4] = [0, 0, 0, 0];
/// A figure must be so much nearer than what stands behind it, m.
const AT_FIGURE_M: f64 = 1e-3;

/// How a picture is wished for.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PictureWish {
    /// What of it, and how large.
    pub window: Window,
    /// In which light.
    pub light: Light,
    /// Whether a grid of metres is laid on the ground.
    #[serde(default)]
    pub grid: bool,
    /// Samples to a side of each pixel: 1 while something moves, 2 or more for smooth edges.
    pub samples: u32,
    /// How long the shutter is open, s: subjects that move are drawn out so long. Nothing moves while it is zero.
    #[serde(default)]
    #[schema(minimum = 0)]
    pub shutter_s: f64,
}

/// A promise in a picture.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Mark {
    /// The target.
    pub target: String,
    /// Where its sight line lands on the sensor, px, as evaluated.
    pub pixel: [f64; 2],
    /// What must be seen of it on the sensor, px: left, top, right, bottom; none out of the picture.
    pub bracket: Option<[f64; 4]>,
    /// Pixel density there across, px/m.
    pub px_per_m: Option<f64>,
    /// The most demanding task of the table that so many pixels are enough for, reading plates aside; none for fewer than the least.
    pub good_for: Option<Task>,
    /// How its sight line stands.
    pub verdict: Verdict,
    /// Whether that line is clear.
    pub clear: bool,
    /// How far it is drawn out while the shutter is open, px of the sensor.
    pub blur_px: f64,
}

/// What a picture shows.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PictureTold {
    /// Which part of the sensor.
    pub frame: Frame,
    /// Size of the whole sensor's picture, px.
    pub sensor_px: [f64; 2],
    /// Effective focal length, px of the sensor: so many pixels a small turn takes, per radian, in its middle.
    pub focal_px: f64,
    /// The promises that lie before the head.
    pub marks: Vec<Mark>,
    /// The share of what is worked out that is lighter than white can be.
    pub clipped: f64,
    /// Whether the camera has a light of its own.
    pub infrared: bool,
    /// Whether lamps are known that shine at night.
    pub lamps: bool,
    /// Lines of the horizon, px of the sensor.
    pub horizon: Vec<Vec<[f64; 2]>>,
    /// A line through its middle that is level where the camera hangs level, px of the sensor.
    pub level: Vec<Vec<[f64; 2]>>,
    /// What must be masked for private places: outlines, px of the sensor, with their places' ids.
    pub masks: Vec<MaskShown>,
}

/// A mask in a picture.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct MaskShown {
    /// The private place's id.
    pub id: String,
    /// Its corners, px of the sensor.
    pub outline: Vec<[f64; 2]>,
}

/// A picture as it is worked out.
#[derive(Clone, Debug)]
pub struct Picture {
    head: Head,
    eye: Eye,
    figures: Vec<Placed>,
    kinds: Vec<ObstacleKind>,
    /// What must be masked, with the private places' ids.
    masks: Vec<(Mask, String)>,
    needs: NeedSet,
    falling: Falling,
    frame: Frame,
    grid: bool,
    /// Where in each pixel samples are taken.
    offsets: Vec<DVec2>,
    shutter: f64,
    drape: Option<Arc<Drape>>,
    row: u32,
    rgba: Vec<u8>,
    clipped: u32,
    shown: u32,
    infrared: bool,
    lamps: bool,
    curve: Curve,
    rays: RayCurve,
}

/// A figure with the box on the sensor that it lands in; the whole sensor where that is not known.
#[derive(Clone, Debug)]
struct Placed {
    figure: Figure,
    bounds: Option<(DVec2, DVec2)>,
}

impl Placed {
    fn may_hold(&self, pixel: DVec2) -> bool {
        self.bounds.is_none_or(|(low, high)| pixel.cmpge(low).all() && pixel.cmple(high).all())
    }

    fn may_touch_across(&self, [left, right]: [f64; 2]) -> bool {
        self.bounds.is_none_or(|(low, high)| low.x <= right && high.x >= left)
    }

    fn may_touch(&self, top: f64, bottom: f64) -> bool {
        self.bounds.is_none_or(|(low, high)| low.y <= bottom && high.y >= top)
    }
}

impl Picture {
    /// Begins a picture, with the overhead picture on the ground where there is one.
    ///
    /// # Errors
    /// Names the head or target that the site does not have, or that the target does not lie before the head.
    pub fn begin(
        session: &Session,
        head: &HeadRef,
        wish: &PictureWish,
        drape: Option<Arc<Drape>>,
    ) -> Result<Picture, Fault> {
        if !(0.0..=1.0).contains(&wish.shutter_s) {
            return Err(Fault::new("shutter_s", format!("{} is outside 0 to 1 s", wish.shutter_s)));
        }
        let site = session.site();
        let head = site.view(head)?.clone();
        let figures = figures(session, &head);
        let view = *head.view();
        let frame = match &wish.window {
            Window::Whole { width } => Frame::whole(view.projection.size(), *width),
            Window::Band { width, from, to } => Frame::band(view.projection.size(), *width, *from, *to),
            Window::Loupe { target, across, down } => {
                let place = site.target_place(target)?;
                let figure = figures.iter().find(|figure| figure.place == place);
                let at = figure.map_or(site.targets()[place].middle, |figure| figure.at);
                let (pixel, _) =
                    view.pixel_of(at).ok_or_else(|| Fault::new("target", not_before(target, &head.name())))?;
                Frame::around(pixel, *across, *down)
            }
        };
        let eye = eye_around(site, &head);
        let falling = falling(session, &head, &eye, &figures, wish.light);
        let place = |figure: Figure| Placed { bounds: figure.bounds(&view, wish.shutter_s), figure };
        let masks = site.masks(&head).iter().map(|mask| (mask.clone(), site.private()[mask.place].id().to_owned()));
        Ok(Picture {
            eye,
            figures: figures.into_iter().map(place).collect(),
            kinds: kinds(site),
            masks: masks.collect(),
            needs: site.rules().needs,
            falling,
            frame,
            grid: wish.grid,
            offsets: offsets(wish.samples.clamp(1, MOST_SAMPLES)),
            shutter: wish.shutter_s,
            drape,
            row: 0,
            rgba: vec![0; (frame.width * frame.height * 4) as usize],
            clipped: 0,
            shown: 0,
            infrared: head.light().beam.is_some(),
            lamps: site.lamps().iter().any(|lamp| lamp.candela > 0.0),
            curve: Curve::new(),
            rays: RayCurve::new(&view.projection),
            head,
        })
    }

    /// Works out some more rows; `false` when there are none left. The site must be the one that it was begun on.
    pub fn step(&mut self, site: &Site) -> bool {
        let end = (self.row + ROWS).min(self.frame.height);
        for row in self.row..end {
            self.work_out(site.scene(), row);
        }
        self.row = end;
        end < self.frame.height
    }

    /// Width, px.
    pub fn width(&self) -> u32 {
        self.frame.width
    }

    /// Height, px.
    pub fn height(&self) -> u32 {
        self.frame.height
    }

    /// Which part of the sensor it shows.
    pub fn frame(&self) -> &Frame {
        &self.frame
    }

    /// What it shows.
    pub fn told(&self) -> PictureTold {
        let mark = |Placed { figure, .. }: &Placed| Mark {
            target: figure.target.clone(),
            pixel: figure.pixel.to_array(),
            bracket: figure.bracket(),
            px_per_m: figure.px_per_m,
            good_for: figure.px_per_m.and_then(|density| good_for(self.needs, density)),
            verdict: figure.verdict,
            clear: figure.clear,
            blur_px: figure.drawn_out(self.head.view(), self.shutter),
        };
        let mask = |(mask, id): &(Mask, String)| MaskShown {
            id: id.clone(),
            outline: mask.outline.iter().map(|corner| corner.to_array()).collect(),
        };
        PictureTold {
            frame: self.frame,
            sensor_px: self.head.view().projection.size().to_array(),
            focal_px: self.head.view().projection.focal_px(),
            marks: self.figures.iter().map(mark).collect(),
            clipped: self.clipped(),
            infrared: self.infrared,
            lamps: self.lamps,
            horizon: horizon(&self.head),
            level: level(&self.head),
            masks: self.masks.iter().map(mask).collect(),
        }
    }

    /// Red, green, blue and opacity of each pixel, from the top left; what is not there is transparent.
    pub fn rgba(&self) -> &[u8] {
        &self.rgba
    }

    /// The share of what it shows that is lighter than white can be.
    pub fn clipped(&self) -> f64 {
        f64::from(self.clipped) / f64::from(self.shown.max(1))
    }

    fn work_out(&mut self, scene: &Scene, row: u32) {
        let Frame { width, .. } = self.frame;
        let (top, bottom) = (f64::from(row), f64::from(row + 1));
        let [top, bottom] = [top, bottom].map(|y| self.frame.sensor(DVec2::new(0.0, y)).y);
        let near: Vec<usize> =
            (0..self.figures.len()).filter(|place| self.figures[*place].may_touch(top, bottom)).collect();
        let mut here: Vec<usize> = vec![];
        for column in 0..width {
            if column % COLUMNS == 0 {
                let ends = [column, column + COLUMNS].map(|x| self.frame.sensor(DVec2::new(f64::from(x), 0.0)).x);
                here.clear();
                here.extend(near.iter().filter(|place| self.figures[**place].may_touch_across(ends)));
            }
            let mut sum = Vec3::ZERO;
            let mut count = 0_u32;
            let corner = DVec2::new(f64::from(column), f64::from(row));
            for sample in 0..self.offsets.len() {
                let time = if self.shutter > 0.0 { self.time_of(sample, column, row) } else { 0.0 };
                let pixel = self.frame.sensor(corner + self.offsets[sample]);
                if let Some(light) = self.light_at(scene, pixel, time, &here) {
                    // What is lighter than white is white before it is mixed: edges stay smooth.
                    sum += light.min(Vec3::ONE);
                    count += 1;
                    self.shown += 1;
                    self.clipped += u32::from(light.min_element() >= 1.0);
                }
            }
            let place = ((row * width + column) * 4) as usize;
            let bytes = if count == 0 {
                NOTHING
            } else {
                let light = sum / count as f32;
                let opaque = (255 * count / self.offsets.len() as u32) as u8;
                [self.curve.byte(light.x), self.curve.byte(light.y), self.curve.byte(light.z), opaque]
            };
            self.rgba[place..place + 4].copy_from_slice(&bytes);
        }
    }

    /// When a sample is taken, s from the middle of the exposure: mixed anew in every pixel, so that nothing shows in steps.
    fn time_of(&self, sample: usize, column: u32, row: u32) -> f64 {
        let count = self.offsets.len();
        let turn = (sample + mixed(column, row) as usize) % count;
        ((turn as f64 + 0.5) / count as f64 - 0.5) * self.shutter
    }

    /// The light that a place of the sensor gets; `None` where the lens has no picture.
    fn light_at(&self, scene: &Scene, pixel: DVec2, time: f64, near: &[usize]) -> Option<Vec3> {
        let view = self.head.view();
        if !view.projection.holds(pixel) {
            return None;
        }
        let direction = view.pose.to_site(self.rays.direction(pixel)?);
        if !self.head.shows(direction) {
            return None;
        }
        let met = follow(&self.eye, scene, direction);
        let from = met.from;
        let density = self.head.view().projection.focal_px() / self.frame.scale;
        let mut nearest = met.distance;
        let mut light = None;
        for place in near {
            let placed = &self.figures[*place];
            if placed.may_hold(pixel)
                && let Some((distance, paint)) = placed.figure.meet(from - placed.figure.velocity() * time, direction)
                && distance < nearest - AT_FIGURE_M
            {
                nearest = distance;
                let place = Place { at: from + direction * distance, normal: placed.figure.normal() };
                light = Some(self.falling.back(scene, paint, place, direction));
            }
        }
        let light = light.unwrap_or_else(|| {
            let at = from + direction * met.distance;
            let pixel = met.distance / density;
            let Spot { normal, paint } = match met.met {
                Met::Sky => return self.falling.sky(direction),
                Met::Ground => ground(at, pixel, self.grid, self.drape.as_deref()),
                Met::Obstacle(solid) => {
                    let kind = met.solid.and_then(|place| self.kinds.get(place)).copied();
                    of_solid(solid, kind.unwrap_or(ObstacleKind::Other), at, direction, pixel)
                }
            };
            self.falling.back(scene, paint, Place { at, normal }, direction)
        });
        Some(if scene.has_see_through() {
            self.through(scene, from, direction, nearest, density, light)
        } else {
            light
        })
    }

    /// Light as it comes through what one sees through.
    fn through(&self, scene: &Scene, from: DVec3, direction: DVec3, far: f64, density: f64, light: Vec3) -> Vec3 {
        let far = far.min(10_000.0);
        let to = from + direction * far;
        let mut panes: Vec<(f64, usize)> = scene.passed_at(from, to);
        panes.sort_by(|a, b| b.0.total_cmp(&a.0));
        panes.into_iter().fold(light, |light, (share, place)| {
            let solid = &scene.solids()[place];
            let distance = share * far;
            let kind = self.kinds.get(place).copied().unwrap_or(ObstacleKind::Other);
            let at = from + direction * distance;
            let Spot { normal, paint } = of_solid(solid, kind, at, direction, distance / density);
            let own = self.falling.back(scene, paint, Place { at, normal }, direction);
            own.lerp(light, solid.see_through() as f32)
        })
    }
}

/// Where samples are taken in a pixel, so many to a side.
fn offsets(samples: u32) -> Vec<DVec2> {
    let place = |sample: u32| DVec2::new(f64::from(sample % samples), f64::from(sample / samples));
    (0..samples * samples).map(|sample| (place(sample) + 0.5) / f64::from(samples)).collect()
}

/// A figure that belongs to a pixel and differs from its neighbours'.
fn mixed(column: u32, row: u32) -> u32 {
    (column.wrapping_mul(0x9E37_79B1) ^ row.wrapping_mul(0x85EB_CA77)) >> 13
}

/// The most demanding task that a density, px/m, is enough for by a table, reading plates aside.
fn good_for(needs: NeedSet, density: f64) -> Option<Task> {
    let enough = |task: &Task| !task.reads_plates() && needs.need(*task).px_per_m <= density;
    Task::ALL.into_iter().rev().find(enough)
}

/// The light that falls, exposed as the head is set or as its automatic does it.
fn falling(session: &Session, head: &Head, eye: &Eye, figures: &[Figure], light: Light) -> Falling {
    let Light::Night { stops, exposed } = light else { return Falling::Day };
    let site = session.site();
    let own = head.light();
    let lamps: Vec<LampLight> = site.lamps().to_vec();
    if own.beam.is_none() && lamps.is_empty() {
        return Falling::Night(Night::DARK);
    }
    let retro = site.rules().retro_times;
    let usual = if own.is_fixed { Exposed::AsSet } else { Exposed::Automatic };
    let times = match exposed.unwrap_or(usual) {
        Exposed::AsSet => own.times,
        Exposed::Automatic => {
            let plates = figures.iter().filter(|figure| figure.is_plate() && figure.clear);
            let plate = |figure: &Figure| Plate {
                point: figure.at,
                infrared: own.infrared_at(head.position(), figure.at, site.scene()),
                back: if figure.is_retro() { own.thrown_back(head.position(), figure.at, retro) } else { 1.0 },
                lux: lux_upright(&lamps, site.scene(), figure.at, head.position()).0,
                half: figure.half(),
            };
            let viewer = Viewer { lamps: Some(&lamps), ..viewer_of(site, head, eye) };
            automatic_times(viewer, &plates.map(plate).collect::<Vec<_>>())
        }
    };
    // Both in units of what a picture needs: 1 of infrared light, the least lux of the model.
    let of_lux = 1.0 / own.least_lux.unwrap_or(DRAWN_LEAST_LUX);
    let gain = WHITE * 2_f64.powf(stops) / times;
    let from_aside = own.from_aside(head.position()).is_some();
    Falling::Night(Night { beam: own.beam, from_aside, lamps, retro, gain, of_lux: gain * of_lux })
}

/// What each solid of a site is.
fn kinds(site: &Site) -> Vec<ObstacleKind> {
    let of = |id: &str| site.file().obstacles.iter().find(|obstacle| obstacle.id == id).map(|obstacle| obstacle.kind);
    site.scene().solids().iter().map(|solid| of(solid.id()).unwrap_or(ObstacleKind::Other)).collect()
}
