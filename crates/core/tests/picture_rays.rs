//! What the rays of pixels meet, against Embree through trimesh: 100 000 random rays of four heads among ninety solids
//! (`outside/rays/generate.py`).

use bright_angle_core::Site;
use bright_angle_core::judge::evaluation::eyes;
use bright_angle_core::scene::Eye;
use bright_angle_core::site::Head;
use bright_angle_core::site::ray::{Met, ray};
use glam::DVec2;

const SITE: &str = include_str!("../../../outside/rays/site.json");
/// For each ray what it meets, and how far that is, m.
const RAYS: &[u8] = include_bytes!("../../../outside/rays/rays.bin");
const GROUND: u8 = 254;
const SKY: u8 = 255;
/// Farther away Embree's ground ends, and its single precision tells less, m.
const FAR_M: f64 = 2000.0;
/// Distances agree to so much: a part of them that single precision tells, and a little, m.
const SAME_SHARE: f64 = 2e-6;
const SAME_M: f64 = 1e-3;
/// So near to the edge of something, px, either may be met.
const AT_EDGE_PX: f64 = 0.05;

/// The hash that says which pixel a ray goes through (splitmix64), as a share.
fn share(number: u64) -> f64 {
    let mut z = (number + 1).wrapping_mul(0x9E37_79B9_7F4A_7C15);
    z = (z ^ (z >> 30)).wrapping_mul(0xBF58_476D_1CE4_E5B9);
    z = (z ^ (z >> 27)).wrapping_mul(0x94D0_49BB_1331_11EB);
    ((z ^ (z >> 31)) >> 11) as f64 / (1_u64 << 53) as f64
}

fn met(site: &Site, head: &Head, eye: &Eye, pixel: DVec2) -> (u8, f64) {
    let ray = ray(head, eye, site.scene(), pixel).unwrap();
    match ray.met {
        Met::Obstacle(solid) => (solid.id()[1..].parse().unwrap(), ray.distance),
        Met::Ground if ray.distance < FAR_M => (GROUND, ray.distance),
        _ => (SKY, 0.0),
    }
}

fn same((a, x): (u8, f64), (b, y): (u8, f64)) -> bool {
    a == b && (x - y).abs() <= SAME_M + SAME_SHARE * x * x
}

#[test]
fn a_hundred_thousand_rays_meet_what_embree_says_but_at_edges() {
    let site = Site::parse(SITE).unwrap();
    let eyes = eyes(&site);
    let each = RAYS.len() / 5 / site.heads().len();
    let (mut differ, mut solids) = (0, 0);
    for (number, row) in RAYS.chunks_exact(5).enumerate() {
        let place = number / each;
        let head = &site.heads()[place];
        let size = head.view().projection.size();
        let pixel = size * DVec2::new(share(2 * number as u64), share(2 * number as u64 + 1));
        let distance = f64::from(f32::from_le_bytes([row[1], row[2], row[3], row[4]]));
        let expected = if row[0] == GROUND && distance >= FAR_M { (SKY, 0.0) } else { (row[0], distance) };
        let found = met(&site, head, &eyes[place], pixel);
        solids += usize::from(found.0 < GROUND);
        if same(expected, found) {
            continue;
        }
        differ += 1;
        // Only where a hair's breadth away it is what Embree says.
        let around = [(1.0, 0.0), (-1.0, 0.0), (0.0, 1.0), (0.0, -1.0)].map(|(x, y)| {
            let near = (pixel + DVec2::new(x, y) * AT_EDGE_PX).clamp(DVec2::splat(1e-9), size - 1e-9);
            met(&site, head, &eyes[place], near).0
        });
        assert!(
            around.contains(&expected.0) && found.0 != expected.0,
            "ray {number} at {pixel}: {found:?}, Embree {expected:?}"
        );
    }
    assert!(differ <= 20, "{differ} of 100 000 rays meet another thing");
    assert!(solids > 15_000, "{solids}");
}
