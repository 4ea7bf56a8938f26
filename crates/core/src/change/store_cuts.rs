//! What gives when the disks do not hold the days: more disk, or what is cut first, and what each cut does to the promises.

use crate::file::{Brief, CameraFile, Codec, Fault, NodeKind, PatchOp, SiteFile, Stream};
use crate::ground::lost::Fallen;
use crate::judge::session::Session;
use crate::site::Site;
use crate::verdict::Verdict;
use crate::wire::rate::{by_frames, frames_of, rate_of};
use crate::wire::store::{StoreTold, store};
use serde::{Deserialize, Serialize};
use serde_json::json;
use utoipa::ToSchema;

/// Frame rates that are tried, pictures a second, and shares of the day.
const FRAMES: [f64; 6] = [12.0, 10.0, 8.0, 6.0, 5.0, 3.0];
const SHARES: [f64; 5] = [0.8, 0.6, 0.5, 0.4, 0.3];
/// Disks that there are, GB.
const DISKS_GB: [f64; 12] =
    [1_000.0, 2_000.0, 3_000.0, 4_000.0, 6_000.0, 8_000.0, 10_000.0, 12_000.0, 16_000.0, 24_000.0, 32_000.0, 64_000.0];
/// The share of its pixels that is left of a picture each way when half of them are recorded.
const HALF: f64 = std::f64::consts::FRAC_1_SQRT_2;

/// What is cut.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CutKind {
    /// Nothing: a larger disk.
    Disk,
    /// How many days are kept.
    Days,
    /// How pictures are packed.
    Codec,
    /// Pictures a second.
    Frames,
    /// Half the pixels.
    Resolution,
    /// Only when something moves.
    Motion,
}

/// A way to make the days fit.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Cut {
    /// What is cut.
    pub kind: CutKind,
    /// What it is, in words.
    pub says: String,
    /// What a day takes then, GB.
    pub gb_per_day: f64,
    /// Whether the days fit then.
    pub verdict: Verdict,
    /// The promises that stand worse then.
    pub falls: Vec<Fallen>,
    /// The change; empty where it is made on the camera only.
    pub patch: Vec<PatchOp>,
}

/// What the store holds of some days, and what gives.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct StoreCuts {
    /// The store with these days.
    pub store: StoreTold,
    /// What gives; nothing where they are kept.
    pub cuts: Vec<Cut>,
}

/// What the store makes of so many days.
///
/// # Errors
/// Days that make no sense.
pub fn store_cuts(session: &Session, days: u32) -> Result<StoreCuts, Fault> {
    if !(1..=3650).contains(&days) {
        return Err(Fault::new("days", format!("{days} is outside 1 to 3650")));
    }
    let mut file = session.site().file().clone();
    file.brief.get_or_insert_with(Brief::default).retention_days = Some(days);
    let store = store(&file);
    let mut cuts = vec![];
    if matches!(store.verdict, Verdict::Broken | Verdict::Tight) {
        let tried = [disk(&file), fewer_days(&file), packed(&file), frames(&file), half(&file), motion(&file)];
        for (kind, says, changed, patch) in tried.into_iter().flatten() {
            cuts.push(told(session, kind, says, changed, patch)?);
        }
    }
    Ok(StoreCuts { store, cuts })
}

/// A cut that is tried.
type Tried = Option<(CutKind, String, SiteFile, Vec<PatchOp>)>;

fn told(session: &Session, kind: CutKind, says: String, file: SiteFile, patch: Vec<PatchOp>) -> Result<Cut, Fault> {
    let store = store(&file);
    // Days and disks change nothing that is seen.
    let looks = matches!(kind, CutKind::Frames | CutKind::Resolution);
    let falls = if looks { falls(session, file)? } else { vec![] };
    Ok(Cut { kind, says, gb_per_day: store.gb_per_day, verdict: store.verdict, falls, patch })
}

/// The promises that stand worse in another state of the site.
fn falls(session: &Session, file: SiteFile) -> Result<Vec<Fallen>, Fault> {
    let first = |mut faults: Vec<Fault>| faults.pop().unwrap_or_else(|| Fault::new("", "it does not hold together"));
    let then = Session::on(Site::from_file(file).map_err(first)?);
    let pairs = session.results().iter().zip(then.results()).filter(|(now, then)| then.verdict > now.verdict);
    let fallen = |(now, then): (&crate::judge::TargetResult, &crate::judge::TargetResult)| Fallen {
        target: now.target.clone(),
        before: now.verdict,
        after: then.verdict,
    };
    Ok(pairs.map(fallen).collect())
}

fn days_of(file: &SiteFile) -> f64 {
    file.brief.as_ref().and_then(|brief| brief.retention_days).map_or(0.0, f64::from)
}

/// What a day takes at most, GB.
fn at_most(file: &SiteFile) -> f64 {
    let cameras = file.cameras.iter().filter(|camera| !camera.goes());
    let rate = |camera: &CameraFile| {
        rate_of(camera, &file.rules.wiring).between[1] * crate::wire::rate::share_recorded(camera)
    };
    cameras.map(rate).sum::<f64>() * crate::wire::store::GB_PER_MBPS_DAY
}

/// Whether a state keeps its days surely.
fn keeps(file: &SiteFile) -> bool {
    store(file).verdict == Verdict::Kept
}

