//! The HTTP interface: JSON in and out, and the front end's files.

mod answer;
mod assets;
mod body;
mod catalogue;
mod compute;
mod desk;
mod error;
pub(crate) mod exchange;
mod guard;
pub(crate) mod headers;
mod openapi;
mod pairing;
mod papers;
mod pictures;
mod sheets;
mod signing;
mod sites;
mod snapshots;
mod standings;
mod survey;
mod upkeep;
mod wiring;

pub use openapi::document;
pub use pairing::routes as share_routes;
pub use signing::routes as sign_routes;

pub use desk::LONGEST;

use crate::drawing::Reader;
use crate::front::{self, Clients, Front, Side};
use crate::share::{self, ShareSettings, Shared, Sharing};
use crate::store::{Reserve, Store, load_demo};
use desk::Desk;
use rocket::fairing::AdHoc;
use rocket::tokio::{self, sync::oneshot};
use rocket::{Build, Rocket, routes};
use std::net::{IpAddr, Ipv4Addr, SocketAddr};
use std::path::PathBuf;
use std::sync::{Mutex, PoisonError};
use std::time::Duration;
use time::OffsetDateTime;
use tokio_util::sync::CancellationToken;

/// What the server is told when it starts.
pub struct Settings {
    /// Port to listen on.
    pub port: u16,
    /// Address to listen on.
    pub address: IpAddr,
    /// PostgreSQL database.
    pub database_url: String,
    /// Folder with the built front end.
    pub web: PathBuf,
    /// Folder with site files to begin with.
    pub demo: Option<PathBuf>,
    /// Where the connected rangefinder listens.
    pub rangefinder: SocketAddr,
    /// Where the managed switch answers.
    pub switch: SocketAddr,
    /// Where the stand-in for cameras answers.
    pub cameras: SocketAddr,
    /// How long one computation may take.
    pub longest: Duration,
    /// This program, which reads drawings in processes of its own.
    pub program: PathBuf,
    /// How long a client may take nothing of its answer.
    pub stalled: Duration,
    /// What stays free on the database's disk.
    pub reserve: Option<Reserve>,
    /// The door to the local network, if there is a place for its keys.
    pub share: Option<ShareSettings>,
}

/// How often old autosaves are thinned out and pictures collected.
const TIDYING: Duration = Duration::from_secs(3600);

/// Opens the database, loads the demo if there never was anything, and serves until told to stop.
///
/// # Errors
/// In words for a person: the database is away, the port is taken, a folder is missing.
pub async fn serve(settings: Settings) -> Result<(), String> {
    if !settings.address.is_loopback() {
        return Err(format!(
            "{}: there are no accounts yet, so the application is served on this machine alone (127.0.0.1)",
            settings.address
        ));
    }
    if !settings.web.join("index.html").is_file() {
        return Err(format!("{}: there is no built front end here (index.html)", settings.web.display()));
    }
    let at = SocketAddr::new(settings.address, settings.port);
    let listener = front::listen(at).map_err(|error| format!("{at}: {error}"))?;
    let at = listener.local_addr().map_err(|error| error.to_string())?;
    let (most, stalled) = (front::connections(), settings.stalled);
    let store = Store::open(&settings.database_url).await.map_err(|error| error.to_string())?;
    let store = store.with_reserve(settings.reserve.clone());
    if let Some(folder) = &settings.demo {
        load_demo(&store, folder).await.map_err(|error| error.to_string())?;
    }
    let (clients, stop) = (Clients::default(), CancellationToken::new());
    let sharing = Sharing::new(settings.share.clone());
    let (behind, ready) = oneshot::channel();
    let behind = Mutex::new(Some(behind));
    let server = build(&settings, at, store.clone(), clients.clone(), sharing.clone())?
        .attach(AdHoc::on_liftoff("behind", move |rocket| {
            let told = behind.lock().unwrap_or_else(PoisonError::into_inner).take();
            let at = SocketAddr::new(rocket.config().address, rocket.config().port);
            Box::pin(async move {
                if let Some(told) = told {
                    let _ = told.send(at);
                }
            })
        }))
        .attach(AdHoc::on_shutdown("front", {
            let stop = stop.clone();
            move |_| Box::pin(async move { stop.cancel() })
        }));
    let door = tokio::spawn(async move {
        if let Ok(behind) = ready.await {
            let front = Front::new(behind, clients, most, stalled);
            let shared = tokio::spawn(share::keep(sharing, front.clone(), stop.clone()));
            front.serve(listener, Side::Own, stop).await;
            let _ = shared.await;
        }
    });
    let tidying = tokio::spawn(tidy(store.clone()));
    let outcome = server.launch().await.map(drop).map_err(|error| error.to_string());
    tidying.abort();
    let _ = door.await;
    store.close().await;
    outcome
}

