//! What private places ask of each head: which part of its picture must be masked, and what that costs.

use crate::file::{Fault, HeadRef, Whose};
use crate::judge::Session;
use crate::site::{Head, Mask, Target};
use crate::verdict::Verdict;
use serde::Serialize;
use utoipa::ToSchema;

/// A part of a head's picture that must be masked, or that shows ground that is not the client's.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Masked {
    /// The camera's id.
    pub camera: String,
    /// The head's id.
    pub head: String,
    /// The id of the preset or flattened view; null for its own aim.
    #[schema(required)]
    pub view: Option<String>,
    /// The private place's id.
    pub place: String,
    /// What it is called.
    pub name: String,
    /// The corners of the mask in per cent of the picture's width, from the left, and height, from the top: convex, at most eight.
    pub corners_percent: Vec<[f64; 2]>,
    /// The share of the picture that it covers.
    pub share: f64,
    /// Whose ground it is: what is not private is not masked, but told.
    pub whose: Whose,
    /// The promises that it stands before.
    pub costs: Vec<MaskCost>,
}

/// A promise that a mask stands before.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct MaskCost {
    /// The target's id.
    pub target: String,
    /// Broken where it covers what must be seen, tight where it may.
    pub verdict: Verdict,
}

/// The masks of all heads of a site.
pub fn masks(session: &Session) -> Vec<Masked> {
    session.site().heads().iter().flat_map(|head| masks_of_head(session, head)).collect()
}

/// The masks of a head.
///
/// # Errors
/// Names the head that the site does not have.
pub fn masks_of(session: &Session, head: &HeadRef) -> Result<Vec<Masked>, Fault> {
    Ok(masks_of_head(session, session.site().view(head)?))
}

fn masks_of_head(session: &Session, head: &Head) -> Vec<Masked> {
    let size = head.view().projection.size();
    let site = session.site();
    let of = |(id, mask): (&str, &Mask)| {
        let private = site.file().private.iter().find(|place| place.id == id)?;
        Some(Masked {
            camera: head.camera_id().to_owned(),
            head: head.id().to_owned(),
            view: head.view_id().map(str::to_owned),
            place: private.id.clone(),
            name: private.name.clone(),
            corners_percent: mask.in_per_cent(size),
            share: mask.share_of_picture(size),
            whose: private.whose,
            costs: if private.whose.is_private() { costs(session, head, mask) } else { vec![] },
        })
    };
    let masked = site.masks(head).iter().map(|mask| (site.private()[mask.place].id(), mask));
    let foreign = site.foreign_ground(head);
    masked.chain(foreign.iter().map(|(id, mask)| (*id, mask))).filter_map(of).collect()
}

/// The promises that a mask of a head stands before, of those that it has in clear view.
fn costs(session: &Session, head: &Head, mask: &Mask) -> Vec<MaskCost> {
    let name = head.name();
    let of = |target: &Target| {
        let verdict = session.behind(head, target, mask);
        let question = name.to(&target.id);
        let seen = || session.line(&question).ok().flatten().is_some_and(|line| line.samples.seen > 0 || line.clear);
        (verdict != Verdict::Kept && seen()).then(|| MaskCost { target: target.id.clone(), verdict })
    };
    session.site().targets().iter().filter_map(of).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::file::{PrivatePlace, SiteFile};

    /// The demo with a private window behind the promise that C4 looks at.
    fn site(outline: Vec<[f64; 2]>, base_m: f64, top_m: f64) -> Session {
        let mut file: SiteFile = serde_json::from_str(include_str!("../../../../../demo/tern-quay.json")).unwrap();
        let name = "The neighbour's window".to_owned();
        file.private = vec![PrivatePlace {
            id: "n1".into(),
            name,
            outline,
            closed: false,
            base_m,
            top_m,
            ground_m: 0.0,
            whose: Whose::Private,
        }];
        Session::open(file).unwrap()
    }

    #[test]
    fn a_window_behind_a_face_costs_its_promise_and_a_window_above_it_does_not() {
        let plain =
            Session::open(serde_json::from_str(include_str!("../../../../../demo/tern-quay.json")).unwrap()).unwrap();
        let head = HeadRef { camera: "c4".into(), head: "h1".into(), view: None };
        assert!(masks(&plain).is_empty());
        let till = &plain.site().targets()[plain.site().target_place("t1").unwrap()];
        let c4 = plain.site().view(&head).unwrap();
        let away = (till.middle - c4.position()).truncate().normalize();
        let across = |d: f64, side: f64| (till.middle.truncate() + away * d + away.perp() * side).to_array();
        // The line goes on down behind the face: there the window stands.
        let behind = site(vec![across(0.5, -0.6), across(0.5, 0.6)], 1.0, 2.2);
        let found = masks_of(&behind, &head).unwrap();
        assert_eq!((found.len(), found[0].place.as_str()), (1, "n1"));
        assert_eq!(found[0].costs, [MaskCost { target: "t1".into(), verdict: Verdict::Broken }]);
        assert!(found[0].corners_percent.len() <= 8 && found[0].share > 0.0 && found[0].share < 0.2);
        let far_up = site(vec![across(0.5, -0.6), across(0.5, 0.6)], 2.9, 3.3);
        let found = masks_of(&far_up, &head).unwrap();
        assert_eq!(found.len(), 1);
        assert!(found[0].costs.is_empty(), "{found:?}");
    }
}
