//! The subcommands of fitting: how a head hangs, what is bought, the steps, the visits, and the stand-in for cameras.

use super::compute::{as_option, json, session};
use super::{Answer, input};
use bright_angle_camera::{Fault as Wrong, StandIn, serve as serve_cameras};
use bright_angle_core::Fault;
use bright_angle_core::file::HeadRef;
use bright_angle_core::fit::day::days;
use bright_angle_core::fit::hangs::{HangsWish, hangs as core_hangs};
use bright_angle_core::fit::materials::{materials as core_materials, materials_csv};
use bright_angle_core::fit::mount_checks::mount_checks;
use bright_angle_core::fit::pose::{PoseWish, USUAL_SIGMA_PX, pose_of};
use bright_angle_core::fit::pose_points::read_points;
use bright_angle_core::fit::steps::{all_steps, steps_of};
use clap::Args;
use std::path::Path;
use std::process::ExitCode;

/// How well what is clicked, and what is drawn, is known.
#[derive(Args)]
pub struct PoseArgs {
    /// How well points are clicked: one standard deviation, px
    #[arg(long, default_value_t = USUAL_SIGMA_PX)]
    sigma_px: f64,
    /// How well the place is known, m east and north each; held where left out
    #[arg(long)]
    position_sigma_m: Option<f64>,
    /// How well the height is known, m
    #[arg(long, requires = "position_sigma_m")]
    height_sigma_m: Option<f64>,
    /// What to do about it, and what each promise gets now, beside the pose
    #[arg(long)]
    hangs: bool,
}

pub fn pose(file: &Path, head: HeadRef, args: &PoseArgs) -> Answer {
    let site = input::site(file)?;
    let points = read_points(&input::text(Path::new("-"))?)?;
    let wish = PoseWish {
        sigma_px: args.sigma_px,
        position_sigma_m: args.position_sigma_m,
        height_sigma_m: args.height_sigma_m,
    };
    let options = |faults: Vec<Fault>| faults.into_iter().map(as_option).collect::<Vec<Fault>>();
    if args.hangs {
        let wish = HangsWish { head, points, wish, picture: None, at: None };
        return json(&core_hangs(&session(site)?, &wish).map_err(options)?);
    }
    let found = site.view(&head).map_err(|fault| vec![as_option(fault)])?;
    json(&pose_of(&site, found, &points, wish).map_err(options)?)
}

pub fn materials(file: &Path, csv: bool) -> Answer {
    let found = core_materials(input::site(file)?.file());
    if csv { Ok(materials_csv(&found).trim_end().to_owned()) } else { json(&found) }
}

pub fn steps(file: &Path, camera: Option<&str>) -> Answer {
    let site = input::site(file)?;
    match camera {
        Some(camera) => json(&steps_of(site.file(), camera).map_err(|fault| vec![as_option(fault)])?),
        None => json(&all_steps(site.file()).map_err(|fault| vec![fault])?),
    }
}

pub fn mount(file: &Path, camera: &str) -> Answer {
    json(&mount_checks(&input::site(file)?, camera).map_err(|fault| vec![as_option(fault)])?)
}

pub fn day(file: &Path) -> Answer {
    json(&days(input::site(file)?.file()).map_err(|fault| vec![fault])?)
}

/// Stands in for the cameras of a site until it is told to stop.
pub fn camera(file: &Path, port: u16, faults: Vec<Wrong>) -> ExitCode {
    let site = match input::site(file) {
        Ok(site) => site,
        Err(faults) => {
            faults.iter().for_each(|fault| eprintln!("{fault}"));
            return ExitCode::from(super::REFUSED);
        }
    };
    match tiny_http::Server::http(("127.0.0.1", port)) {
        Ok(server) => {
            println!("Cameras of {} on 127.0.0.1:{port}", site.file().name);
            serve_cameras(server, StandIn::of(site.file().clone(), faults));
            ExitCode::SUCCESS
        }
        Err(error) => {
            eprintln!("127.0.0.1:{port}: {error}");
            ExitCode::FAILURE
        }
    }
}
