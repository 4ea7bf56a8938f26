//! How a head hangs, from its own picture: the pose and the focal length that put known points of the site where they were seen.
//!
//! Resection by least squares (Gauss and Newton, damped) on the lens's exact projection, as photogrammetry has it: J. C. McGlone (ed.),
//! *Manual of Photogrammetry*; from memory. The turn that begins it is Wahba's problem ("A least squares estimate of satellite
//! attitude", 1965), solved by singular values for each of a row of focal lengths. Names and meanings: the site-file contract, *Pose*.

use super::pose_points::{PosePoint, Spread};
use crate::file::{CameraFile, Fault};
use crate::math::least_squares::{Fit, Settled, Stuck, Until, settle};
use crate::math::{Angle, Pose, Projection, View};
use crate::site::{Head, Site};
use glam::{DMat3, DQuat, DVec2, DVec3};
use nalgebra::{DMatrix, DVector, Matrix2, Matrix3, SymmetricEigen, Vector2};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// How well a point is clicked where nothing else is said, px.
pub const USUAL_SIGMA_PX: f64 = 2.0;
/// How well the height of a camera is known where nothing else is said, m (handbook, section 4).
pub const USUAL_HEIGHT_SIGMA_M: f64 = 0.05;
/// A point whose residual is larger than this, in its own standard deviations, may be a wrong one.
pub const DOUBTFUL_OVER: f64 = 3.7;
/// Past these the points don't tell: of a turn, degrees, and of the focal length, as a share (ours).
const MOST_TURN_DEG: f64 = 10.0;
const MOST_FOCAL: f64 = 0.5;

const UNTIL: Until = Until { length: 1e-11, steps: 100 };
/// The weights of points that are uncertain themselves hang on where they lie: they are made anew so often.
const REWEIGHTED: usize = 12;
/// Focal lengths that a start is sought with: so many, from a share of the shortest to a multiple of the longest.
const FOCALS: usize = 48;
const FOCAL_SPAN: f64 = 4.0;
/// So many of the best starts are followed.
const FOLLOWED: usize = 6;

/// What is asked of a pose.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PoseWish {
    /// How well points are clicked, px.
    pub sigma_px: f64,
    /// How well the place is known, m east and north each; it is held where left out.
    #[serde(default)]
    pub position_sigma_m: Option<f64>,
    /// How well the height is known, m.
    #[serde(default)]
    pub height_sigma_m: Option<f64>,
}

impl Default for PoseWish {
    fn default() -> Self {
        PoseWish { sigma_px: USUAL_SIGMA_PX, position_sigma_m: None, height_sigma_m: None }
    }
}

impl PoseWish {
    fn faults(&self) -> Vec<Fault> {
        let figures = [
            ("sigma_px", Some(self.sigma_px), 1e-6..=1000.0, "px"),
            ("position_sigma_m", self.position_sigma_m, 1e-6..=1000.0, "m"),
            ("height_sigma_m", self.height_sigma_m, 1e-6..=1000.0, "m"),
        ];
        let outside = figures.into_iter().filter_map(|(name, value, range, unit)| {
            let value = value.filter(|value| !range.contains(value))?;
            Some(Fault::new(name, format!("{value} is outside {} to {} {unit}", range.start(), range.end())))
        });
        let mut faults: Vec<Fault> = outside.collect();
        if self.height_sigma_m.is_some() && self.position_sigma_m.is_none() {
            faults.push(Fault::new("height_sigma_m", "goes with position_sigma_m only: else the place is held"));
        }
        faults
    }

    /// The standard deviations of east, north and height, m; `None` where the place is held.
    fn place(&self) -> Option<[f64; 3]> {
        let flat = self.position_sigma_m?;
        Some([flat, flat, self.height_sigma_m.unwrap_or(USUAL_HEIGHT_SIGMA_M)])
    }
}

/// The figures of a pose, by the names of the site file; `east_m` and those after it only where the place was sought.
#[derive(Clone, Copy, Debug, Default, PartialEq, Serialize, ToSchema)]
pub struct PoseFigures {
    /// Bearing of the axis, degrees.
    pub pan_deg: f64,
    /// How far the axis looks down, degrees.
    pub tilt_deg: f64,
    /// Turn about the axis, degrees clockwise as seen from behind.
    pub roll_deg: f64,
    /// Nominal focal length, mm.
    pub focal_mm: f64,
    /// The camera's place, m.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub east_m: Option<f64>,
    /// The same north, m.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub north_m: Option<f64>,
    /// Its height over the ground at its foot, m.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub height_m: Option<f64>,
}

