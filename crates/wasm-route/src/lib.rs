//! Routing for the browser: a site file in, a `Routed` out, as JSON. Whatever is refused is thrown as the JSON of its faults.

use bright_angle_core::Fault;
use bright_angle_core::Site;
use bright_angle_core::file::read_json;
use bright_angle_core::wire::route::{RouteWish, route as core_route};
use wasm_bindgen::prelude::wasm_bindgen;

/// Wires what is not wired yet; `wish` is a `RouteWish`.
///
/// # Errors
/// The faults of the file, or why there is no answer.
#[wasm_bindgen]
pub fn route(site: &str, wish: &str) -> Result<String, String> {
    let refused = |faults: Vec<Fault>| serde_json::to_string(&faults).unwrap_or_default();
    let site = Site::parse(site).map_err(refused)?;
    let wish: RouteWish = read_json(wish).map_err(refused)?;
    let routed = core_route(site.file(), wish).map_err(|fault| refused(vec![fault]))?;
    serde_json::to_string(&routed).map_err(|error| refused(vec![Fault::new("", error.to_string())]))
}
