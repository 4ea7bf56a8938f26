//! The survey: what is left to do, the adjustment, the first answer, readings as CSV, and shots.

use super::answer::{Answer, Written};
use super::body;
use super::desk::Place as Hand;
use super::error::ApiError;
use super::guard::LetIn;
use crate::device::{Connected, DeviceError, Place, Rangefinder, Shot, Typed};
use bright_angle_core::answer::COMMON_SENSOR;
use bright_angle_core::equipment::catalogue::models;
use bright_angle_core::file::Rules;
use bright_angle_core::file::SiteFile;
use bright_angle_core::file::Task;
use bright_angle_core::math::horizontal_m;
use bright_angle_core::survey::adjustment::{Adjustment, adjust_within};
use bright_angle_core::survey::drawing::{WorldFile, parse_world_file};
use bright_angle_core::survey::first_answer::{Asked, FirstAnswer, first_answer as core_first_answer};
use bright_angle_core::survey::{ReadCsv, Shots, Survey, read_csv_into, shots, survey_within, write_csv};
use bright_angle_core::{Fault, Site};
use rocket::data::Data;
use rocket::http::{ContentType, Status};
use rocket::serde::json::Json;
use rocket::{State, post};
use serde::{Deserialize, Serialize};
use serde_json::value::RawValue;
use std::net::SocketAddr;
use utoipa::ToSchema;

/// Where the connected rangefinder listens.
pub struct RangefinderAt(pub SocketAddr);

/// Where the survey of a site stands.
#[utoipa::path(post, path = "/api/survey", operation_id = "survey", request_body = SiteFile, params(),
    responses((status = 200, body = Survey), (status = 422, body = Vec<Fault>), (status = 413, body = Vec<Fault>)))]
#[post("/survey", data = "<data>")]
pub async fn survey(_in: LetIn, desk: Hand<'_>, data: Data<'_>) -> Result<Answer, ApiError> {
    let text = desk.text(data, body::LARGEST_MIB).await?;
    desk.answer(text, |text, patience| Written::json(&survey_within(&Site::parse(text)?, patience))).await
}

/// Adjust drawn positions to the readings.
#[utoipa::path(post, path = "/api/adjust", operation_id = "adjust", request_body = SiteFile, params(),
    responses((status = 200, body = Adjustment), (status = 422, body = Vec<Fault>), (status = 413, body = Vec<Fault>)))]
#[post("/adjust", data = "<data>")]
pub async fn adjust(_in: LetIn, desk: Hand<'_>, data: Data<'_>) -> Result<Answer, ApiError> {
    let text = desk.text(data, body::LARGEST_MIB).await?;
    desk.answer(text, |text, patience| Written::json(&adjust_within(&Site::parse(text)?, patience)?)).await
}

/// A question on the spot.
#[derive(Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FirstAnswerRequest {
    /// Slant distance, m.
    pub slant_m: f64,
    /// Height of the spot, m.
    pub spot_height_m: f64,
    /// Height of what must be seen, m.
    pub target_height_m: f64,
    /// The task.
    pub task: Task,
    /// Whether the spot is outdoors, where somebody said.
    #[serde(default)]
    pub outdoor: Option<bool>,
    /// Whether a hand can reach it, where somebody said.
    #[serde(default)]
    pub in_reach: Option<bool>,
    /// The site's limits; the handbook's where left out.
    #[serde(default)]
    #[schema(required = false)]
    pub rules: Rules,
}

/// The first answer, while still at the target.
#[utoipa::path(post, path = "/api/first-answer", operation_id = "firstAnswer", request_body = FirstAnswerRequest, params(),
    responses((status = 200, body = FirstAnswer), (status = 422, body = Vec<Fault>)))]
#[post("/first-answer", data = "<data>")]
pub async fn first_answer(_in: LetIn, desk: Hand<'_>, data: Data<'_>) -> Result<Json<FirstAnswer>, ApiError> {
    let text = desk.text(data, body::LARGEST_MIB).await?;
    let asked: FirstAnswerRequest = body::envelope(&text.content)?;
    let line = Asked {
        slant_m: asked.slant_m,
        spot_height_m: asked.spot_height_m,
        target_height_m: asked.target_height_m,
        task: asked.task,
        outdoor: asked.outdoor,
        in_reach: asked.in_reach,
    };
    Ok(Json(core_first_answer(line.checked()?, &asked.rules, COMMON_SENSOR, &models()?)))
}

/// A site's readings as CSV.
#[utoipa::path(post, path = "/api/readings/write", operation_id = "writeReadings", request_body = SiteFile, params(),
    responses((status = 200, body = String, content_type = "text/csv"), (status = 422, body = Vec<Fault>)))]
#[post("/readings/write", data = "<data>")]
pub async fn write_readings(_in: LetIn, desk: Hand<'_>, data: Data<'_>) -> Result<Answer, ApiError> {
    let text = desk.text(data, body::LARGEST_MIB).await?;
    desk.answer(text, |text, _| Written::text(write_csv(&Site::parse(text)?.file().readings), ContentType::CSV)).await
}

