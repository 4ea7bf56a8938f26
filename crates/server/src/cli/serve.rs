//! `bright-angle serve`: the application on a port.

use crate::api::{self, Settings};
use crate::front;
use crate::store::Reserve;
use clap::Args;
use std::net::{IpAddr, SocketAddr};
use std::path::PathBuf;
use std::process::ExitCode;
use std::time::Duration;

#[derive(Args)]
pub struct ServeArgs {
    /// Port to listen on
    #[arg(long, default_value_t = 8017)]
    port: u16,
    /// Address to listen on: a loopback one, as there are no accounts
    #[arg(long, default_value = "127.0.0.1")]
    address: IpAddr,
    /// PostgreSQL database, as in postgres://user@127.0.0.1:5433/bright_angle
    #[arg(long, env = "DATABASE_URL", hide_env_values = true)]
    database_url: String,
    /// Folder with the built front end
    #[arg(long, default_value = "web/dist")]
    web: PathBuf,
    /// Folder with site files to begin with when the database holds none
    #[arg(long)]
    demo: Option<PathBuf>,
    /// A folder on the disk that the database lies on: saves are refused while less than the reserve is free there
    #[arg(long)]
    data: Option<PathBuf>,
    /// The reserve, MiB
    #[arg(long, default_value_t = 256)]
    reserve_mib: u64,
    /// How long a client may take nothing of its answer, s
    #[arg(long, default_value_t = front::STALLED.as_secs(), hide = true)]
    stalled_s: u64,
    /// Where the connected rangefinder listens
    #[arg(long, default_value = "127.0.0.1:8019")]
    rangefinder: SocketAddr,
}

/// Serves until it is told to stop.
pub fn serve(args: ServeArgs) -> ExitCode {
    let program = match std::env::current_exe() {
        Ok(program) => program,
        Err(error) => {
            eprintln!("this program cannot be found: {error}");
            return ExitCode::FAILURE;
        }
    };
    let settings = Settings {
        program,
        stalled: Duration::from_secs(args.stalled_s),
        reserve: args.data.map(|folder| Reserve { folder, bytes: args.reserve_mib << 20 }),
        port: args.port,
        address: args.address,
        database_url: args.database_url,
        web: args.web,
        demo: args.demo,
        rangefinder: args.rangefinder,
        longest: api::LONGEST,
    };
    match rocket::execute(api::serve(settings)) {
        Ok(()) => ExitCode::SUCCESS,
        Err(error) => {
            eprintln!("{error}");
            ExitCode::FAILURE
        }
    }
}