/// A point of a pose, with how it fits.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PointFit {
    /// Its id.
    pub id: String,
    /// Observed less computed, px right and down.
    pub residual_px: [f64; 2],
    /// The residual in its own standard deviations.
    pub standardised: f64,
    /// Whether it may be a wrong one: the worst of all, and over 3.7.
    pub doubtful: bool,
}

/// How a head hangs.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PoseFound {
    /// The figures.
    #[serde(flatten)]
    pub at: PoseFigures,
    /// Their standard deviations.
    pub sigma: PoseFigures,
    /// Root of the mean over the points of the squares of their residuals, px.
    pub rms_px: f64,
    /// The points, in their order.
    pub points: Vec<PointFit>,
    /// As built less as designed.
    pub differs: PoseFigures,
    /// Whether the figures came to rest.
    pub settled: bool,
    /// Whether the focal length is outside what the lens has.
    pub outside_lens: bool,
}

/// What is sought of a head, and what is known of it.
struct Sought<'a> {
    head: &'a Head,
    lens: [f64; 2],
    points: &'a [PosePoint],
    wish: PoseWish,
    /// Where the file has it, m.
    drawn: DVec3,
    begin: Hangs,
    /// The weight of each point: the inverse of its covariance, px⁻².
    weights: Vec<Matrix2<f64>>,
}

/// How it hangs: axes, logarithm of the nominal focal length, place.
#[derive(Clone, Copy, Debug)]
struct Hangs {
    axes: DMat3,
    ln_focal: f64,
    place: DVec3,
}

impl Hangs {
    /// From where it was, by a step: a turn about its own axes, a share of the focal length, a way.
    fn stepped(&self, by: &DVector<f64>) -> Hangs {
        let turn = DVec3::new(by[0], by[1], by[2]);
        let place = if by.len() > 4 { DVec3::new(by[4], by[5], by[6]) } else { DVec3::ZERO };
        let axes = self.axes * DMat3::from_quat(DQuat::from_scaled_axis(turn));
        Hangs { axes, ln_focal: self.ln_focal + by[3], place: self.place + place }
    }

    fn pose(&self) -> Pose {
        Pose { position: self.place, right: self.axes.x_axis, down: self.axes.y_axis, forward: self.axes.z_axis }
    }

    /// Pan, tilt and roll, degrees.
    fn angles(&self) -> [f64; 3] {
        let [forward, right] = [self.axes.z_axis, self.axes.x_axis];
        let pan = Angle::bearing_of(forward.x, forward.y);
        let level = DVec3::new(pan.cos(), -pan.sin(), 0.0);
        let roll = forward.cross(level).dot(right).atan2(level.dot(right));
        [pan.deg().rem_euclid(360.0), (-forward.z).clamp(-1.0, 1.0).asin().to_degrees(), roll.to_degrees()]
    }

    /// How pan, tilt and roll, radians, answer to a turn about its own axes.
    fn angles_by_turn(&self) -> Matrix3<f64> {
        let forward = self.axes.z_axis;
        let pan = Angle::bearing_of(forward.x, forward.y);
        let flat = forward.x.hypot(forward.y).max(1e-12);
        let of = |axis: DVec3| {
            let moved = axis.cross(forward);
            let panned = (moved.x * pan.cos() - moved.y * pan.sin()) / flat;
            [panned, -moved.z / flat, axis.dot(forward) + panned * forward.z]
        };
        let [x, y, z] = [self.axes.x_axis, self.axes.y_axis, self.axes.z_axis].map(of);
        Matrix3::new(x[0], y[0], z[0], x[1], y[1], z[1], x[2], y[2], z[2])
    }
}

