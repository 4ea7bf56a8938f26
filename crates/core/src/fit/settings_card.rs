//! What each camera is set to, by day and by night, and what it does when something happens: the card for the bench (handbook, sections 6,
//! 10 and 13; common practice, no source, where a reason does not say otherwise).

use crate::file::{CameraFile, Codec, Form, HeadFile, PictureZone, SiteFile};
use crate::words::sheet_text::guarded;
use serde::Serialize;
use utoipa::ToSchema;

/// Gain that plates bear, dB, and how bright a plate camera is set by day and by night, of 100 (handbook, section 10).
const PLATE_GAIN_DB: f64 = 10.0;
const PLATE_BRIGHT: [f64; 2] = [25.0, 3.0];
/// How bright any other is set, of 100 (ours: as it comes).
const BRIGHT: f64 = 50.0;

/// A line of the card.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct CardLine {
    /// What is set.
    pub name: &'static str,
    /// To what, by day.
    pub day: String,
    /// To what, by night.
    pub night: String,
    /// Why.
    pub why: String,
}

/// The card of a head.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SettingsCard {
    /// The camera's id.
    pub camera: String,
    /// What it is called.
    pub name: String,
    /// Its model.
    pub model: String,
    /// The head's id.
    pub head: String,
    /// Whether it reads plates.
    pub plates: bool,
    /// What is set.
    pub lines: Vec<CardLine>,
    /// What it does when something happens, in words; what nobody has decided yet is said.
    pub reacts: Vec<[String; 2]>,
    /// The zones of this head.
    pub zones: Vec<PictureZone>,
}

/// The cards of all heads that stay or come.
///
/// ```
/// use bright_angle_core::{file::SiteFile, fit::settings_card::settings_cards};
/// assert!(settings_cards(&SiteFile::empty("A yard")).is_empty());
/// ```
pub fn settings_cards(site: &SiteFile) -> Vec<SettingsCard> {
    let cameras = site.cameras.iter().filter(|camera| !camera.goes());
    cameras.flat_map(|camera| camera.heads.iter().map(move |head| card(camera, head))).collect()
}

fn card(camera: &CameraFile, head: &HeadFile) -> SettingsCard {
    let plates = camera.model.form == Form::Plate;
    let zones = camera.reacts.iter().flat_map(|reacts| &reacts.zones).filter(|zone| zone.head == head.id);
    SettingsCard {
        camera: camera.id.clone(),
        name: camera.name.clone(),
        model: camera.model.name.clone(),
        head: head.id.clone(),
        plates,
        lines: lines(camera, head, plates),
        reacts: reacts(camera),
        zones: zones.cloned().collect(),
    }
}

