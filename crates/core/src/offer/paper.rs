//! What the papers say: every fact of the quote and of the hand-over, put into words once, for the page that is printed and for the PDF.

use super::agreed::{Against, against};
use super::bill::{Bill, bill};
use super::client_words::in_client_words;
use super::leave_out::without;
use super::options::{Offered, options};
use super::photo_view::{LEAST_MARKS, PhotoLaid, lay};
use crate::file::{CameraFile, Existing, Fault, HeadFile, HeadRef, SiteFile, Spot, TargetFile, Which};
use crate::fit::designed::as_designed;
use crate::fit::settings_card::{SettingsCard, settings_cards};
use crate::judge::Session;
use crate::judge::evaluation::TargetResult;
use crate::prove::later::{Looked, looked};
use crate::prove::proved::{PromiseProved, proved};
use crate::show::coverage::masks::masks;
use crate::site::Site;
use crate::verdict::Verdict;
use crate::wire::sheet::{NetworkSheet, network_sheet};
use crate::wire::store::{StoreTold, store};
use crate::wire::told::Wired;
use crate::wire::wired::wired;
use crate::words::because::reasons;
use crate::words::units::Units;
use crate::work::Patience;
use serde::Serialize;
use utoipa::ToSchema;

/// All that the papers of a site say.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct Paper {
    /// What the site is called.
    pub site: String,
    /// Who the client is.
    #[schema(required)]
    pub client: Option<String>,
    /// Where the site is.
    #[schema(required)]
    pub address: Option<String>,
    /// The firm that offers it.
    #[schema(required)]
    pub firm: Option<String>,
    /// What the firm says beside it.
    #[schema(required)]
    pub note: Option<String>,
    /// The last day that the quote holds.
    #[schema(required)]
    pub valid_until: Option<String>,
    /// What the design is called.
    #[schema(required)]
    pub design: Option<String>,
    /// The state that verdicts are given for: by day or by night, in leaf or bare.
    pub conditions: String,
    /// The promises, the most important first.
    pub promises: Vec<PaperPromise>,
    /// The cameras.
    pub cameras: Vec<PaperCamera>,
    /// The options with their prices.
    pub options: Vec<PricedOption>,
    /// What the whole design costs.
    pub bill: Bill,
    /// What it does not do.
    pub does_not: Vec<String>,
    /// Privacy, sound, and what local law is asked about.
    pub privacy: Vec<String>,
    /// What to mind.
    pub cautions: Vec<String>,
    /// What keeps it as it is.
    pub upkeep: Vec<String>,
    /// The wiring.
    pub wiring: Wired,
    /// Devices and ports.
    pub network: NetworkSheet,
    /// The store.
    pub store: StoreTold,
    /// Settings of each head.
    pub settings: Vec<SettingsCard>,
    /// The newest agreement, and what is otherwise now.
    #[schema(required)]
    pub agreed: Option<Against>,
    /// What walk tests showed; nothing where there was none.
    pub proved: Vec<PaperProved>,
    /// The cameras' pictures that are kept.
    pub evidence: Vec<PaperEvidence>,
}

/// What walk tests showed of a promise.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PaperProved {
    /// The target's id.
    pub target: String,
    /// What it is called.
    pub name: String,
    /// As proved by day.
    pub day: Verdict,
    /// It in words.
    pub day_says: String,
    /// As proved by night.
    pub night: Verdict,
    /// It in words.
    pub night_says: String,
}

/// A camera's picture that is kept.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PaperEvidence {
    /// Of which camera, when, and what the last one held against it showed.
    pub says: String,
    /// Its name: the SHA-256 of its bytes, in hex.
    pub picture: String,
}

/// A promise, in words.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PaperPromise {
    /// The target's id.
    pub target: String,
    /// What it is called.
    pub name: String,
    /// What it is to do, in the client's words.
    pub says: String,
    /// How it stands.
    pub verdict: Verdict,
    /// How it stands by the design, where what hangs there was measured.
    #[schema(required)]
    pub designed: Option<Verdict>,
    /// What holds it back; null where nothing does.
    #[schema(required)]
    pub because: Option<String>,
    /// What it gets, px/m.
    pub px_per_m: f64,
    /// What it needs, px/m.
    pub needs_px_per_m: f64,
    /// Where the need comes from.
    pub basis: String,
    /// The name of the camera that serves it best.
    #[schema(required)]
    pub camera: Option<String>,
    /// What the verdict leaves out.
    pub leaves_out: String,
}

