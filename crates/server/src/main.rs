//! The `bright-angle` program.

use std::process::ExitCode;

fn main() -> ExitCode {
    bright_angle::cli::run()
}
