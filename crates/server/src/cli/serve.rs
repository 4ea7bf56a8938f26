//! `bright-angle serve`: the application on a port.

use crate::api::{self, Settings};
use crate::front;
use crate::share::ShareSettings;
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
    /// Open the door to the local network: encrypted, for devices that are paired at the desk
    #[arg(long, requires = "data")]
    share: bool,
    /// The port of that door
    #[arg(long, default_value_t = 8443)]
    share_port: u16,
    /// An address of this machine that it is open at; all those of local networks where none is named
    #[arg(long = "share-address", value_name = "ADDRESS")]
    share_addresses: Vec<IpAddr>,
    /// A host name that it answers to; this machine's own where none is named
    #[arg(long = "share-name", value_name = "NAME")]
    share_names: Vec<String>,
    /// A certificate chain of the firm's own for it, PEM; else one is made in the data folder
    #[arg(long, requires = "share_key", value_name = "FILE")]
    share_certificate: Option<PathBuf>,
    /// The key of that certificate, PEM
    #[arg(long, requires = "share_certificate", value_name = "FILE")]
    share_key: Option<PathBuf>,
    /// Where the connected rangefinder listens
    #[arg(long, default_value = "127.0.0.1:8019")]
    rangefinder: SocketAddr,
    /// Where the managed switch answers
    #[arg(long, default_value = "127.0.0.1:8021")]
    switch: SocketAddr,
    /// Where the stand-in for cameras answers
    #[arg(long, default_value = "127.0.0.1:8022")]
    cameras: SocketAddr,
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
    let share = args.data.as_ref().map(|folder| ShareSettings {
        folder: folder.join("share"),
        port: args.share_port,
        addresses: args.share_addresses,
        names: args.share_names,
        own: args.share_certificate.zip(args.share_key),
        open: args.share,
    });
    let settings = Settings {
        program,
        share,
        stalled: Duration::from_secs(args.stalled_s),
        reserve: args.data.map(|folder| Reserve { folder, bytes: args.reserve_mib << 20 }),
        port: args.port,
        address: args.address,
        database_url: args.database_url,
        web: args.web,
        demo: args.demo,
        rangefinder: args.rangefinder,
        switch: args.switch,
        cameras: args.cameras,
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
