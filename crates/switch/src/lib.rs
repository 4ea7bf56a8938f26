//! A stand-in for a managed switch with a recorder behind it.
//!
//! It listens on loopback and speaks lines of text, each ended by a newline:
//!
//! | command | answer | |
//! |---|---|---|
//! | `HELLO` | `BRIGHT-ANGLE SWITCH 1 STAND-IN` | protocol version 1 |
//! | `PLUG port length watts mbps` | `OK` | what is plugged in there: metres of cable, watts drawn at the port, the speed of the link |
//! | `STORES gb` | `OK` | what is sent to the recorder in a day, GB |
//! | `READ port` | `PORT port link watts length joint overload` | link Mbit/s, watts, metres as its test measures them, metres to a bad joint or `-`, 0 or 1 |
//! | `STORED` | `STORED gb` | what was stored in the last day, GB |
//! | `QUIT` | closes | |
//!
//! Anything else answers `ERROR` and why. A real switch would not be told what hangs on it: `PLUG` and `STORES` take the place of the
//! hands that wire it. What it reports is what hangs there with the [`Fault`]s that were ordered.

mod fault;
mod session;

pub use fault::Fault;
use std::net::TcpListener;
use std::sync::Arc;

/// So many connections are served at a time; one more is closed at once.
const MOST: usize = 16;

/// Serves one connection after another, each on a thread of its own, until the listener fails.
pub fn serve(listener: &TcpListener, faults: Vec<Fault>) {
    let faults = Arc::new(faults);
    for stream in listener.incoming().flatten() {
        if Arc::strong_count(&faults) > MOST {
            continue;
        }
        let faults = Arc::clone(&faults);
        std::thread::spawn(move || {
            // A peer that goes away ends its session; there is nobody left to tell.
            let _ = session::run(stream, &faults);
        });
    }
}