fn lines(camera: &CameraFile, head: &HeadFile, plates: bool) -> Vec<CardLine> {
    let line = |name, day: &str, night: &str, why: &str| CardLine {
        name,
        day: day.to_owned(),
        night: night.to_owned(),
        why: why.to_owned(),
    };
    let both = |name, value: &str, why: &str| line(name, value, value, why);
    let exposure = head.exposure;
    let mut said = vec![];
    said.push(if plates {
        both("Scene", "roads or plates, where it has one", "start value for plates")
    } else {
        both("Scene", "as it comes", "nothing asks for another")
    });
    let shutter = match exposure.and_then(|exposure| exposure.fixed_s()) {
        Some(seconds) => format!("1/{:.0} s, fixed", 1.0 / seconds),
        None if plates => "between 1/500 and 1/10000 s: work it out first".to_owned(),
        None => "automatic".to_owned(),
    };
    said.push(both("Shutter", &shutter, if exposure.is_some() { "the design's" } else { "nobody has set one" }));
    let [bright_day, bright_night] = if plates { PLATE_BRIGHT } else { [BRIGHT; 2] };
    let why = if plates { "by night a plate shines by itself" } else { "as it comes" };
    said.push(line("Brightness, of 100", &format!("{bright_day:.0}"), &format!("{bright_night:.0}"), why));
    let gain = exposure.and_then(|exposure| exposure.gain_max_db);
    said.push(match gain.or(plates.then_some(PLATE_GAIN_DB)) {
        Some(most) => both(
            "Gain, at most",
            &format!("{most:.0} dB"),
            if gain.is_some() { "the design's" } else { "noise takes edges" },
        ),
        None => both("Gain, at most", "as it comes", "nobody has set one"),
    });
    if camera.model.infrared_light().is_some() {
        let share = exposure.and_then(|exposure| exposure.infrared_share);
        let night = match (share, plates) {
            (Some(0.0), _) => "off".to_owned(),
            (Some(share), _) => format!("fixed, {:.0} %", 100.0 * share),
            (None, true) => "fixed; one school: automatic".to_owned(),
            (None, false) => "automatic".to_owned(),
        };
        said.push(line("Infrared", "off", &night, if share.is_some() { "the design's" } else { "start value" }));
    }
    said.push(if plates {
        both("Day and night", "switched by the clock", "the automatic switch hunts on headlights")
    } else {
        both("Day and night", "switched by the camera", "start value")
    });
    let stream = camera.stream;
    let fps = stream.and_then(|stream| stream.fps).or(exposure.map(|exposure| exposure.fps));
    said.push(both(
        "Pictures a second",
        &fps.map_or("15".to_owned(), |fps| format!("{fps:.0}")),
        if fps.is_some() { "the design's" } else { "start value" },
    ));
    let codec = if stream.and_then(|stream| stream.codec) == Some(Codec::H264) { "H.264" } else { "H.265" };
    said.push(both("Packed as", codec, "the design's"));
    let share = stream.and_then(|stream| stream.share_recorded).unwrap_or(1.0);
    let recorded = if share < 1.0 { "when something moves" } else { "always" };
    said.push(both("Recorded", recorded, "the store is reckoned so"));
    said
}

/// What it does when something happens; what nobody decided is said, for somebody has to.
fn reacts(camera: &CameraFile) -> Vec<[String; 2]> {
    let said = camera.reacts.clone().unwrap_or_default();
    let open = "not decided";
    let mut lines = vec![
        ["Hours".to_owned(), said.hours.unwrap_or_else(|| open.to_owned())],
        ["Told to whom".to_owned(), said.tells.unwrap_or_else(|| open.to_owned())],
    ];
    let alarms = camera.model.alarm_inputs.unwrap_or(0) + camera.model.alarm_outputs.unwrap_or(0) > 0;
    if alarms || said.alarm_in.is_some() || said.alarm_out.is_some() {
        lines.push(["Alarm in".to_owned(), said.alarm_in.unwrap_or_else(|| open.to_owned())]);
        lines.push(["Alarm out".to_owned(), said.alarm_out.unwrap_or_else(|| open.to_owned())]);
    }
    if camera.model.sound == Some(true) || said.voice.is_some() {
        lines.push([
            "Voice and sound".to_owned(),
            said.voice.unwrap_or_else(|| "off until local law was asked".to_owned()),
        ]);
    }
    lines
}

/// The cards as a table.
pub fn settings_cards_csv(cards: &[SettingsCard]) -> String {
    let mut out = csv::Writer::from_writer(Vec::new());
    // Writing to memory cannot fail.
    let _ = out.write_record(["camera", "name", "model", "head", "setting", "day", "night", "why"]);
    for card in cards {
        let mut row = |setting: &str, day: &str, night: &str, why: &str| {
            let _ = out.write_record(
                [&card.camera, &card.name, &card.model, &card.head, setting, day, night, why].map(guarded),
            );
        };
        card.lines.iter().for_each(|line| row(line.name, &line.day, &line.night, &line.why));
        card.reacts.iter().for_each(|[name, value]| row(name, value, value, ""));
        for zone in &card.zones {
            row(
                &zone.name,
                if zone.counts { "counts" } else { "left out" },
                if zone.counts { "counts" } else { "left out" },
                "a zone of the picture",
            );
        }
    }
    String::from_utf8(out.into_inner().unwrap_or_default()).unwrap_or_default()
}
