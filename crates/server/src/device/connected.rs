//! A connected rangefinder over the line protocol of the stand-in (`crates/rangefinder`).

use super::talk::{Broken, Talk};
use super::{DeviceError, Place, Rangefinder, Shot};
use std::net::SocketAddr;

/// A rangefinder at an address; each measurement is a connection of its own.
pub struct Connected {
    /// Where it listens.
    pub address: SocketAddr,
}

impl From<Broken> for DeviceError {
    fn from(broken: Broken) -> Self {
        match broken {
            Broken::Away(why) => DeviceError::Away(why),
            Broken::Nonsense(said) => DeviceError::Nonsense(said),
        }
    }
}

impl Rangefinder for Connected {
    async fn measure(&mut self, from: Place, to: Place) -> Result<Shot, DeviceError> {
        let mut talk = Talk::to(self.address).await?;
        let greeting = talk.ask("HELLO").await?;
        let Some(name) = greeting.strip_prefix("BRIGHT-ANGLE RANGEFINDER 1 ") else {
            return Err(DeviceError::Nonsense(greeting));
        };
        let line = |verb: &str, [x, y, z]: Place| format!("{verb} {x} {y} {z}");
        talk.order(&line("STAND", from)).await?;
        talk.order(&line("AIM", to)).await?;
        shot(&talk.ask("MEASURE").await?, name)
    }
}

/// Reads `SHOT slope inclination signal`.
fn shot(answer: &str, name: &str) -> Result<Shot, DeviceError> {
    if answer == "NO RETURN" {
        return Err(DeviceError::NoReturn);
    }
    let nonsense = || DeviceError::Nonsense(answer.to_owned());
    let numbers: Vec<f64> = answer
        .strip_prefix("SHOT ")
        .ok_or_else(nonsense)?
        .split(' ')
        .map(|word| word.parse().ok().filter(|n: &f64| n.is_finite()))
        .collect::<Option<_>>()
        .ok_or_else(nonsense)?;
    match numbers[..] {
        [slope_m, inclination, signal] if (0.01..=10_000.0).contains(&slope_m) && inclination.abs() <= 90.0 => {
            let device = format!("rangefinder, {}", name.to_lowercase());
            Ok(Shot { slope_m, inclination_deg: Some(inclination), signal: Some(signal), device })
        }
        _ => Err(nonsense()),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn answers_are_read_and_nonsense_is_not() {
        let read = shot("SHOT 18.931 +6.37 92", "STAND-IN").unwrap();
        assert_eq!((read.slope_m, read.inclination_deg, read.signal), (18.931, Some(6.37), Some(92.0)));
        assert_eq!(shot("NO RETURN", "x"), Err(DeviceError::NoReturn));
        for nonsense in
            ["", "SHOT", "SHOT 1 2", "SHOT NaN 0 0", "SHOT -3 0 0", "SHOT 1e9 0 50", "SHOT 3 95 50", "FISH 1 2 3"]
        {
            assert!(matches!(shot(nonsense, "x"), Err(DeviceError::Nonsense(_))), "{nonsense}");
        }
    }
}