/// A camera, in words.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PaperCamera {
    /// Its id.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// Its model.
    pub model: String,
    /// Where it hangs.
    pub spot: String,
    /// Its height.
    pub height: String,
    /// What it is for, in one sentence.
    pub what_for: String,
    /// Whether it was there before.
    pub there_before: bool,
    /// Its heads.
    pub heads: Vec<PaperHead>,
    /// The pictures of its fitting, by their names in the store.
    pub photos: Vec<String>,
    /// The pictures taken from its spot.
    pub from_spot: Vec<String>,
    /// How many steps of fitting are done.
    pub steps_done: usize,
}

/// A head, in words.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PaperHead {
    /// The head.
    pub head: HeadRef,
    /// Its view in a photo from its spot, where one was clicked and fits.
    #[schema(required)]
    pub in_photo: Option<PhotoLaid>,
    /// Bearing, tilt and lens by the design.
    pub aim: String,
    /// The same as its picture showed it, where that was measured.
    #[schema(required)]
    pub as_built: Option<String>,
    /// The names of what is masked in its picture.
    pub masked: Vec<String>,
}

/// An option with its price.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PricedOption {
    /// The option.
    #[serde(flatten)]
    pub option: Offered,
    /// What it costs.
    pub bill: Bill,
}

/// The options of a design with their prices.
///
/// # Errors
/// As [`options`], and as [`bill`].
pub fn priced_options(session: &Session, patience: &Patience) -> Result<Vec<PricedOption>, Fault> {
    options(session, patience)?.into_iter().map(|option| priced(session.site().file(), option)).collect()
}

/// An option with its price.
///
/// # Errors
/// As [`bill`].
pub fn priced(file: &SiteFile, option: Offered) -> Result<PricedOption, Fault> {
    Ok(PricedOption { bill: bill(&without(file, &option.left_out))?, option })
}

/// All that the papers of a site say.
///
/// # Errors
/// As [`options`], and as [`bill`].
pub fn paper(session: &Session, units: Units, patience: &Patience) -> Result<Paper, Fault> {
    let file = session.site().file();
    let brief = file.brief.as_ref();
    let prices = file.prices.as_ref();
    let said = |text: Option<&String>| text.map(|text| text.trim().to_owned()).filter(|text| !text.is_empty());
    Ok(Paper {
        site: file.name.clone(),
        client: said(brief.and_then(|brief| brief.client.as_ref())),
        address: said(brief.and_then(|brief| brief.address.as_ref())),
        firm: said(prices.and_then(|prices| prices.firm.as_ref())),
        note: said(prices.and_then(|prices| prices.note.as_ref())),
        valid_until: prices.and_then(|prices| prices.valid_until.clone()),
        design: file.design.clone(),
        conditions: conditions(file),
        promises: promises(session, units),
        cameras: cameras(session, units),
        options: priced_options(session, patience)?,
        bill: bill(file)?,
        does_not: does_not(session, units),
        privacy: privacy(session),
        cautions: cautions(),
        upkeep: upkeep(file),
        wiring: wired(file),
        network: network_sheet(file),
        store: store(file),
        settings: settings_cards(file),
        agreed: file.agreements.last().map(|agreement| against(session, agreement, units)).transpose()?,
        proved: proved_in_words(session),
        evidence: evidence(session),
    })
}

fn proved_in_words(session: &Session) -> Vec<PaperProved> {
    if session.site().file().proofs.is_empty() {
        return vec![];
    }
    let told = |one: PromiseProved| PaperProved {
        target: one.target,
        name: one.name,
        day: one.day.verdict,
        day_says: one.day.says,
        night: one.night.verdict,
        night_says: one.night.says,
    };
    proved(session).promises.into_iter().map(told).collect()
}

fn evidence(session: &Session) -> Vec<PaperEvidence> {
    let snapshots = &session.site().file().snapshots;
    let of = |id: &Option<String>| snapshots.iter().find(|one| Some(&one.id) == id.as_ref());
    let day = |at: &str| at.chars().take(10).collect::<String>();
    let told = |one: Looked| {
        let reference = of(&one.reference)?;
        let when = if one.night { "by night" } else { "by day" };
        let later = of(&one.later).map(|later| {
            let differs: Vec<&str> = one.faults.iter().map(|fault| fault.says.as_str()).collect();
            let says = if differs.is_empty() { "as it was".to_owned() } else { differs.join(", ") };
            format!("; on {}: {says}", day(&later.at))
        });
        let says = format!("{}, {when}: kept {}{}", one.name, day(&reference.at), later.unwrap_or_default());
        Some(PaperEvidence { says, picture: reference.picture.picture.clone() })
    };
    looked(session).into_iter().filter_map(told).collect()
}

fn conditions(file: &SiteFile) -> String {
    let leaf = if file.conditions.leaves_off { "trees bare" } else { "trees in leaf" };
    format!("{}, {leaf}", if file.conditions.night { "by night" } else { "by day" })
}

