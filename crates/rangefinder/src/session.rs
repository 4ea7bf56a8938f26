//! One connection: commands in, answers out, a line each.

use crate::laser::Shot;
use crate::world::Place;
use std::io::{self, BufRead, BufReader, Read, Write};
use std::net::TcpStream;
use std::time::Duration;

/// A longer line is no command.
const LONGEST_LINE: u64 = 200;
/// A connection that says nothing for so long is closed.
const PATIENCE: Duration = Duration::from_secs(300);

/// Answers a connection until it ends.
pub fn run(stream: TcpStream, mut shoot: impl FnMut(Place, Place) -> Option<Shot>) -> io::Result<()> {
    stream.set_read_timeout(Some(PATIENCE))?;
    let mut out = stream.try_clone()?;
    let mut lines = BufReader::new(stream);
    let (mut stand, mut aim): (Option<Place>, Option<Place>) = (None, None);
    loop {
        let mut line = String::new();
        if lines.by_ref().take(LONGEST_LINE).read_line(&mut line)? == 0 {
            return Ok(());
        }
        let mut words = line.split_whitespace();
        let answer = match words.next() {
            Some("HELLO") => "BRIGHT-ANGLE RANGEFINDER 1 STAND-IN".to_owned(),
            Some("STAND") => keep(&mut stand, words),
            Some("AIM") => keep(&mut aim, words),
            Some("MEASURE") => match (stand, aim) {
                (Some(from), Some(to)) => measured(shoot(from, to)),
                _ => "ERROR STAND and AIM first".to_owned(),
            },
            Some("QUIT") => return Ok(()),
            _ => "ERROR no such command".to_owned(),
        };
        writeln!(out, "{answer}")?;
    }
}

fn keep<'a>(place: &mut Option<Place>, words: impl Iterator<Item = &'a str>) -> String {
    let numbers: Vec<f64> = words.filter_map(|word| word.parse().ok()).filter(|n: &f64| n.is_finite()).collect();
    match numbers.try_into() {
        Ok(numbers) => {
            *place = Some(numbers);
            "OK".to_owned()
        }
        Err(_) => "ERROR three numbers: metres east, north, up".to_owned(),
    }
}

fn measured(shot: Option<Shot>) -> String {
    shot.map_or("NO RETURN".to_owned(), |shot| {
        format!("SHOT {:.3} {:+.2} {:.0}", shot.slope_m, shot.inclination_deg, shot.signal)
    })
}