impl Sought<'_> {
    fn figures(&self) -> usize {
        if self.wish.position_sigma_m.is_some() { 7 } else { 4 }
    }

    /// The lens at a nominal focal length. Outside the lens's range the end's ratio effective/nominal is held.
    fn projection(&self, ln_focal: f64) -> Projection {
        let fitted = self.head.fitted();
        let focal = ln_focal.exp();
        let held = focal.clamp(self.lens[0], self.lens[1]);
        fitted.projection(held).scaled(focal / held)
    }

    /// How the logarithm of the effective focal length answers to that of the nominal one.
    fn slope(&self, ln_focal: f64) -> f64 {
        let focal = ln_focal.exp();
        if focal <= self.lens[0] || focal >= self.lens[1] {
            return 1.0;
        }
        let fitted = self.head.fitted();
        let step = 1e-5 * focal;
        let [less, more] = [focal - step, focal + step].map(|at| fitted.effective_focal_mm(at));
        (more / less).ln() / ((focal + step) / (focal - step)).ln()
    }

    fn view(&self, hangs: &Hangs) -> View {
        View { pose: hangs.pose(), projection: self.projection(hangs.ln_focal) }
    }

    /// Observed less computed, px; `None` where a point has no place in such a picture.
    fn residual(view: &View, point: &PosePoint) -> Option<DVec2> {
        view.pixel_of(point.place()).map(|(pixel, _)| point.seen() - pixel)
    }

    /// How a point's pixel answers to the figures: two rows.
    fn rows(&self, hangs: &Hangs, view: &View, point: &PosePoint, turned: &DMat3) -> DMatrix<f64> {
        let direction = view.pose.to_camera(point.place() - view.pose.position);
        let mut rows = DMatrix::zeros(2, self.figures());
        let mut put = |column: usize, pixel: DVec2| {
            rows[(0, column)] = pixel.x;
            rows[(1, column)] = pixel.y;
        };
        let turns = [0, 1, 2].map(|axis| direction.cross(turned.col(axis)));
        let moved = view.projection.pixel_velocities(direction, turns);
        for (axis, pixel) in moved.into_iter().enumerate() {
            put(axis, pixel);
        }
        let (pixel, middle) =
            (point.seen() - Self::residual(view, point).unwrap_or_default(), view.projection.size() / 2.0);
        put(3, (pixel - middle) * self.slope(hangs.ln_focal));
        if self.figures() > 4 {
            let ways = DVec3::AXES.map(|axis| -view.pose.to_camera(axis));
            for (axis, pixel) in view.projection.pixel_velocities(direction, ways).into_iter().enumerate() {
                put(4 + axis, pixel);
            }
        }
        rows
    }

    /// The covariance of a point's pixel: how well it was clicked, and how well it is known where it is.
    fn covariance(&self, view: &View, point: &PosePoint) -> Matrix2<f64> {
        let clicked = Matrix2::identity() * self.wish.sigma_px.powi(2);
        let Some(sigma) = point.sigma_m.filter(|sigma| *sigma > 0.0) else { return clicked };
        let direction = view.pose.to_camera(point.place() - view.pose.position);
        let ways = DVec3::AXES.map(|axis| view.pose.to_camera(axis));
        let moved = view.projection.pixel_velocities(direction, ways);
        moved.iter().fold(clicked, |sum, pixel| {
            let pixel = Vector2::new(pixel.x, pixel.y) * sigma;
            sum + pixel * pixel.transpose()
        })
    }

    fn weigh(&mut self) {
        let view = self.view(&self.begin);
        self.weights = self
            .points
            .iter()
            .map(|point| self.covariance(&view, point).try_inverse().unwrap_or_else(Matrix2::zeros))
            .collect();
    }

    /// How far the place is from where the file has it, in standard deviations.
    fn strayed(&self, place: DVec3) -> [f64; 3] {
        let sigma = self.wish.place().unwrap_or([f64::INFINITY; 3]);
        let off = (place - self.drawn).to_array();
        [0, 1, 2].map(|axis| off[axis] / sigma[axis])
    }

    /// The normal matrix of the points and of what is known of the place, at how it hangs.
    fn normal(&self, hangs: &Hangs, turned: &DMat3) -> (DMatrix<f64>, DVector<f64>) {
        let (count, view) = (self.figures(), self.view(hangs));
        let (mut normal, mut right) = (DMatrix::zeros(count, count), DVector::zeros(count));
        for (point, weight) in self.points.iter().zip(&self.weights) {
            let rows = self.rows(hangs, &view, point, turned);
            let off = Self::residual(&view, point).unwrap_or_default();
            let weighted = rows.transpose() * weight;
            normal += &weighted * &rows;
            right += weighted * Vector2::new(off.x, off.y);
        }
        if let Some(sigma) = self.wish.place() {
            for (axis, strayed) in self.strayed(hangs.place).into_iter().enumerate() {
                normal[(4 + axis, 4 + axis)] += sigma[axis].powi(-2);
                right[4 + axis] -= strayed / sigma[axis];
            }
        }
        (normal, right)
    }

    fn misfit_of(&self, hangs: &Hangs) -> f64 {
        let view = self.view(hangs);
        let of = |(point, weight): (&PosePoint, &Matrix2<f64>)| {
            Self::residual(&view, point).map_or(f64::INFINITY, |off| {
                let off = Vector2::new(off.x, off.y);
                (off.transpose() * weight * off)[0]
            })
        };
        let clicked: f64 = self.points.iter().zip(&self.weights).map(of).sum();
        clicked + self.strayed(hangs.place).iter().map(|strayed| strayed * strayed).sum::<f64>()
    }
}