fn by_importance(session: &Session) -> Vec<(&TargetFile, &TargetResult)> {
    let mut all: Vec<_> = session.site().file().targets.iter().zip(session.results()).collect();
    all.sort_by_key(|(target, _)| target.importance.unwrap_or(u32::MAX));
    all
}

fn promises(session: &Session, units: Units) -> Vec<PaperPromise> {
    let file = session.site().file();
    let because = reasons(session, units);
    let designed = as_designed(file).and_then(|file| Session::open(file).ok());
    let name = |id: &str| file.cameras.iter().find(|camera| camera.id == id).map(|camera| camera.name.clone());
    let told = |(target, result): (&TargetFile, &TargetResult)| PaperPromise {
        target: target.id.clone(),
        name: target.name.clone(),
        says: in_client_words(target),
        verdict: result.verdict,
        designed: designed.as_ref().and_then(|session| {
            let of = session.results().iter().find(|of| of.target == target.id);
            of.map(|of| of.verdict)
        }),
        because: because.iter().find(|because| because.target == target.id).and_then(|because| because.says.clone()),
        px_per_m: result.px_per_m,
        needs_px_per_m: result.needs_px_per_m,
        basis: result.basis.clone(),
        camera: result.best.as_ref().filter(|_| result.px_per_m > 0.0).and_then(|best| name(&best.camera)),
        leaves_out: result.leaves_out.clone(),
    };
    by_importance(session).into_iter().map(told).collect()
}

fn cameras(session: &Session, units: Units) -> Vec<PaperCamera> {
    let file = session.site().file();
    let masked = masks(session);
    let told = |camera: &CameraFile| {
        let spot = camera.spot.as_ref().and_then(|id| file.spots.iter().find(|spot| &spot.id == id));
        let at = |pan: f64, tilt: f64, roll: f64, focal: f64| {
            let turned = if roll.abs() > 0.05 { format!(", turned {roll:.1}°") } else { String::new() };
            format!("bearing {pan:.1}°, {tilt:.1}° down{turned}, lens at {focal:.1} mm")
        };
        let head = |head: &HeadFile| {
            let built = head.as_built();
            let design = built.map_or_else(|| head.aimed(Which::Own), |built| built.designed);
            let mut names: Vec<String> = masked
                .iter()
                .filter(|mask| mask.camera == camera.id && mask.head == head.id && mask.whose.is_private())
                .map(|mask| mask.name.clone())
                .collect();
            names.dedup();
            let head_ref = HeadRef { camera: camera.id.clone(), head: head.id.clone(), view: None };
            PaperHead {
                in_photo: in_photo(session.site(), &head_ref, spot),
                head: head_ref,
                aim: at(design.pan_deg, design.tilt_deg, design.roll_deg, design.focal_mm),
                as_built: built.map(|built| {
                    let found = built.found;
                    let aim = at(found.pan_deg, found.tilt_deg, found.roll_deg, found.focal_mm);
                    format!("{aim}; give or take {:.2}°", 2.0 * built.aim_sigma_deg)
                }),
                masked: names,
            }
        };
        PaperCamera {
            id: camera.id.clone(),
            name: camera.name.clone(),
            model: camera.model.name.clone(),
            spot: spot.map_or_else(|| "where the plan shows it".to_owned(), |spot| spot.name.clone()),
            height: units.length(camera.height_m),
            what_for: what_for(session, camera),
            there_before: matches!(camera.existing, Some(Existing::Stays | Existing::Reused)),
            heads: camera.heads.iter().map(head).collect(),
            photos: camera.fitting.iter().flat_map(|of| &of.photos).map(|photo| photo.picture.clone()).collect(),
            from_spot: spot.iter().flat_map(|spot| &spot.photos).map(|photo| photo.picture.clone()).collect(),
            steps_done: camera.fitting.as_ref().map_or(0, |fitting| fitting.done.len()),
        }
    };
    file.cameras.iter().filter(|camera| !camera.goes()).map(told).collect()
}

/// A head's view in the first photo of its spot that was clicked and fits.
fn in_photo(site: &Site, head: &HeadRef, spot: Option<&Spot>) -> Option<PhotoLaid> {
    let head = site.view(head).ok()?;
    let clicked = spot?.photos.iter().filter(|photo| photo.marks.len() >= LEAST_MARKS);
    clicked.filter_map(|photo| lay(site, head, photo).ok()).find(|laid| laid.fits)
}

