//! A managed switch over the line protocol of the stand-in (`crates/switch`).

use super::talk::{Broken, Talk};
use bright_angle_core::wire::read_switch::{Planned, PortReport, SwitchReport};
use std::net::SocketAddr;

/// Reads every port of a switch that things are plugged into as planned, and what its recorder stores in a day.
///
/// # Errors
/// The switch does not answer, or says what is no answer.
pub async fn read_switch(
    address: SocketAddr,
    planned: &[Planned],
    stores: Option<f64>,
) -> Result<SwitchReport, Broken> {
    let mut talk = Talk::to(address).await?;
    let greeting = talk.ask("HELLO").await?;
    let name = greeting.strip_prefix("BRIGHT-ANGLE SWITCH 1 ").ok_or_else(|| Broken::Nonsense(greeting.clone()))?;
    for at in planned {
        talk.order(&format!("PLUG {} {:.2} {:.3} {}", at.port, at.length_m, at.watts, at.mbps)).await?;
    }
    let mut ports = vec![];
    for at in planned {
        ports.push(port(&talk.ask(&format!("READ {}", at.port)).await?, at.port)?);
    }
    let mut stored = None;
    if let Some(gb) = stores {
        talk.order(&format!("STORES {gb}")).await?;
        let answer = talk.ask("STORED").await?;
        let figure = answer.strip_prefix("STORED ").and_then(|gb| gb.parse().ok()).filter(|gb: &f64| gb.is_finite());
        stored = Some(figure.ok_or(Broken::Nonsense(answer))?);
    }
    Ok(SwitchReport { name: format!("switch, {}", name.to_lowercase()), ports, stored_gb_per_day: stored })
}

/// Reads `PORT port link watts length joint overload`.
fn port(answer: &str, wanted: usize) -> Result<PortReport, Broken> {
    let nonsense = || Broken::Nonsense(answer.to_owned());
    let words: Vec<&str> = answer.strip_prefix("PORT ").ok_or_else(nonsense)?.split(' ').collect();
    let [number, link, watts, length, joint, overload] = words[..] else { return Err(nonsense()) };
    let figure = |word: &str| word.parse().ok().filter(|n: &f64| (0.0..=1e7).contains(n)).ok_or_else(nonsense);
    let maybe = |word: &str| if word == "-" { Ok(None) } else { figure(word).map(Some) };
    if number.parse() != Ok(wanted) {
        return Err(nonsense());
    }
    Ok(PortReport {
        port: wanted,
        link_mbps: figure(link)?,
        watts: figure(watts)?,
        length_m: maybe(length)?,
        joint_m: maybe(joint)?,
        overload: match overload {
            "0" => false,
            "1" => true,
            _ => return Err(nonsense()),
        },
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn answers_are_read_and_nonsense_is_not() {
        let read = port("PORT 3 10 9.75 42.5 34.0 0", 3).unwrap();
        assert_eq!((read.link_mbps, read.watts, read.length_m, read.joint_m), (10.0, 9.75, Some(42.5), Some(34.0)));
        assert_eq!(
            port("PORT 3 0 0 - - 1", 3).unwrap(),
            PortReport { port: 3, link_mbps: 0.0, watts: 0.0, length_m: None, joint_m: None, overload: true }
        );
        for nonsense in [
            "",
            "PORT",
            "PORT 4 1 1 1 1 0",
            "PORT 3 NaN 0 0 0 0",
            "PORT 3 -1 0 0 0 0",
            "PORT 3 1 1 1 1 2",
            "PORT 3 1 1 1 1",
        ] {
            assert!(matches!(port(nonsense, 3), Err(Broken::Nonsense(_))), "{nonsense}");
        }
    }
}