/// A CSV file and the site that it goes into.
#[derive(Serialize, ToSchema)]
pub struct ReadReadingsRequest {
    /// The site file.
    pub site: SiteFile,
    /// The CSV file.
    pub csv: String,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct ReadReadingsEnvelope<'a> {
    #[serde(borrow)]
    site: &'a RawValue,
    csv: String,
}

/// The readings of a CSV file: the good lines, and the bad ones by their number. Lines that a site does not hold with are bad too.
#[utoipa::path(post, path = "/api/readings/read", operation_id = "readReadings", request_body = ReadReadingsRequest, params(),
    responses((status = 200, body = ReadCsv), (status = 422, body = Vec<Fault>), (status = 413, body = Vec<Fault>)))]
#[post("/readings/read", data = "<data>")]
pub async fn read_readings(_in: LetIn, desk: Hand<'_>, data: Data<'_>) -> Result<Answer, ApiError> {
    let text = desk.text(data, body::LARGEST_MIB).await?;
    desk.answer(text, |text, patience| {
        let asked: ReadReadingsEnvelope = body::envelope(text)?;
        Written::json(&read_csv_into(&body::site(asked.site)?, &asked.csv, patience)?)
    })
    .await
}

/// What a world file says of a picture.
#[utoipa::path(post, path = "/api/world-file", operation_id = "worldFile", request_body(content = String, content_type = "text/plain"), params(),
    responses((status = 200, body = WorldFile), (status = 422, body = Vec<Fault>)))]
#[post("/world-file", data = "<data>")]
pub async fn world_file(_in: LetIn, desk: Hand<'_>, data: Data<'_>) -> Result<Json<WorldFile>, ApiError> {
    Ok(Json(parse_world_file(&desk.text(data, 1).await?.content)?))
}

/// Where to measure from and to, as drawn; with figures that were typed in place of a shot.
#[derive(Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MeasureRequest {
    /// Metres east, north, up.
    #[schema(value_type = [f64; 3])]
    pub from: Place,
    /// Metres east, north, up.
    #[schema(value_type = [f64; 3])]
    pub to: Place,
    /// Slope distances of the shots before this one, m.
    #[serde(default)]
    #[schema(required = false)]
    pub earlier_m: Vec<f64>,
    /// Slope distance as typed, m.
    #[serde(default)]
    pub typed_slope_m: Option<f64>,
    /// Inclination as typed, degrees.
    #[serde(default)]
    pub typed_inclination_deg: Option<f64>,
}

/// A shot, and what it makes together with those before it.
#[derive(Serialize, ToSchema)]
pub struct Measured {
    /// The shot.
    pub shot: Shot,
    /// Its level distance, m, where the inclination is known.
    #[schema(required)]
    pub level_m: Option<f64>,
    /// All shots together.
    pub together: Shots,
}

/// Take one shot. 424 when the device has none to give.
#[utoipa::path(post, path = "/api/measure", operation_id = "measure", request_body = MeasureRequest, params(),
    responses((status = 200, body = Measured), (status = 422, body = Vec<Fault>), (status = 424, body = Vec<Fault>)))]
#[post("/measure", data = "<data>")]
pub async fn measure(
    _in: LetIn,
    desk: Hand<'_>,
    at: &State<RangefinderAt>,
    data: Data<'_>,
) -> Result<Json<Measured>, ApiError> {
    let text = desk.text(data, body::LARGEST_MIB).await?;
    let asked: MeasureRequest = body::envelope(&text.content)?;
    for (path, place) in [("from", asked.from), ("to", asked.to)] {
        if place.iter().any(|axis| !(-200_000.0..=200_000.0).contains(axis)) {
            return Err(Fault::new(path, "is no place on a site").into());
        }
    }
    if asked.earlier_m.len() > 49 || !asked.earlier_m.iter().all(|m| (0.01..=10_000.0).contains(m)) {
        return Err(Fault::new("earlier_m", "takes up to 49 distances of 0.01 to 10000 m").into());
    }
    let shot = match asked.typed_slope_m {
        Some(slope_m) => {
            let mut typed = Typed { slope_m, inclination_deg: asked.typed_inclination_deg };
            typed.measure(asked.from, asked.to).await
        }
        None => Connected { address: at.0 }.measure(asked.from, asked.to).await,
    };
    let shot = shot?;
    let all: Vec<f64> = asked.earlier_m.iter().copied().chain([shot.slope_m]).collect();
    let nothing = || ApiError::plain(Status::InternalServerError, "there is no shot");
    let level_m = shot.inclination_deg.and_then(|inclination| horizontal_m(shot.slope_m, Some(inclination), 0.0));
    Ok(Json(Measured { together: shots(&all).ok_or_else(nothing)?, level_m, shot }))
}

impl From<DeviceError> for ApiError {
    fn from(error: DeviceError) -> Self {
        match error {
            DeviceError::Typed(_) => Fault::new("typed_slope_m", error.to_string()).into(),
            _ => ApiError::plain(Status::FailedDependency, &error.to_string()),
        }
    }
}