/// The right Jacobian of a turn: how the axes turn when its figures change (J. Stuelpnagel, 1964; from memory).
fn turned_by(turn: DVec3) -> DMat3 {
    let angle = turn.length();
    let cross = DMat3::from_cols(
        DVec3::new(0.0, turn.z, -turn.y),
        DVec3::new(-turn.z, 0.0, turn.x),
        DVec3::new(turn.y, -turn.x, 0.0),
    );
    let (first, second) = if angle < 1e-4 {
        (0.5 - angle * angle / 24.0, 1.0 / 6.0 - angle * angle / 120.0)
    } else {
        ((1.0 - angle.cos()) / (angle * angle), (angle - angle.sin()) / angle.powi(3))
    };
    DMat3::IDENTITY - cross * first + cross * cross * second
}

impl Fit for Sought<'_> {
    fn misfit(&self, at: &DVector<f64>) -> f64 {
        self.misfit_of(&self.begin.stepped(at))
    }

    fn equations(&self, at: &DVector<f64>, _: u32) -> (DMatrix<f64>, DVector<f64>) {
        self.normal(&self.begin.stepped(at), &turned_by(DVec3::new(at[0], at[1], at[2])))
    }

    fn length(&self, step: &DVector<f64>) -> f64 {
        step.amax()
    }
}

/// How a head hangs whose picture shows known points at these pixels.
///
/// # Errors
/// Points that make no sense, each with its place, or that cannot tell.
pub fn pose_of(site: &Site, head: &Head, points: &[PosePoint], wish: PoseWish) -> Result<PoseFound, Vec<Fault>> {
    let mut faults = wish.faults();
    faults.extend(super::pose_points::faults(points, head));
    if head.is_flattened() {
        faults.push(Fault::new("view", "a dewarped view is cut out of a round picture: click in that one"));
    }
    if !faults.is_empty() {
        return Err(faults);
    }
    let camera = &site.file().cameras[head.camera()];
    let lens = camera.lens_of(head.place());
    let aimed = camera.heads[head.place()].aimed(head.which());
    let drawn = head.position();
    let axes = head.view().pose;
    let begin = Hangs {
        axes: DMat3::from_cols(axes.right, axes.down, axes.forward),
        ln_focal: aimed.focal_mm.ln(),
        place: drawn,
    };
    let lens = [lens.focal_min_mm, lens.focal_max_mm];
    let mut sought = Sought { head, lens, points, wish, drawn, begin, weights: vec![] };
    let spread = Spread::of(points, drawn);
    let found = best(&mut sought).ok_or_else(|| vec![spread.why_not()])?;
    sought.begin = found.0;
    let (normal, _) = sought.normal(&found.0, &DMat3::IDENTITY);
    let spared = normal.try_inverse().filter(tells).ok_or_else(|| vec![spread.why_not()])?;
    Ok(told(&sought, camera, &found.0, found.1, &spared))
}

/// Whether the points tell the turn and the focal length.
fn tells(spared: &DMatrix<f64>) -> bool {
    let turn = spared.fixed_view::<3, 3>(0, 0).clone_owned();
    let most = SymmetricEigen::new(turn).eigenvalues.max();
    (0.0..MOST_TURN_DEG.to_radians().powi(2)).contains(&most)
        && (0.0..MOST_FOCAL * MOST_FOCAL).contains(&spared[(3, 3)])
}