/// Tidies up now and every so often.
async fn tidy(store: Store) {
    let mut times = tokio::time::interval(TIDYING);
    loop {
        times.tick().await;
        if let Err(error) = store.tidy(OffsetDateTime::now_utc()).await {
            eprintln!("tidying up: {error}");
        }
    }
}

/// The server, not yet listening, for what is addressed to `at`.
///
/// # Errors
/// Names the file of the front end that cannot be read.
pub fn build(
    settings: &Settings,
    at: SocketAddr,
    store: Store,
    clients: Clients,
    sharing: Shared,
) -> Result<Rocket<Build>, String> {
    let bare = bare(settings, at, store, clients, sharing.clone())?;
    Ok(bare.attach(guard::Guard::of(at, sharing)).attach(headers::Security))
}

/// The routes with what they work with, without the look at each request before them: each of them asks the guard itself.
///
/// # Errors
/// Names the file of the front end that cannot be read.
pub fn bare(
    settings: &Settings,
    at: SocketAddr,
    store: Store,
    clients: Clients,
    sharing: Shared,
) -> Result<Rocket<Build>, String> {
    let config = rocket::Config {
        // The port that everybody knows is the front's; this one the kernel chooses.
        port: 0,
        address: IpAddr::V4(Ipv4Addr::LOCALHOST),
        log_level: rocket::config::LogLevel::Off,
        cli_colors: false,
        ident: rocket::config::Ident::none(),
        shutdown: rocket::config::Shutdown { ctrlc: true, grace: 2, mercy: 2, ..Default::default() },
        ..rocket::Config::release_default()
    };
    Ok(rocket::custom(config)
        .manage(store)
        .manage(clients)
        .manage(standings::Standings::default())
        .manage(Desk::with_longest(settings.longest))
        .manage(survey::RangefinderAt(settings.rangefinder))
        .manage(wiring::SwitchAt(settings.switch))
        .manage(snapshots::CamerasAt(settings.cameras))
        .manage(Reader { program: settings.program.clone() })
        .manage(assets::Assets::read(&settings.web)?)
        .manage(guard::Guard::of(at, sharing.clone()))
        .manage(sharing)
        .mount("/api", compute_routes())
        .mount("/api", site_routes())
        .mount("/api", routes![guard::refused])
        .mount("/api", pairing::routes())
        .mount("/api", signing::routes())
        .mount("/", pairing::pages())
        .mount("/", signing::pages())
        .mount("/", routes![assets::file])
        .register("/", error::catchers()))
}

/// The routes that compute and keep nothing.
pub fn compute_routes() -> Vec<rocket::Route> {
    routes![
        compute::evaluate,
        compute::ways,
        compute::section,
        compute::relief,
        compute::catalogue,
        compute::schema,
        exchange::import_geojson,
        exchange::import_dxf,
        exchange::export,
        sheets::sheet,
        survey::survey,
        survey::adjust,
        survey::first_answer,
        survey::write_readings,
        survey::read_readings,
        survey::world_file,
        survey::measure,
        papers::papers,
        wiring::route,
        wiring::switch,
        snapshots::snapshot,
        snapshots::stand_in_picture,
        snapshots::stand_in_turn,
        upkeep::calendar,
        openapi::openapi
    ]
}

/// The routes that keep sites.
pub fn site_routes() -> Vec<rocket::Route> {
    routes![
        sites::health,
        sites::list,
        sites::create,
        sites::newest,
        sites::save,
        sites::delete,
        sites::revisions,
        sites::revision,
        sites::name_revision,
        standings::standing,
        catalogue::own,
        catalogue::save_own,
        pictures::keep,
        pictures::picture
    ]
}
