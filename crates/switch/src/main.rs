//! `bright-angle-switch`: a simulated managed switch on a loopback port. See the crate's library for the protocol.

use bright_angle_switch::{Fault, serve};
use clap::Parser;
use std::net::TcpListener;
use std::process::ExitCode;

/// A stand-in for a managed switch and its recorder, for demonstrations and tests.
#[derive(Parser)]
#[command(version, about)]
struct Args {
    /// Port on 127.0.0.1
    #[arg(long, default_value_t = 8021)]
    port: u16,
    /// What is wrong: joint:PORT@METRES, limit:PORT, night:PORT or empty:PORT, with commas between
    #[arg(long, value_delimiter = ',')]
    fault: Vec<Fault>,
}

fn main() -> ExitCode {
    let args = Args::parse();
    match TcpListener::bind(("127.0.0.1", args.port)) {
        Ok(listener) => {
            println!("Switch stand-in on 127.0.0.1:{}", args.port);
            serve(&listener, args.fault);
            ExitCode::SUCCESS
        }
        Err(error) => {
            eprintln!("127.0.0.1:{}: {error}", args.port);
            ExitCode::FAILURE
        }
    }
}
