//! How a camera turned between two pictures: by the pinhole of a stated field, to the right, down, clockwise as seen from behind it, and
//! how much longer its lens was set.

use nalgebra::{Matrix3, Vector3};

/// A turn.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct Turned {
    /// To the right, radians.
    pub right: f64,
    /// Down, radians.
    pub down: f64,
    /// Clockwise as seen from behind, radians.
    pub roll: f64,
    /// The logarithm of the scale: over 0 it was zoomed in.
    pub ln_scale: f64,
}

/// A pinhole whose middle is the picture's.
#[derive(Clone, Copy, Debug)]
pub struct Pinhole {
    focal: f64,
    middle: [f64; 2],
}

impl Pinhole {
    /// One of so many pixels and such a field across, degrees.
    pub fn new(width: usize, height: usize, hfov_deg: f64) -> Pinhole {
        let middle = [(width as f64 - 1.0) / 2.0, (height as f64 - 1.0) / 2.0];
        Pinhole { focal: width as f64 / 2.0 / (hfov_deg.to_radians() / 2.0).tan(), middle }
    }

    /// Its width and height, px.
    pub fn size(&self) -> [f64; 2] {
        self.middle.map(|middle| 2.0 * middle + 1.0)
    }

    /// Its focal length, px.
    pub fn focal(&self) -> f64 {
        self.focal
    }
}

/// Where pixels of one picture lie in the other.
#[derive(Clone, Copy, Debug)]
pub struct Map(Matrix3<f64>);

impl Turned {
    /// From the first picture's pixels to the later one's: K' Rᵀ K⁻¹ (R. Hartley, A. Zisserman, *Multiple View Geometry*, 2nd ed.,
    /// section 8.4; from memory).
    pub fn map(&self, pinhole: &Pinhole) -> Map {
        let k = |focal: f64| {
            let [u, v] = pinhole.middle;
            Matrix3::new(focal, 0.0, u, 0.0, focal, v, 0.0, 0.0, 1.0)
        };
        let inverse = {
            let ([u, v], focal) = (pinhole.middle, pinhole.focal);
            Matrix3::new(1.0 / focal, 0.0, -u / focal, 0.0, 1.0 / focal, -v / focal, 0.0, 0.0, 1.0)
        };
        Map(k(pinhole.focal * self.ln_scale.exp()) * self.axes().transpose() * inverse)
    }

    /// The axes of the turned camera in those of the first: right, down, forward.
    fn axes(&self) -> Matrix3<f64> {
        let (rs, rc) = self.right.sin_cos();
        let (ds, dc) = self.down.sin_cos();
        let (cs, cc) = self.roll.sin_cos();
        let forward = Vector3::new(rs * dc, ds, rc * dc);
        let right = Vector3::new(rc, 0.0, -rs);
        let down = forward.cross(&right);
        Matrix3::from_columns(&[right * cc + down * cs, down * cc - right * cs, forward])
    }

    /// The figures in a row.
    pub fn figures(&self) -> [f64; 4] {
        [self.right, self.down, self.roll, self.ln_scale]
    }

    /// A turn of such figures.
    pub fn of([right, down, roll, ln_scale]: [f64; 4]) -> Turned {
        Turned { right, down, roll, ln_scale }
    }
}

impl Map {
    /// Where a pixel lies.
    pub fn apply(&self, [x, y]: [f64; 2]) -> Option<[f64; 2]> {
        let at = self.0 * Vector3::new(x, y, 1.0);
        (at.z > 1e-9).then(|| [at.x / at.z, at.y / at.z])
    }

    /// The other way.
    pub fn inverse(&self) -> Option<Map> {
        self.0.try_inverse().map(Map)
    }
}
