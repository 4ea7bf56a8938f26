//! Designs side by side: the one in hand against others that the site keeps, on the same promises.

use crate::file::{CameraFile, Fault, PatchOp, SiteFile, Variant};
use crate::ground::lost::lost;
use crate::ground::told::{GroundWish, ground};
use crate::judge::TargetResult;
use crate::judge::session::Session;
use crate::show::coverage::picture_use::picture_uses;
use crate::site::Site;
use crate::verdict::Verdict;
use serde::Serialize;
use serde_json::{Value, json};
use utoipa::ToSchema;

/// What a design is called that nobody gave a name.
const UNNAMED: &str = "Option on the plan";

/// One design in figures.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct DesignFacts {
    /// The variant's id; null for the design in hand.
    #[schema(required)]
    pub id: Option<String>,
    /// What it is called.
    pub name: String,
    /// How each promise stands.
    pub targets: Vec<TargetResult>,
    /// Promises kept.
    pub kept: usize,
    /// Promises tight.
    pub tight: usize,
    /// Promises broken or unknown.
    pub broken: usize,
    /// Promises that stand worse when the one camera fails whose loss costs most.
    pub lost_with_one: usize,
    /// Its cameras: each takes a cable.
    pub cables: usize,
    /// Heads to aim, clean and maintain.
    pub heads: usize,
    /// The models and how many there are of each.
    pub models: Vec<ModelCount>,
    /// What the cameras cost together; null where not each has a price.
    #[schema(required)]
    pub price: Option<f64>,
    /// Ground seen at the need asked for, m².
    pub seen_m2: f64,
    /// Ground seen by two that don't fail together, m².
    pub twice_m2: f64,
    /// Ground seen only in turns, m².
    pub in_turns_m2: f64,
    /// The largest patch that nobody sees, m².
    pub largest_unseen_m2: f64,
    /// The share of all pixels that lands on something useful, 0 to 1; null without a head.
    #[schema(required)]
    pub useful: Option<f64>,
}

/// How many of a model.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct ModelCount {
    /// Its name.
    pub model: String,
    /// How many.
    pub count: usize,
}

/// Two designs side by side.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SideBySide {
    /// The one.
    pub left: DesignFacts,
    /// The other.
    pub right: DesignFacts,
    /// What differs, in words.
    pub differs: Vec<String>,
}

/// A site with the cameras of one of its designs.
///
/// # Errors
/// Names the design that the site does not have, or what in it does not hold together.
pub fn with_design(site: &SiteFile, id: Option<&str>) -> Result<Site, Vec<Fault>> {
    let mut file = site.clone();
    if let Some(id) = id {
        let variant = variant(site, id).map_err(|fault| vec![fault])?;
        file.cameras.clone_from(&variant.cameras);
        // What distances were measured from stays: spots belong to the site.
        file.design = Some(variant.name.clone());
    }
    Site::from_file(file)
}

fn variant<'a>(site: &'a SiteFile, id: &str) -> Result<&'a Variant, Fault> {
    let found = site.variants.iter().find(|variant| variant.id == id);
    found.ok_or_else(|| Fault::new("design", format!("the site has no option \"{id}\"")))
}

/// One design in figures.
///
/// # Errors
/// Names the design that the site does not have.
pub fn facts(site: &SiteFile, id: Option<&str>, wish: &GroundWish) -> Result<DesignFacts, Vec<Fault>> {
    let session = Session::on(with_design(site, id)?);
    let file = session.site().file();
    let ground = ground(session.site(), &GroundWish { goal: None, ..*wish }).map_err(|fault| vec![fault])?;
    let count = |holds: &dyn Fn(Verdict) -> bool| session.results().iter().filter(|r| holds(r.verdict)).count();
    let losses = lost(&session);
    let worst = file.cameras.iter().map(|camera| losses.iter().filter(|lost| lost.camera == camera.id).count()).max();
    // A picture with more pixels counts for more.
    let uses = picture_uses(&session);
    let pixels: Vec<f64> =
        session.site().heads().iter().map(|head| head.view().projection.size().element_product()).collect();
    let useful = uses.iter().zip(&pixels).map(|(used, pixels)| used.useful * pixels).sum::<f64>();
    Ok(DesignFacts {
        id: id.map(str::to_owned),
        name: file.design.clone().unwrap_or_else(|| UNNAMED.to_owned()),
        kept: count(&|verdict| verdict == Verdict::Kept),
        tight: count(&|verdict| verdict == Verdict::Tight),
        broken: count(&|verdict| matches!(verdict, Verdict::Broken | Verdict::Unknown)),
        targets: session.results().to_vec(),
        lost_with_one: worst.unwrap_or(0),
        cables: file.cameras.iter().filter(|camera| !camera.goes()).count(),
        heads: file.cameras.iter().filter(|camera| !camera.goes()).map(|camera| camera.heads.len()).sum(),
        models: models(&file.cameras),
        price: file
            .cameras
            .iter()
            .filter(|camera| camera.is_bought())
            .map(|camera| camera.model.price)
            .sum::<Option<f64>>(),
        seen_m2: ground.seen_m2,
        twice_m2: ground.twice_m2,
        in_turns_m2: ground.in_turns_m2,
        largest_unseen_m2: ground.unseen.first().map_or(0.0, |patch| patch.area_m2),
        useful: (!pixels.is_empty()).then(|| useful / pixels.iter().sum::<f64>()),
    })
}

