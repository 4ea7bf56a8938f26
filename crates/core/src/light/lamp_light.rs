//! What lamps give (handbook, section 9): I = Φ/2π candela into the lower half space, E = I·cos θ/d², opaque solids shade.

use crate::file::Lamp;
use crate::scene::Scene;
use glam::DVec3;
use std::f64::consts::TAU;

/// A lamp made ready.
#[derive(Clone, Debug)]
pub struct LampLight {
    /// Its id.
    pub id: String,
    /// Where its light comes from, m: out of the surface that it hangs on.
    pub from: DVec3,
    /// Its light into the lower half space, candela.
    pub candela: f64,
    /// The id of the solid that it is drawn inside of; its light goes nowhere.
    pub inside: Option<String>,
}

/// Nearer than this the light grows no more, m: a lamp is no point.
const NEAREST_M: f64 = 0.1;

/// The light of so many lumens into the lower half space, candela.
pub fn candela(lumens: f64) -> f64 {
    lumens / TAU
}

impl LampLight {
    /// A lamp among the solids of a site.
    pub fn new(lamp: &Lamp, scene: &Scene) -> LampLight {
        let at = DVec3::new(lamp.position[0], lamp.position[1], lamp.ground_m + lamp.height_m);
        let from = scene.out_of_mounting(at, None);
        let inside = scene.solid_around(from).map(|solid| solid.id().to_owned());
        LampLight { id: lamp.id.clone(), from, candela: candela(lamp.lumens), inside }
    }

    /// What it gives a surface at a point whose way out is `normal` (of length one), lux, whatever stands in the way.
    ///
    /// ```
    /// use bright_angle_core::light::LampLight;
    /// use glam::DVec3;
    /// // 6283 lm are 1000 cd: straight below at 5 m a level surface gets 40 lux, at 45° 1000·cos³45°/25 = 14.1 lux.
    /// let lamp = LampLight { id: "l".into(), from: DVec3::Z * 5.0, candela: 1000.0, inside: None };
    /// assert!((lamp.lux(DVec3::ZERO, DVec3::Z) - 40.0).abs() < 1e-12);
    /// assert!((lamp.lux(DVec3::X * 5.0, DVec3::Z) - 14.142).abs() < 1e-3);
    /// ```
    pub fn lux(&self, point: DVec3, normal: DVec3) -> f64 {
        let step = self.from - point;
        if step.z <= 0.0 || self.inside.is_some() {
            return 0.0;
        }
        let distance = step.length().max(NEAREST_M);
        let cosine = normal.dot(step) / step.length();
        if cosine > 0.0 { self.candela * cosine / (distance * distance) } else { 0.0 }
    }

    /// Whether its light gets to a point.
    pub fn reaches(&self, point: DVec3, scene: &Scene) -> bool {
        self.inside.is_none() && scene.first_blocker(self.from, point).is_none()
    }
}

/// The light on an upright surface at a point that faces another one, lux, and which lamps it comes from.
pub fn lux_upright(lamps: &[LampLight], scene: &Scene, point: DVec3, towards: DVec3) -> (f64, Vec<String>) {
    let normal = (towards - point).with_z(0.0).normalize_or_zero();
    let mut reach = Vec::new();
    let mut lux = 0.0;
    for lamp in lamps {
        let own = lamp.lux(point, normal);
        if own > 0.0 && lamp.reaches(point, scene) {
            lux += own;
            reach.push(lamp.id.clone());
        }
    }
    (lux, reach)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::scene::Solid;

    fn lamp(position: [f64; 2], height_m: f64, lumens: f64) -> Lamp {
        Lamp { id: "l".into(), name: "L".into(), position, height_m, lumens, ground_m: 0.0 }
    }

    #[test]
    fn light_falls_off_with_the_square_and_the_slope() {
        let scene = Scene::new(vec![]);
        let lamps = [LampLight::new(&lamp([0.0, 0.0], 5.0, 4000.0), &scene)];
        // The inverse-square and cosine laws as lighting handbooks table them (from memory): E = I/d²·cos θ.
        let by_hand = |x: f64, z: f64| {
            let square = x * x + (5.0 - z) * (5.0 - z);
            4000.0 / TAU / square * (x / square.sqrt())
        };
        for (x, z) in [(3.0, 1.6), (6.0, 1.6), (12.0, 0.7), (24.0, 1.0)] {
            let (lux, reach) = lux_upright(&lamps, &scene, DVec3::new(x, 0.0, z), DVec3::new(-50.0, 0.0, 3.0));
            assert!((lux / by_hand(x, z) - 1.0).abs() < 1e-12 && reach == ["l"], "{x} {z}");
            // From the other side the surface is dark.
            assert_eq!(lux_upright(&lamps, &scene, DVec3::new(x, 0.0, z), DVec3::new(50.0, 0.0, 3.0)).0, 0.0);
        }
        // Over the lamp there is none of its light.
        assert_eq!(lux_upright(&lamps, &scene, DVec3::new(2.0, 0.0, 6.0), DVec3::new(-50.0, 0.0, 6.0)).0, 0.0);
    }

    #[test]
    fn walls_shade_glass_does_not_and_a_lamp_in_a_wall_gives_nothing() {
        let outline = [[4.0, -1.0], [5.0, -1.0], [5.0, 1.0], [4.0, 1.0]];
        for (see_through, lit) in [(0.0, false), (0.9, true)] {
            let scene = Scene::new(vec![Solid::new("w", &outline, true, 0.0, 6.0, see_through)]);
            let lamps = [LampLight::new(&lamp([0.0, 0.0], 5.0, 4000.0), &scene)];
            let (lux, reach) = lux_upright(&lamps, &scene, DVec3::new(9.0, 0.0, 1.6), DVec3::ZERO);
            assert_eq!((lux > 0.0, reach.len()), (lit, usize::from(lit)));
        }
        let scene = Scene::new(vec![Solid::new("w", &outline, true, 0.0, 6.0, 0.0)]);
        let buried = LampLight::new(&lamp([4.5, 0.0], 3.0, 4000.0), &scene);
        assert_eq!(buried.inside.as_deref(), Some("w"));
        assert_eq!(lux_upright(&[buried], &scene, DVec3::new(9.0, 0.0, 1.6), DVec3::ZERO).0, 0.0);
    }
}