/// The least of the minima from how the file has it and from starts all around; and whether it came to rest.
fn best(sought: &mut Sought<'_>) -> Option<(Hangs, bool)> {
    let mut starts = vec![sought.begin];
    starts.extend(starts_around(sought));
    let mut best: Option<(f64, Hangs, bool)> = None;
    for start in starts {
        let Some((hangs, settled)) = followed(sought, start) else { continue };
        let misfit = sought.misfit_of(&hangs);
        if misfit.is_finite() && best.as_ref().is_none_or(|(least, ..)| misfit < *least) {
            best = Some((misfit, hangs, settled));
        }
    }
    best.map(|(_, hangs, settled)| (hangs, settled))
}

/// From a start down to its minimum.
fn followed(sought: &mut Sought<'_>, start: Hangs) -> Option<(Hangs, bool)> {
    sought.begin = start;
    let uncertain = sought.points.iter().any(|point| point.sigma_m.is_some_and(|sigma| sigma > 0.0));
    let mut settled = false;
    for _ in 0..if uncertain { REWEIGHTED } else { 1 } {
        sought.weigh();
        if !sought.misfit_of(&sought.begin).is_finite() {
            return None;
        }
        let from = DVector::zeros(sought.figures());
        let at;
        (at, settled) = match settle(&*sought, from, UNTIL, |_| Ok::<(), ()>(())) {
            Ok(Settled { at, .. }) => (at, true),
            Err(Stuck::Unsettled(at)) => (at, false),
            Err(Stuck::Singular | Stuck::Ended(())) => return None,
        };
        sought.begin = sought.begin.stepped(&at);
        if at.amax() < 1e-9 {
            break;
        }
    }
    Some((sought.begin, settled))
}

/// Turns that fit best with each of a row of focal lengths, from where it is drawn and a little off it: the best of these.
fn starts_around(sought: &Sought<'_>) -> Vec<Hangs> {
    let mut places = vec![sought.drawn];
    if let Some(sigma) = sought.wish.place() {
        let sigma = DVec3::from_array(sigma);
        places.extend(
            DVec3::AXES.into_iter().flat_map(|axis| [sought.drawn + axis * sigma, sought.drawn - axis * sigma]),
        );
    }
    let [short, long] = [sought.lens[0] / FOCAL_SPAN, sought.lens[1] * FOCAL_SPAN].map(f64::ln);
    let mut found: Vec<(f64, Hangs)> = vec![];
    for place in places {
        let of = |step: usize| {
            let ln_focal = short + (long - short) * step as f64 / (FOCALS - 1) as f64;
            let hangs = Hangs { axes: turn_at(sought, ln_focal, place)?, ln_focal, place };
            let view = sought.view(&hangs);
            let off = sought.points.iter().map(|point| Sought::residual(&view, point).map(DVec2::length_squared));
            Some((off.sum::<Option<f64>>()?, hangs))
        };
        let row: Vec<Option<(f64, Hangs)>> = (0..FOCALS).map(of).collect();
        let off = |step: Option<usize>| {
            step.and_then(|step| row.get(step)).and_then(|one| one.map(|(off, _)| off)).unwrap_or(f64::INFINITY)
        };
        let low = |step: usize| off(Some(step)) <= off(step.checked_sub(1)) && off(Some(step)) <= off(Some(step + 1));
        found.extend((0..FOCALS).filter(|step| low(*step)).filter_map(|step| row[step]));
    }
    found.sort_by(|a, b| a.0.total_cmp(&b.0));
    found.into_iter().take(FOLLOWED).map(|(_, hangs)| hangs).collect()
}

/// The axes that bring the rays of the pixels nearest to the directions of the points.
fn turn_at(sought: &Sought<'_>, ln_focal: f64, place: DVec3) -> Option<DMat3> {
    let projection = sought.projection(ln_focal);
    let mut sum = Matrix3::zeros();
    for point in sought.points {
        let ray = projection.unproject(point.seen())?;
        let towards = (point.place() - place).normalize_or_zero();
        let [ray, towards] = [ray, towards].map(|v| nalgebra::Vector3::new(v.x, v.y, v.z));
        sum += towards * ray.transpose();
    }
    let parts = sum.svd(true, true);
    let (u, v) = (parts.u?, parts.v_t?);
    let handed = (u.determinant() * v.determinant()).signum();
    let axes = u * Matrix3::from_diagonal(&nalgebra::Vector3::new(1.0, 1.0, handed)) * v;
    Some(DMat3::from_cols_array(&axes.data.as_slice().try_into().ok()?))
}