fn models(cameras: &[CameraFile]) -> Vec<ModelCount> {
    let mut counts: Vec<ModelCount> = Vec::new();
    for camera in cameras {
        match counts.iter_mut().find(|count| count.model == camera.model.name) {
            Some(known) => known.count += 1,
            None => counts.push(ModelCount { model: camera.model.name.clone(), count: 1 }),
        }
    }
    counts
}

/// Two designs on the same promises.
///
/// # Errors
/// Names the design that the site does not have.
pub fn side_by_side(
    site: &SiteFile,
    left: Option<&str>,
    right: Option<&str>,
    wish: &GroundWish,
) -> Result<SideBySide, Vec<Fault>> {
    let (left, right) = (facts(site, left, wish)?, facts(site, right, wish)?);
    let differs = differences(site, &left, &right);
    Ok(SideBySide { left, right, differs })
}

/// What differs, promises first.
fn differences(site: &SiteFile, left: &DesignFacts, right: &DesignFacts) -> Vec<String> {
    let mut said: Vec<String> = Vec::new();
    for (target, (a, b)) in site.targets.iter().zip(left.targets.iter().zip(&right.targets)) {
        if a.verdict != b.verdict {
            let (a, b) = (a.verdict.word(), b.verdict.word());
            said.push(format!("{}: {a} with {}, {b} with {}", target.name, left.name, right.name));
        }
    }
    let mut more = |what: &str, a: f64, b: f64, least: f64, unit: &str| {
        if (a - b).abs() >= least {
            let (name, by) = if a > b { (&left.name, a - b) } else { (&right.name, b - a) };
            said.push(format!("{name}: {by:.0}{unit} more {what}"));
        }
    };
    more("ground seen", left.seen_m2, right.seen_m2, 1.0, " m²");
    more("ground seen twice", left.twice_m2, right.twice_m2, 1.0, " m²");
    let mut counted = |one: &str, several: &str, a: usize, b: usize| {
        more(if a.abs_diff(b) == 1 { one } else { several }, a as f64, b as f64, 1.0, "");
    };
    counted("cable drop", "cable drops", left.cables, right.cables);
    counted("camera view to maintain", "camera views to maintain", left.heads, right.heads);
    let lost = (left.lost_with_one, right.lost_with_one);
    counted("promise lost when one camera fails", "promises lost when one camera fails", lost.0, lost.1);
    if let (Some(a), Some(b)) = (left.useful, right.useful) {
        more("of the picture used", 100.0 * a, 100.0 * b, 1.0, " %");
    }
    if let (Some(a), Some(b)) = (left.price, right.price) {
        more("to pay", a, b, 1.0, "");
    }
    said
}

/// The change that adopts a design: its cameras come into hand, and those in hand are kept in its place.
///
/// # Errors
/// Names the design that the site does not have.
pub fn adopt(site: &SiteFile, id: &str) -> Result<Vec<PatchOp>, Fault> {
    let adopted = variant(site, id)?;
    let aside = Variant {
        id: adopted.id.clone(),
        name: site.design.clone().unwrap_or_else(|| "Option before".to_owned()),
        cameras: site.cameras.clone(),
    };
    let variants: Vec<&Variant> = site.variants.iter().map(|v| if v.id == id { &aside } else { v }).collect();
    let set = |op, path: &str, value: Value| PatchOp { op, path: path.to_owned(), value: Some(value) };
    Ok(vec![
        set("replace", "/cameras", json!(adopted.cameras)),
        // `add` sets a field whether it was there or not (RFC 6902, 4.1).
        set("add", "/design", json!(adopted.name)),
        set("add", "/variants", json!(variants)),
    ])
}

#[cfg(test)]
mod tests {
    use super::*;

    fn demo_with_two() -> SiteFile {
        let mut file = SiteFile::parse(include_str!("../../../../demo/tern-quay.json")).unwrap();
        let fewer = file.cameras.iter().filter(|camera| camera.id != "c4").cloned().collect();
        file.variants = vec![Variant { id: "v9".into(), name: "Without C4".into(), cameras: fewer }];
        file
    }

    const WISH: GroundWish = GroundWish { need_px_per_m: 25.0, height_m: 1.6, goal: None };

    #[test]
    fn what_one_camera_less_costs_is_named() {
        let file = demo_with_two();
        let both = side_by_side(&file, None, Some("v9"), &WISH).unwrap();
        assert_eq!((both.left.cables, both.right.cables), (file.cameras.len(), file.cameras.len() - 1));
        assert!(both.left.seen_m2 > both.right.seen_m2 + 1.0);
        assert!(both.differs.iter().any(|said| said.contains("1 more cable drop")), "{:?}", both.differs);
        assert!(facts(&file, Some("v0"), &WISH).is_err());
    }

    #[test]
    fn adopting_twice_brings_back_what_was() {
        let file = demo_with_two();
        let adopted = |file: &SiteFile| {
            let mut value = serde_json::to_value(file).unwrap();
            let patch = serde_json::to_value(adopt(file, "v9").unwrap()).unwrap();
            let patch: json_patch::Patch = serde_json::from_value(patch).unwrap();
            json_patch::patch(&mut value, &patch).unwrap();
            serde_json::from_value::<SiteFile>(value).unwrap()
        };
        let once = adopted(&file);
        assert_eq!((once.cameras.len(), once.design.as_deref()), (file.cameras.len() - 1, Some("Without C4")));
        Site::from_file(once.clone()).unwrap();
        assert_eq!(adopted(&once).cameras, file.cameras);
    }
}