fn disk(file: &SiteFile) -> Tried {
    let network = file.network.as_ref()?;
    let place = network.nodes.iter().position(|node| node.kind == NodeKind::Recorder)?;
    let others: f64 = network
        .nodes
        .iter()
        .enumerate()
        .filter(|(i, n)| *i != place && n.kind == NodeKind::Recorder)
        .filter_map(|(_, n)| n.disk_gb)
        .sum();
    let wanted = DISKS_GB.into_iter().find(|disk| disk + others >= at_most(file) * days_of(file))?;
    let mut changed = file.clone();
    changed.network.as_mut()?.nodes[place].disk_gb = Some(wanted);
    let op = PatchOp { op: "add", path: format!("/network/nodes/{place}/disk_gb"), value: Some(json!(wanted)) };
    Some((CutKind::Disk, format!("Disks of {wanted:.0} GB in {}", network.nodes[place].name), changed, vec![op]))
}

fn fewer_days(file: &SiteFile) -> Tried {
    let days = (store(file).disk_gb? / at_most(file)).floor();
    (days >= 1.0).then(|| {
        let mut changed = file.clone();
        changed.brief.get_or_insert_with(Brief::default).retention_days = Some(days as u32);
        // The brief may be missing in the file: it is put there whole.
        let op = PatchOp { op: "add", path: "/brief".to_owned(), value: Some(json!(changed.brief)) };
        (CutKind::Days, format!("Keep {days:.0} days"), changed, vec![op])
    })
}

/// Changes what cameras send; the patch puts each stream in its place.
fn streams(file: &SiteFile, change: impl Fn(&CameraFile, &mut Stream) -> bool) -> (SiteFile, Vec<PatchOp>) {
    let mut changed = file.clone();
    let mut ops = vec![];
    for (place, camera) in changed.cameras.iter_mut().enumerate().filter(|(_, camera)| !camera.goes()) {
        let none = Stream { mbps: None, codec: None, fps: None, busy: false, share_recorded: None };
        let mut stream = camera.stream.unwrap_or(none);
        if change(camera, &mut stream) {
            camera.stream = Some(stream);
            ops.push(PatchOp { op: "add", path: format!("/cameras/{place}/stream"), value: Some(json!(stream)) });
        }
    }
    (changed, ops)
}

fn packed(file: &SiteFile) -> Tried {
    let (changed, ops) = streams(file, |_, stream| {
        let old = stream.codec == Some(Codec::H264) && stream.mbps.is_none();
        if old {
            stream.codec = Some(Codec::H265);
        }
        old
    });
    (!ops.is_empty()).then(|| (CutKind::Codec, "H.265 in place of H.264".to_owned(), changed, ops))
}

fn frames(file: &SiteFile) -> Tried {
    let at = |fps: f64| {
        let (mut changed, mut ops) = streams(file, |camera, stream| {
            let now = camera.heads.iter().map(|head| frames_of(camera, head)).fold(0.0, f64::max);
            let fewer = now > fps;
            if fewer {
                stream.fps = Some(fps);
                stream.mbps = stream.mbps.map(|mbps| mbps * by_frames(fps / now));
            }
            fewer
        });
        // Where a head is set to more it takes no more than are recorded.
        for (place, camera) in changed.cameras.iter_mut().enumerate() {
            for (head, of) in camera.heads.iter_mut().enumerate() {
                if let Some(exposure) = of.exposure.as_mut().filter(|exposure| exposure.fps > fps) {
                    exposure.fps = fps;
                    let path = format!("/cameras/{place}/heads/{head}/exposure/fps");
                    ops.push(PatchOp { op: "replace", path, value: Some(json!(fps)) });
                }
            }
        }
        (changed, ops)
    };
    let tried: Vec<f64> = FRAMES.into_iter().filter(|fps| !at(*fps).1.is_empty()).collect();
    let fps = tried.iter().copied().find(|fps| keeps(&at(*fps).0)).or(tried.last().copied())?;
    let (changed, ops) = at(fps);
    Some((CutKind::Frames, format!("Record {fps:.0} pictures a second"), changed, ops))
}

fn half(file: &SiteFile) -> Tried {
    let mut changed = file.clone();
    for camera in &mut changed.cameras {
        // A measured rate goes with the pixels, as the start values nearly do.
        if let Some(stream) = camera.stream.as_mut() {
            stream.mbps = stream.mbps.map(|mbps| mbps * 0.5);
        }
        let sensor = &mut camera.model.sensor;
        sensor.width_px = (f64::from(sensor.width_px) * HALF).round() as u32;
        sensor.height_px = (f64::from(sensor.height_px) * HALF).round() as u32;
    }
    Some((
        CutKind::Resolution,
        "Record half the pixels of every camera: set on the cameras".to_owned(),
        changed,
        vec![],
    ))
}

fn motion(file: &SiteFile) -> Tried {
    let at = |share: f64| {
        streams(file, |camera, stream| {
            let now = crate::wire::rate::share_recorded(camera);
            stream.share_recorded = Some(share);
            now > share
        })
    };
    let tried: Vec<f64> = SHARES.into_iter().filter(|share| !at(*share).1.is_empty()).collect();
    let share = tried.iter().copied().find(|share| keeps(&at(*share).0)).or(tried.last().copied())?;
    let (changed, ops) = at(share);
    let says = format!("Record on motion only: {:.0} % of the day. What moves too little is not kept", share * 100.0);
    Some((CutKind::Motion, says, changed, ops))
}