fn told(sought: &Sought<'_>, camera: &CameraFile, hangs: &Hangs, settled: bool, spared: &DMatrix<f64>) -> PoseFound {
    let [pan_deg, tilt_deg, roll_deg] = hangs.angles();
    let focal_mm = hangs.ln_focal.exp();
    let by_turn = hangs.angles_by_turn();
    let angles = by_turn * spared.fixed_view::<3, 3>(0, 0) * by_turn.transpose();
    let sigma = |place: usize| angles[(place, place)].max(0.0).sqrt().to_degrees();
    let placed = sought.wish.position_sigma_m.is_some();
    let along = |axis: usize| placed.then(|| spared[(4 + axis, 4 + axis)].max(0.0).sqrt());
    let at = PoseFigures {
        pan_deg,
        tilt_deg,
        roll_deg,
        focal_mm,
        east_m: placed.then_some(hangs.place.x),
        north_m: placed.then_some(hangs.place.y),
        height_m: placed.then_some(hangs.place.z - camera.ground_m),
    };
    let aimed = camera.heads[sought.head.place()].aimed(sought.head.which());
    let off = |now: f64, then: f64| Angle::degrees(now - then).wrapped().deg();
    let points = fits(sought, hangs, spared);
    let squares: f64 = points.iter().map(|point| point.residual_px.iter().map(|part| part * part).sum::<f64>()).sum();
    PoseFound {
        at,
        sigma: PoseFigures {
            pan_deg: sigma(0),
            tilt_deg: sigma(1),
            roll_deg: sigma(2),
            focal_mm: spared[(3, 3)].sqrt() * focal_mm,
            east_m: along(0),
            north_m: along(1),
            height_m: along(2),
        },
        rms_px: (squares / points.len() as f64).sqrt(),
        points,
        differs: PoseFigures {
            pan_deg: off(pan_deg, aimed.pan_deg),
            tilt_deg: tilt_deg - aimed.tilt_deg,
            roll_deg: off(roll_deg, aimed.roll_deg),
            focal_mm: focal_mm - aimed.focal_mm,
            east_m: at.east_m.map(|east| east - camera.position[0]),
            north_m: at.north_m.map(|north| north - camera.position[1]),
            height_m: at.height_m.map(|height| height - camera.height_m),
        },
        settled,
        outside_lens: focal_mm < sought.lens[0] * 0.99 || focal_mm > sought.lens[1] * 1.01,
    }
}

/// How each point fits: its residual in its own standard deviations, √(rᵀ (S − A Q Aᵀ)⁺ r).
fn fits(sought: &Sought<'_>, hangs: &Hangs, spared: &DMatrix<f64>) -> Vec<PointFit> {
    let view = sought.view(hangs);
    let of = |point: &PosePoint| {
        let off = Sought::residual(&view, point).unwrap_or_default();
        let rows = sought.rows(hangs, &view, point, &DMat3::IDENTITY);
        let covariance = sought.covariance(&view, point);
        let left = covariance - (&rows * spared * rows.transpose()).fixed_view::<2, 2>(0, 0);
        let parts = SymmetricEigen::new(left);
        let least = 1e-9 * covariance.trace();
        let along = parts.eigenvectors.transpose() * Vector2::new(off.x, off.y);
        let squares = (0..2).filter(|axis| parts.eigenvalues[*axis] > least);
        let standardised = squares.map(|axis| along[axis].powi(2) / parts.eigenvalues[axis]).sum::<f64>().sqrt();
        PointFit { id: point.id.clone(), residual_px: off.to_array(), standardised, doubtful: false }
    };
    let mut fits: Vec<PointFit> = sought.points.iter().map(of).collect();
    let worst = fits.iter_mut().max_by(|a, b| a.standardised.total_cmp(&b.standardised));
    if let Some(worst) = worst.filter(|worst| worst.standardised > DOUBTFUL_OVER) {
        worst.doubtful = true;
    }
    fits
}
