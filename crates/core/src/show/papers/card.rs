//! What whoever stands on the ladder needs to aim a head: where things must sit in the picture, and what to check with the tape.

use super::landmarks::{Mark, candidates, reaches};
use crate::file::{Fault, HeadRef};
use crate::judge::Session;
use crate::judge::evaluation::eye_around;
use crate::show::coverage::masks::{Masked, masks_of};
use crate::site::{Head, Site, Target};
use crate::verdict::Verdict;
use crate::words::cautions::cautions;
use glam::{DVec2, DVec3};
use serde::Serialize;
use utoipa::ToSchema;

/// The most landmarks that a card names.
const MOST: usize = 5;
/// Landmarks lie so far inside the picture, and so far apart, as shares of its width.
const MARGIN: f64 = 0.03;
const APART: f64 = 0.09;

/// How a head is aimed.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Card {
    /// The camera's id.
    pub camera: String,
    /// The head's id.
    pub head: String,
    /// The id of the preset or flattened view; null for its own aim.
    #[schema(required)]
    pub view: Option<String>,
    /// Height of its optical centre over the ground at its foot, m.
    pub height_m: f64,
    /// Bearing, degrees clockwise from north.
    pub bearing_deg: f64,
    /// How far down it looks, degrees.
    pub tilt_deg: f64,
    /// Roll, degrees clockwise as seen from behind.
    pub roll_deg: f64,
    /// The focal length that is set, mm; null for a flat picture, which has none of its own.
    #[schema(required)]
    pub focal_mm: Option<f64>,
    /// Field of view across, degrees.
    pub hfov_deg: f64,
    /// What it must show.
    pub promises: Vec<CardPromise>,
    /// What else must sit where.
    pub landmarks: Vec<Landmark>,
    /// What must be masked.
    pub masks: Vec<Masked>,
    /// What to mind before anybody climbs.
    pub cautions: Vec<String>,
}

/// A promise on a card.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct CardPromise {
    /// The target's id.
    pub target: String,
    /// What it is called.
    pub name: String,
    /// How its sight line stands.
    pub verdict: Verdict,
    /// Whether this head is the one that serves it best.
    pub serves: bool,
    /// Where it must sit, per cent from the left and from the top.
    pub at_percent: [f64; 2],
    /// Distance from the camera along the ground, m.
    pub ground_m: f64,
    /// Distance from lens to target, m: what a tape or a rangefinder shows.
    pub slant_m: f64,
    /// Width of the picture there, m.
    pub scene_width_m: f64,
    /// Pixel density there, px/m.
    pub px_per_m: f64,
}

/// Something that is easily found in the picture.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Landmark {
    /// What it is.
    pub says: String,
    /// Where it must sit, per cent from the left and from the top.
    pub at_percent: [f64; 2],
    /// Distance from the lens, m.
    pub slant_m: f64,
}

/// The card of a head.
///
/// # Errors
/// Names the head that the site does not have.
pub fn card(session: &Session, name: &HeadRef) -> Result<Card, Fault> {
    let site = session.site();
    let head = site.view(name)?;
    let file = &site.file().cameras[head.camera()];
    let aimed = !head.is_flattened();
    Ok(Card {
        camera: head.camera_id().to_owned(),
        head: head.id().to_owned(),
        view: head.view_id().map(str::to_owned),
        height_m: file.height_m,
        bearing_deg: head.pan().deg().rem_euclid(360.0),
        tilt_deg: head.tilt().deg(),
        roll_deg: head.roll().deg(),
        focal_mm: aimed.then(|| file.heads[head.place()].aimed(head.which()).focal_mm),
        hfov_deg: head.view().projection.hfov().to_degrees(),
        promises: promises(session, head),
        landmarks: landmarks(site, head),
        masks: masks_of(session, &head.name())?.into_iter().filter(|mask| mask.whose.is_private()).collect(),
        cautions: cautions(&[]),
    })
}

/// The promises that a head has in its picture, those that it serves best first.
fn promises(session: &Session, head: &Head) -> Vec<CardPromise> {
    let name = head.name();
    let size = head.view().projection.size();
    let of = |(place, target): (usize, &Target)| {
        let question = name.to(&target.id);
        let line = session.line(&question).ok().flatten().filter(|line| line.clear)?;
        let density = line.px_per_m.filter(|density| *density > 0.0)?;
        Some(CardPromise {
            target: target.id.clone(),
            name: session.site().file().targets[place].name.clone(),
            verdict: line.verdict,
            serves: session.results()[place].best.as_ref() == Some(&name),
            at_percent: (DVec2::from_array(line.pixel) / size * 100.0).to_array(),
            ground_m: line.ground_m,
            slant_m: line.slant_m,
            scene_width_m: size.x / density,
            px_per_m: density,
        })
    };
    let mut found: Vec<CardPromise> = session.site().targets().iter().enumerate().filter_map(of).collect();
    found.sort_by_key(|promise| !promise.serves);
    found
}

