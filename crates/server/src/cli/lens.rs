//! `bright-angle lens`: the pocket calculator.

use super::{Answer, compute};
use bright_angle_core::Fault;
use bright_angle_core::equipment::catalogue;
use bright_angle_core::file::Sensor;
use bright_angle_core::file::{NeedSet, Task};
use bright_angle_core::survey::pocket;
use clap::Args;
use std::fmt::Write;

#[derive(Args)]
pub struct LensArgs {
    /// Slant distance to the target, m
    #[arg(long)]
    distance_m: f64,
    /// Nearer end of the zone that the subject crosses, slant, m: one setting serves both ends
    #[arg(long)]
    from_m: Option<f64>,
    /// monitor, detect, observe, recognise, identify, inspect, read or read_by_eye
    #[arg(long)]
    task: String,
    /// Sensor as WIDTHxHEIGHT@MM: picture in pixels and active width in mm
    #[arg(long, default_value = "2688x1520@5.376")]
    sensor: String,
    /// Table of needs: 2014, or 2025 (from memory)
    #[arg(long, default_value = "2014")]
    needs: String,
    /// Answer JSON
    #[arg(long)]
    json: bool,
}

pub fn lens(args: &LensArgs) -> Answer {
    let fault = |path: &str, message: &str| vec![Fault::new(path, message)];
    if !(0.1..=100_000.0).contains(&args.distance_m) {
        return Err(fault("--distance-m", &format!("{} is outside 0.1 to 100000 m", args.distance_m)));
    }
    if let Some(near) = args.from_m.filter(|near| !(0.1..=args.distance_m).contains(near)) {
        return Err(fault("--from-m", &format!("{near} is outside 0.1 to the distance, {} m", args.distance_m)));
    }
    let task = Task::named(&args.task).ok_or_else(|| {
        let words: Vec<&str> = Task::ALL.iter().map(|task| task.word()).collect();
        fault("--task", &format!("\"{}\" is none of {}", args.task, words.join(", ")))
    })?;
    let needs = match args.needs.as_str() {
        "2014" => NeedSet::Edition2014,
        "2025" => NeedSet::Edition2025,
        other => return Err(fault("--needs", &format!("\"{other}\" is neither 2014 nor 2025"))),
    };
    let sensor = sensor(&args.sensor).ok_or_else(|| {
        fault(
            "--sensor",
            &format!("\"{}\" is not like 2688x1520@5.376 with 16 to 20000 px and 0.5 to 100 mm", args.sensor),
        )
    })?;
    let models = catalogue::models().map_err(|fault| vec![fault])?;
    let mut answer = pocket::answer(args.distance_m, task, needs, sensor, &models);
    if let Some(near) = args.from_m {
        answer = answer.with_near_end(near);
    }
    if args.json { compute::json(&answer) } else { Ok(text(&answer)) }
}

/// `2688x1520@5.376` as a sensor with square pixels.
fn sensor(words: &str) -> Option<Sensor> {
    let (size, width_mm) = words.split_once('@')?;
    let (width, height) = size.split_once('x')?;
    let (width_px, height_px): (u32, u32) = (width.parse().ok()?, height.parse().ok()?);
    let width_mm: f64 = width_mm.parse().ok()?;
    let in_range =
        (16..=20_000).contains(&width_px) && (16..=20_000).contains(&height_px) && (0.5..=100.0).contains(&width_mm);
    in_range.then(|| Sensor {
        width_px,
        height_px,
        width_mm,
        height_mm: width_mm * f64::from(height_px) / f64::from(width_px),
        image_circle_px: None,
    })
}

fn text(answer: &pocket::PocketAnswer) -> String {
    let mut out = String::new();
    let s = &answer.sensor;
    // Writing to a String cannot fail.
    let _ = writeln!(
        out,
        "To {} at {} m: {} px/m ({})",
        answer.task.word(),
        answer.distance_m,
        answer.needs_px_per_m,
        answer.basis
    );
    let _ = writeln!(
        out,
        "On {} × {} px, {} mm wide: focal length {:.2} mm or longer; picture there at most {:.2} m wide",
        s.width_px, s.height_px, s.width_mm, answer.focal_mm, answer.scene_width_m
    );
    if let Some(near) = answer.near {
        let _ = writeln!(
            out,
            "At the near end, {} m: picture {:.2} m wide; infrared light {:.1} stops stronger than at {} m",
            near.distance_m, near.scene_width_m, near.infrared_stops, answer.distance_m
        );
    }
    let _ = writeln!(out, "\n{:<34} {:>8} {:>8} {:>9} {:>9}", "Catalogue", "set to", "px/m", "reaches", "picture");
    for lens in &answer.lenses {
        let _ = writeln!(
            out,
            "{:<34} {:>5.1} mm {:>8.1} {:>7.1} m {:>7.2} m{}",
            lens.model,
            lens.focal_mm,
            lens.px_per_m,
            lens.greatest_range_m,
            lens.scene_width_m,
            if lens.reaches { "" } else { "  falls short" }
        );
    }
    out.push_str("\nOn the axis, figures as stated: aim, height and distance errors eat into them. Evaluate a site for the whole.");
    out
}
