//! What is wrong with a camera, to order.

use std::str::FromStr;

/// One thing that is wrong with one head, as in `c3/h1:turned=3`.
#[derive(Clone, Debug, PartialEq)]
pub struct Fault {
    /// The camera's id.
    pub camera: String,
    /// The head's id; all heads where it is left out.
    pub head: Option<String>,
    /// What is wrong.
    pub wrong: Wrong,
}

/// What can be wrong.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Wrong {
    /// Turned to the right, degrees.
    Turned(f64),
    /// Looking further down, degrees.
    Tilted(f64),
    /// Rolled clockwise as seen from behind, degrees.
    Rolled(f64),
    /// Hung so far to the east, m.
    Moved(f64),
    /// Another focal length, mm.
    Lens(f64),
    /// Out of focus, px of the picture.
    Blurred(f64),
    /// A dirty cover, share of contrast that is left.
    Dirty(f64),
    /// The film is still on.
    Film,
    /// Leaves over a share of the picture.
    Overgrown(f64),
    /// Hung the wrong side up.
    UpsideDown,
    /// The corridor setting is forgotten: the picture lies on its side.
    Corridor,
    /// The clock is fast by so many minutes.
    Clock(f64),
}

impl FromStr for Fault {
    type Err = String;

    fn from_str(text: &str) -> Result<Self, String> {
        let bad = || format!("\"{text}\" is no fault such as c3/h1:turned=3");
        let (which, what) = text.split_once(':').ok_or_else(bad)?;
        let (camera, head) = match which.split_once('/') {
            Some((camera, head)) => (camera, Some(head.to_owned())),
            None => (which, None),
        };
        let wrong = what.parse().map_err(|_: String| bad())?;
        Ok(Fault { camera: camera.to_owned(), head, wrong })
    }
}

impl FromStr for Wrong {
    type Err = String;

    fn from_str(what: &str) -> Result<Self, String> {
        let bad = || format!("\"{what}\" is no fault such as turned=3");
        let (name, figure) = match what.split_once('=') {
            Some((name, figure)) => (name, Some(figure.parse::<f64>().map_err(|_| bad())?)),
            None => (what, None),
        };
        let figure = figure.filter(|figure| figure.is_finite());
        Ok(match (name, figure) {
            ("turned", Some(by)) => Wrong::Turned(by),
            ("tilted", Some(by)) => Wrong::Tilted(by),
            ("rolled", Some(by)) => Wrong::Rolled(by),
            ("moved", Some(by)) => Wrong::Moved(by),
            ("lens", Some(mm)) if mm > 0.1 => Wrong::Lens(mm),
            ("blurred", Some(px)) if (0.0..=50.0).contains(&px) => Wrong::Blurred(px),
            ("dirty", Some(left)) if (0.0..=1.0).contains(&left) => Wrong::Dirty(left),
            ("overgrown", Some(share)) if (0.0..=1.0).contains(&share) => Wrong::Overgrown(share),
            ("clock", Some(minutes)) => Wrong::Clock(minutes),
            ("film", None) => Wrong::Film,
            ("upside_down", None) => Wrong::UpsideDown,
            ("corridor", None) => Wrong::Corridor,
            _ => return Err(bad()),
        })
    }
}

impl Fault {
    /// Whether it is of a head.
    pub fn is_of(&self, camera: &str, head: &str) -> bool {
        self.camera == camera && self.head.as_deref().is_none_or(|held| held == head)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn faults_are_read_and_nonsense_is_not() {
        let read: Fault = "c3/h1:turned=-3.5".parse().unwrap();
        assert_eq!(read, Fault { camera: "c3".into(), head: Some("h1".into()), wrong: Wrong::Turned(-3.5) });
        assert!(read.is_of("c3", "h1") && !read.is_of("c3", "h2"));
        assert!("c3:film".parse::<Fault>().unwrap().is_of("c3", "h7"));
        for bad in ["", "c3", "c3:turned", "c3:turned=east", "c3:film=1", "c3:lens=0", "c3:turned=NaN"] {
            assert!(bad.parse::<Fault>().is_err(), "{bad}");
        }
    }
}
