//! What the screen need not wait for, for the browser: routing, the offer, pictures compared. A site file in, an answer out, as JSON. Whatever is refused is thrown as the
//! JSON of its faults.

use bright_angle_core::Fault;
use bright_angle_core::Site;
use bright_angle_core::file::{Model, ProvingRules, read_json};
use bright_angle_core::judge::Session;
use bright_angle_core::offer::asked::{OfferAsk, answer};
use bright_angle_core::offer::fewest::Waiting;
use bright_angle_core::prove::carried::carried;
use bright_angle_core::prove::compare::compare as core_compare;
use bright_angle_core::prove::shot::Shot;
use bright_angle_core::wire::route::{RouteWish, route as core_route};
use bright_angle_core::work::Patience;
use serde::Serialize;
use wasm_bindgen::prelude::wasm_bindgen;

#[wasm_bindgen]
extern "C" {
    /// Is told how much is done, 0 to 1; the worker has it.
    #[wasm_bindgen(js_namespace = self, js_name = tellProgress)]
    fn tell_progress(share: f64);
}

fn refused(faults: Vec<Fault>) -> String {
    serde_json::to_string(&faults).unwrap_or_default()
}

fn written(answer: &impl Serialize) -> Result<String, String> {
    serde_json::to_string(answer).map_err(|error| refused(vec![Fault::new("", error.to_string())]))
}

/// Wires what is not wired yet; `wish` is a `RouteWish`.
///
/// # Errors
/// The faults of the file, or why there is no answer.
#[wasm_bindgen]
pub fn route(site: &str, wish: &str) -> Result<String, String> {
    let site = Site::parse(site).map_err(refused)?;
    let wish: RouteWish = read_json(wish).map_err(refused)?;
    written(&core_route(site.file(), wish).map_err(|fault| refused(vec![fault]))?)
}

/// Compares a later picture with the reference, both RGBA with their widths; `limits` are `ProvingRules`. Answers a `Compared`.
///
/// # Errors
/// Pictures that cannot be compared.
#[wasm_bindgen]
pub fn compare(
    reference: &[u8],
    reference_width: usize,
    later: &[u8],
    later_width: usize,
    hfov_deg: f64,
    limits: &str,
) -> Result<String, String> {
    let limits: ProvingRules = read_json(limits).map_err(refused)?;
    let found = core_compare(&shot(reference, reference_width), &shot(later, later_width), hfov_deg, &limits);
    written(&found.map_err(|fault| refused(vec![fault]))?)
}

fn shot(rgba: &[u8], width: usize) -> Shot {
    let rgb: Vec<u8> = rgba.chunks_exact(4).flat_map(|pixel| [pixel[0], pixel[1], pixel[2]]).collect();
    Shot { width, height: rgb.len() / 3 / width.max(1), rgb }
}

/// Where points of the first picture, `[u, v]` in its pixels, lie in the later one; null for one that is not found again.
///
/// # Errors
/// Pictures that cannot be compared.
#[wasm_bindgen]
pub fn carry(
    first: &[u8],
    first_width: usize,
    later: &[u8],
    later_width: usize,
    hfov_deg: f64,
    points: &str,
) -> Result<String, String> {
    let points: Vec<[f64; 2]> = read_json(points).map_err(refused)?;
    let found = carried(&shot(first, first_width), &shot(later, later_width), hfov_deg, &points);
    written(&found.map_err(|fault| refused(vec![fault]))?)
}

/// Answers a question about the offer; `own` are the firm's own models, `ask` is an `OfferAsk`.
///
/// # Errors
/// The faults of the file, or why there is no answer.
#[wasm_bindgen]
pub fn offer(site: &str, own: &str, ask: &str) -> Result<String, String> {
    let mut session = Session::on(Site::parse(site).map_err(refused)?);
    session.keep_own(read_json::<Vec<Model>>(own).map_err(refused)?);
    let ask: OfferAsk = read_json(ask).map_err(refused)?;
    // Nobody hears of each of ten thousand.
    let told = std::cell::Cell::new(0.0_f64);
    let progress = |share: f64| {
        if share - told.get() >= 0.01 {
            told.set(share);
            tell_progress(share);
        }
    };
    written(&answer(&session, ask, &Waiting { patience: &Patience::ENDLESS, progress: &progress }).map_err(refused)?)
}
