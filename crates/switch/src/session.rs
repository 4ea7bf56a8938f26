//! One connection: commands in, answers out, a line each.

use crate::fault::Fault;
use std::collections::BTreeMap;
use std::io::{self, BufRead, BufReader, Read, Write};
use std::net::TcpStream;
use std::time::Duration;

/// A longer line is no command.
const LONGEST_LINE: u64 = 200;
/// A connection that says nothing for so long is closed.
const PATIENCE: Duration = Duration::from_secs(60);
/// A switch has so many ports at the most.
const MOST_PORTS: f64 = 512.0;
/// What a camera draws at night, times what it draws by day.
const AT_NIGHT: f64 = 1.6;
/// The link that a bad joint leaves, Mbit/s.
const THROUGH_A_BAD_JOINT: f64 = 10.0;
/// The share of a cable at which the joint is where the cable is shorter than was ordered.
const ALONG: f64 = 0.8;

/// What is plugged in at a port.
struct Plug {
    length_m: f64,
    watts: f64,
    mbps: f64,
}

/// Answers a connection until it ends.
pub fn run(stream: TcpStream, faults: &[Fault]) -> io::Result<()> {
    stream.set_read_timeout(Some(PATIENCE))?;
    let mut out = stream.try_clone()?;
    let mut lines = BufReader::new(stream);
    let mut plugs: BTreeMap<usize, Plug> = BTreeMap::new();
    let mut stores = 0.0;
    loop {
        let mut line = String::new();
        if lines.by_ref().take(LONGEST_LINE).read_line(&mut line)? == 0 {
            return Ok(());
        }
        let mut words = line.split_whitespace();
        let verb = words.next();
        let figures: Option<Vec<f64>> =
            words.map(|word| word.parse().ok().filter(|figure: &f64| figure.is_finite() && *figure >= 0.0)).collect();
        let figures = figures.unwrap_or_default();
        let answer = match (verb, figures.as_slice()) {
            (Some("HELLO"), _) => "BRIGHT-ANGLE SWITCH 1 STAND-IN".to_owned(),
            (Some("PLUG"), [port, length_m, watts, mbps]) if (1.0..=MOST_PORTS).contains(port) => {
                plugs.insert(*port as usize, Plug { length_m: *length_m, watts: *watts, mbps: *mbps });
                "OK".to_owned()
            }
            (Some("PLUG"), _) => "ERROR four figures: port, metres, watts, Mbit/s".to_owned(),
            (Some("STORES"), [gb]) => {
                stores = *gb;
                "OK".to_owned()
            }
            (Some("READ"), [port]) => reading(*port as usize, plugs.get(&(*port as usize)), faults),
            (Some("STORED"), []) => format!("STORED {stores:.1}"),
            (Some("QUIT"), _) => return Ok(()),
            _ => "ERROR no such command".to_owned(),
        };
        writeln!(out, "{answer}")?;
    }
}

/// What is told of a port.
fn reading(port: usize, plug: Option<&Plug>, faults: &[Fault]) -> String {
    let Some(plug) = plug else { return format!("PORT {port} 0 0 - - 0") };
    let (mut link, mut watts, mut joint, mut overload) = (plug.mbps, plug.watts, None, false);
    for fault in faults {
        match *fault {
            Fault::Joint { port: at, at_m } if at == port => {
                joint = Some(if at_m < plug.length_m { at_m } else { ALONG * plug.length_m });
                link = link.min(THROUGH_A_BAD_JOINT);
            }
            Fault::Limit { port: at } if at == port => (link, watts, overload) = (0.0, 0.0, true),
            Fault::Night { port: at } if at == port => watts *= AT_NIGHT,
            Fault::Empty { port: at } if at == port => return format!("PORT {port} 0 0 - - 0"),
            _ => {}
        }
    }
    let joint = joint.map_or("-".to_owned(), |at| format!("{at:.1}"));
    format!("PORT {port} {link:.0} {watts:.2} {:.1} {joint} {}", plug.length_m, u8::from(overload))
}