/// The landmarks of a head's picture that lie farthest apart.
fn landmarks(site: &Site, head: &Head) -> Vec<Landmark> {
    let eye = eye_around(site, head);
    let size = head.view().projection.size();
    let seen = candidates(site, head).into_iter().filter_map(|Mark { says, at, .. }| {
        let (pixel, _) = head.view().pixel_of(at)?;
        let share = pixel / size;
        let inside = share.cmpge(DVec2::splat(MARGIN)).all() && share.cmple(DVec2::splat(1.0 - MARGIN)).all();
        (inside && head.in_front(at) == Some(true) && reaches(site, &eye, at)).then_some((says, at, pixel))
    });
    let mut left: Vec<(String, DVec3, DVec2)> = seen.collect();
    let mut chosen: Vec<(String, DVec3, DVec2)> = vec![];
    while chosen.len() < MOST {
        // The first is the one farthest from the middle, each next the one farthest from those before it.
        let off = |at: DVec2| {
            let nearest = chosen.iter().map(|(_, _, other)| other.distance(at)).reduce(f64::min);
            nearest.unwrap_or_else(|| at.distance(size / 2.0))
        };
        let best = (0..left.len()).max_by(|a, b| off(left[*a].2).total_cmp(&off(left[*b].2)));
        let Some(best) = best.filter(|best| chosen.is_empty() || off(left[*best].2) > APART * size.x) else { break };
        let taken = left.swap_remove(best);
        chosen.push(taken);
    }
    // As one reads: from the left.
    chosen.sort_by(|a, b| a.2.x.total_cmp(&b.2.x));
    let told = |(says, at, pixel): (String, DVec3, DVec2)| Landmark {
        says,
        at_percent: (pixel / size * 100.0).to_array(),
        slant_m: at.distance(head.position()),
    };
    chosen.into_iter().map(told).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    fn demo() -> Session {
        Session::on(Site::parse(include_str!("../../../../../demo/tern-quay.json")).unwrap())
    }

    #[test]
    fn what_a_card_says_is_where_the_sight_lines_land() {
        let session = demo();
        for head in session.site().heads() {
            let card = card(&session, &head.name()).unwrap();
            let size = head.view().projection.size();
            for promise in &card.promises {
                let question = head.name().to(&promise.target);
                let line = session.line(&question).unwrap().unwrap();
                assert!((promise.at_percent[0] / 100.0 * size.x - line.pixel[0]).abs() < 1e-6);
                assert!((promise.scene_width_m * line.px_per_m.unwrap() - size.x).abs() < 1e-6);
            }
            let inside = |[left, top]: [f64; 2]| (3.0..=97.0).contains(&left) && (3.0..=97.0).contains(&top);
            assert!(card.landmarks.iter().all(|landmark| inside(landmark.at_percent)), "{card:?}");
            for (i, a) in card.landmarks.iter().enumerate() {
                for b in &card.landmarks[i + 1..] {
                    let off = (DVec2::from_array(a.at_percent) - DVec2::from_array(b.at_percent)) / 100.0 * size;
                    assert!(off.length() > APART * size.x, "{} and {}", a.says, b.says);
                }
            }
        }
    }

    #[test]
    fn a_corner_behind_its_own_building_is_no_landmark() {
        let session = demo();
        let all = session.site().heads().iter().map(|head| card(&session, &head.name()).unwrap());
        for card in all {
            let head = session.site().head(&card.camera, &card.head).unwrap();
            for landmark in card.landmarks.iter().filter(|landmark| landmark.says.contains("corner")) {
                let at =
                    candidates(session.site(), head).into_iter().find(|mark| mark.says == landmark.says).unwrap().at;
                let seen = session.site().scene().first_blocker(head.position(), head.position().lerp(at, 0.99));
                assert!(seen.is_none_or(|(solid, _)| Some(solid.id()) == head.mounted_on()), "{landmark:?}");
            }
        }
    }
}
