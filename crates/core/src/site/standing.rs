//! The solids that an obstacle is, as it stands: a tree in its season and after its years, a door open or shut.

use crate::file::{Conditions, Obstacle, ObstacleKind, Point2};
use crate::scene::{Solid, reflectance_of};
use glam::DVec2;

/// The corners of a trunk.
const TRUNK_CORNERS: usize = 8;

/// The solids of an obstacle: one, and for a tree with a trunk its trunk.
pub fn standing(obstacle: &Obstacle, conditions: &Conditions) -> Vec<Solid> {
    let tree = obstacle.kind == ObstacleKind::Tree;
    let grown = if tree { obstacle.growth_m_per_year * conditions.years } else { 0.0 };
    let bare = obstacle.bare_see_through.filter(|_| tree && conditions.leaves_off);
    let outline = grown_outline(obstacle.standing(), grown);
    let [base, top] = [obstacle.base_m, obstacle.top_m + grown].map(|height| height + obstacle.ground_m);
    let see_through = bare.unwrap_or(obstacle.see_through);
    let crown = Solid::new(&obstacle.id, &outline, obstacle.closed, base, top, see_through)
        .giving_back(reflectance_of(obstacle.kind));
    let trunk = obstacle.trunk_m.filter(|_| tree && obstacle.base_m > 0.0).map(|thick| {
        let at = middle(&obstacle.outline);
        let corner = |i: usize| {
            let angle = std::f64::consts::TAU * i as f64 / TRUNK_CORNERS as f64;
            (at + DVec2::from_angle(angle) * (thick / 2.0)).to_array()
        };
        let corners: Vec<Point2> = (0..TRUNK_CORNERS).map(corner).collect();
        Solid::new(&obstacle.id, &corners, true, obstacle.ground_m, base, 0.0)
    });
    std::iter::once(crown).chain(trunk).collect()
}

/// An outline whose corners went outwards from its middle by some metres.
fn grown_outline(outline: &[Point2], by: f64) -> Vec<Point2> {
    if by == 0.0 {
        return outline.to_vec();
    }
    let at = middle(outline);
    let out = |corner: &Point2| {
        let corner = DVec2::from_array(*corner);
        (corner + (corner - at).normalize_or_zero() * by).to_array()
    };
    outline.iter().map(out).collect()
}

fn middle(outline: &[Point2]) -> DVec2 {
    outline.iter().map(|corner| DVec2::from_array(*corner)).sum::<DVec2>() / outline.len().max(1) as f64
}

#[cfg(test)]
mod tests {
    use super::*;

    fn tree() -> Obstacle {
        serde_json::from_str(
            r#"{"id": "o1", "name": "Lime", "kind": "tree", "outline": [[0,0],[4,0],[4,4],[0,4]], "base_m": 2, "top_m": 7,
                "ground_m": 1, "trunk_m": 0.4, "growth_m_per_year": 0.5, "bare_see_through": 0.7}"#,
        )
        .unwrap()
    }

    #[test]
    fn a_tree_has_a_crown_over_its_trunk_and_both_stand_on_their_ground() {
        let solids = standing(&tree(), &Conditions::default());
        assert_eq!(
            solids.iter().map(|s| (s.base(), s.top(), s.blocks())).collect::<Vec<_>>(),
            [(3.0, 8.0, true), (1.0, 3.0, true)]
        );
        let (lower, upper) = solids[1].bounds();
        assert!((upper - lower).max_element() <= 0.4 + 1e-9 && solids[1].holds_or_touches(DVec2::new(2.0, 2.0)));
    }

    #[test]
    fn leaves_fall_and_years_make_it_wider_and_higher() {
        let bare = standing(&tree(), &Conditions { leaves_off: true, years: 0.0, night: false });
        assert_eq!(bare.iter().map(Solid::blocks).collect::<Vec<_>>(), [false, true], "its trunk stays");
        let grown = standing(&tree(), &Conditions { leaves_off: false, years: 4.0, night: false });
        assert_eq!(grown[0].top(), 10.0);
        // The corner 2√2 from the middle went out by 2 m along the diagonal.
        let corner = 4.0 + 2.0 / 2.0_f64.sqrt();
        assert!((grown[0].bounds().1 - DVec2::splat(corner)).length() < 1e-9);
    }

    #[test]
    fn a_door_stands_where_it_is_now() {
        let door = |open: bool| Obstacle {
            kind: ObstacleKind::Door,
            open_outline: Some(vec![[0.0, 0.0], [0.0, 1.0], [0.1, 1.0], [0.1, 0.0]]),
            open,
            ..tree()
        };
        let wide = |open: bool| standing(&door(open), &Conditions::default())[0].bounds().1.x;
        assert_eq!([wide(false), wide(true)], [4.0, 0.1]);
    }
}
