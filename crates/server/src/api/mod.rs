//! The HTTP interface: JSON in and out, and the front end's files.

mod assets;
mod body;
mod compute;
mod error;
mod headers;
mod openapi;
mod pictures;
mod sites;
mod survey;

pub use openapi::document;

use crate::store::{Store, load_demo};
use rocket::fs::{FileServer, Options};
use rocket::{Build, Rocket, routes};
use std::net::{IpAddr, SocketAddr};
use std::path::PathBuf;

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
}

/// Opens the database, loads the demo if there is nothing, and serves until told to stop.
///
/// # Errors
/// In words for a person: the database is away, the port is taken, a folder is missing.
pub async fn serve(settings: Settings) -> Result<(), String> {
    if !settings.web.join("index.html").is_file() {
        return Err(format!("{}: there is no built front end here (index.html)", settings.web.display()));
    }
    let store = Store::open(&settings.database_url).await.map_err(|error| error.to_string())?;
    if let Some(folder) = &settings.demo {
        load_demo(&store, folder).await.map_err(|error| error.to_string())?;
    }
    let server = build(&settings, store.clone());
    let outcome = server.launch().await.map(drop).map_err(|error| error.to_string());
    store.close().await;
    outcome
}

/// The server, not yet listening.
pub fn build(settings: &Settings, store: Store) -> Rocket<Build> {
    let config = rocket::Config {
        port: settings.port,
        address: settings.address,
        log_level: rocket::config::LogLevel::Critical,
        cli_colors: false,
        ident: rocket::config::Ident::none(),
        shutdown: rocket::config::Shutdown { ctrlc: true, grace: 2, mercy: 2, ..Default::default() },
        ..rocket::Config::release_default()
    };
    rocket::custom(config)
        .manage(store)
        .manage(survey::RangefinderAt(settings.rangefinder))
        .attach(headers::Security)
        .mount("/api", compute_routes())
        .mount("/api", site_routes())
        .manage(assets::Assets(settings.web.join("assets")))
        .mount("/assets", routes![assets::compressed])
        .mount("/", FileServer::new(&settings.web, Options::Index | Options::NormalizeDirs).rank(20))
        .register("/", error::catchers())
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
        survey::survey,
        survey::adjust,
        survey::first_answer,
        survey::write_readings,
        survey::read_readings,
        survey::world_file,
        survey::measure,
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
        sites::revisions,
        sites::revision,
        pictures::keep,
        pictures::picture
    ]
}
