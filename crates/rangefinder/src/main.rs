//! `bright-angle-rangefinder`: a simulated laser rangefinder on a loopback port. See the crate's library for the protocol.

use bright_angle_rangefinder::{Faults, Kind, serve};
use clap::Parser;
use std::net::TcpListener;
use std::process::ExitCode;

/// A stand-in for a connected laser rangefinder, for demonstrations and tests.
#[derive(Parser)]
#[command(version, about)]
struct Args {
    /// Port on 127.0.0.1
    #[arg(long, default_value_t = 8019)]
    port: u16,
    /// Seed of the noise: the same seed gives the same shots
    #[arg(long, default_value_t = 1)]
    seed: u64,
    /// Share of shots without a return (glass, sun)
    #[arg(long, default_value_t = 0.06)]
    no_return: f64,
    /// Share of shots that hit something behind the target
    #[arg(long, default_value_t = 0.06)]
    stray: f64,
    /// What the first shots do, in order: good, stray or none, with commas between; after that by the shares
    #[arg(long, value_delimiter = ',')]
    script: Vec<Kind>,
}

fn main() -> ExitCode {
    let args = Args::parse();
    let share = 0.0..=1.0;
    if !share.contains(&args.no_return) || !share.contains(&args.stray) || args.no_return + args.stray > 1.0 {
        eprintln!("--no-return and --stray are shares that make 1 together at the most");
        return ExitCode::from(2);
    }
    match TcpListener::bind(("127.0.0.1", args.port)) {
        Ok(listener) => {
            println!("Rangefinder stand-in on 127.0.0.1:{}", args.port);
            serve(&listener, args.seed, Faults { no_return: args.no_return, stray: args.stray, script: args.script });
            ExitCode::SUCCESS
        }
        Err(error) => {
            eprintln!("127.0.0.1:{}: {error}", args.port);
            ExitCode::FAILURE
        }
    }
}
