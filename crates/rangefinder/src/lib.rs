//! A stand-in for a connected laser rangefinder.
//!
//! It listens on loopback and speaks lines of text, each ended by a newline:
//!
//! | command | answer | |
//! |---|---|---|
//! | `HELLO` | `BRIGHT-ANGLE RANGEFINDER 1 STAND-IN` | protocol version 1 |
//! | `STAND x y z` | `OK` | where the device is held, as drawn: metres east, north, up |
//! | `AIM x y z` | `OK` | what it is aimed at, as drawn |
//! | `MEASURE` | `SHOT slope inclination signal` | slope distance m, inclination ° above the horizontal, signal % |
//! | | `NO RETURN` | nothing came back: glass, sun |
//! | `QUIT` | closes | |
//!
//! Anything else answers `ERROR` and why. A real device would not be told where it is: `STAND` and `AIM` take the place of the hand
//! that holds it. The world that it measures is not the drawn one but what was built, see [`world`].

mod laser;
mod session;
pub mod world;

pub use laser::{Faults, Kind, Laser, Shot};
use std::net::TcpListener;
use std::sync::{Arc, Mutex, PoisonError};

/// So many connections are served at a time; one more is closed at once.
const MOST: usize = 16;

/// Serves one connection after another, each on a thread of its own, until the listener fails.
pub fn serve(listener: &TcpListener, seed: u64, faults: Faults) {
    let laser = Arc::new(Mutex::new(Laser::new(seed, faults)));
    for stream in listener.incoming().flatten() {
        // Each of them holds the laser, and so does this one.
        if Arc::strong_count(&laser) > MOST {
            continue;
        }
        let laser = Arc::clone(&laser);
        std::thread::spawn(move || {
            // A peer that goes away ends its session; there is nobody left to tell.
            let _ =
                session::run(stream, |from, to| laser.lock().unwrap_or_else(PoisonError::into_inner).shoot(from, to));
        });
    }
}