/// What a camera is for: the promises that it serves best.
fn what_for(session: &Session, camera: &CameraFile) -> String {
    let serves = |(_, result): &(&TargetFile, &TargetResult)| {
        result.best.as_ref().is_some_and(|best| best.camera == camera.id) && result.px_per_m > 0.0
    };
    let mut parts: Vec<String> = Vec::new();
    for (target, result) in by_importance(session).into_iter().filter(serves) {
        let does = in_client_words(target);
        match result.verdict {
            Verdict::Kept => parts.push(format!("{}: {does}", target.name)),
            Verdict::Tight => parts.push(format!("{}: {does}, if all goes well", target.name)),
            // What it does not keep stands under what the design does not do.
            Verdict::Broken | Verdict::Unknown => {}
        }
    }
    let reads = session.results().iter().filter_map(|result| Some((result.overview.as_ref()?, result)));
    for (overview, result) in reads {
        if overview.head.as_ref().is_some_and(|head| head.camera == camera.id) && overview.verdict == Verdict::Kept {
            let target = session.site().file().targets.iter().find(|target| target.id == result.target);
            parts.push(format!("the vehicle beside its plate at {}", target.map_or("", |target| target.name.as_str())));
        }
    }
    if parts.is_empty() { "keeps no promise by itself".to_owned() } else { parts.join("; ") }
}

fn does_not(session: &Session, units: Units) -> Vec<String> {
    let because = reasons(session, units);
    let mut said: Vec<String> = by_importance(session)
        .into_iter()
        .filter(|(_, result)| result.verdict > Verdict::Tight)
        .map(|(target, _)| {
            let why = because.iter().find(|because| because.target == target.id).and_then(|of| of.says.clone());
            let does = in_client_words(target);
            format!("{}: it does not {does}{}", target.name, why.map_or(String::new(), |why| format!(" ({why})")))
        })
        .collect();
    if session.results().iter().any(|result| result.verdict == Verdict::Tight) {
        said.push(
            "What is called tight holds as drawn, and may not hold at the worst of all uncertainties.".to_owned(),
        );
    }
    if !session.site().file().conditions.night {
        said.push(
            "All of this is said of daylight; by night it is looked at again, with every lamp as it will be."
                .to_owned(),
        );
    }
    said.push("Cameras show and record; they stop nobody. Rain, fog, dirt and what is put in the way later hide what they show.".to_owned());
    said
}

fn privacy(session: &Session) -> Vec<String> {
    let file = session.site().file();
    let mut said: Vec<String> = Vec::new();
    for place in file.private.iter().filter(|place| place.whose.is_private()) {
        said.push(format!("{} is kept out of every picture by a mask.", place.name));
    }
    let foreign: Vec<&str> =
        file.private.iter().filter(|place| !place.whose.is_private()).map(|place| place.name.as_str()).collect();
    if !foreign.is_empty() {
        said.push(format!(
            "Ground that is not the client’s may be in a picture: {}. Ask local law first.",
            foreign.join(", ")
        ));
    }
    said.push(match file.brief.as_ref().and_then(|brief| brief.sound) {
        Some(true) => "Sound is wished for: recording it is often restricted; ask local law first.".to_owned(),
        _ => "No sound is recorded.".to_owned(),
    });
    said.push("Who is filmed must be told, by a sign where local law asks for one; recordings are kept no longer than is needed.".to_owned());
    said
}

fn cautions() -> Vec<String> {
    [
        "Work at height is done by two, from a footed ladder or a lift.",
        "Mains, surge protection and lightning are the work of a licensed electrician, by local codes.",
        "Before drilling, concealed pipes and cables are looked for.",
        "Infrared emitters are not looked into from near by (IEC 62471).",
        "Default passwords are changed before a camera meets a network.",
        "This paper advises; local codes and licensed practice decide.",
    ]
    .map(str::to_owned)
    .to_vec()
}

fn upkeep(file: &SiteFile) -> Vec<String> {
    let rules = file.rules.proving;
    let every = |months: f64| if months == 1.0 { "every month".to_owned() } else { format!("every {months} months") };
    let mut said = vec![
        format!(
            "Covers outdoors are wiped {}, twice as often in a yard: dirt shows first at night.",
            every(rules.cover_months)
        ),
        format!("The cameras' pictures are compared with the ones kept at hand-over {}.", every(rules.pictures_months)),
        format!(
            "A recording of each camera is played back {}; the clock and the oldest recording are looked at.",
            every(rules.playback_months)
        ),
        format!(
            "Firmware is looked at {}, passwords are changed {}; joints, lanyards and mounts are looked at {}.",
            every(rules.firmware_months),
            every(rules.password_months),
            every(rules.joints_months)
        ),
    ];
    if file.obstacles.iter().any(|obstacle| obstacle.kind == crate::file::ObstacleKind::Tree) {
        said.push("Trees and hedges near a sight line are cut back twice in the growing season.".to_owned());
    }
    said
}
