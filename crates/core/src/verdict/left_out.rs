//! What a verdict leaves out, and so says: put together from what is registered here. Whoever begins to judge something takes it out.

/// What a verdict is given for.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Given {
    /// By night.
    pub night: bool,
    /// For a plate on the move.
    pub moving: bool,
    /// For something that moves.
    pub speed: bool,
}

/// Something that a verdict leaves out.
struct LeftOut {
    says: &'static str,
    /// Whether it is spoken of as several.
    several: bool,
    /// What is done about it in its stead.
    instead: Instead,
    /// Whether it belongs to what a verdict is given for.
    concerns: fn(Given) -> bool,
}

#[derive(Clone, Copy, PartialEq, Eq)]
enum Instead {
    /// It is judged under another setting.
    Elsewhere,
    /// It is shown.
    Shown,
    /// Nothing yet.
    Nothing,
}

/// What no verdict holds yet, in the order in which it is said.
const LEFT_OUT: [LeftOut; 7] = [
    LeftOut {
        says: "its speed",
        several: false,
        instead: Instead::Nothing,
        concerns: |given| given.speed && !given.moving,
    },
    LeftOut {
        says: "by night it is judged when the site is set to it",
        several: false,
        instead: Instead::Elsewhere,
        concerns: |given| !given.night,
    },
    LeftOut { says: "low sun", several: false, instead: Instead::Shown, concerns: |given| !given.night },
    LeftOut { says: "what is overexposed", several: false, instead: Instead::Shown, concerns: |given| given.night },
    LeftOut { says: "lamps in the picture", several: true, instead: Instead::Shown, concerns: |given| given.night },
    LeftOut { says: "wiring", several: false, instead: Instead::Nothing, concerns: |_| true },
    LeftOut { says: "recording", several: false, instead: Instead::Nothing, concerns: |_| true },
];

/// What a verdict is given for and what it leaves out, in words.
///
/// ```
/// use bright_angle_core::verdict::{Given, leaves_out};
/// assert!(leaves_out(Given { night: false, moving: false, speed: false }).starts_with("By day, standing still, in focus. By night it is judged"));
/// ```
pub fn leaves_out(given: Given) -> String {
    let concerned: Vec<&LeftOut> = LEFT_OUT.iter().filter(|left| (left.concerns)(given)).collect();
    let parts = [
        told(&concerned, Instead::Elsewhere, ""),
        told(&concerned, Instead::Shown, "shown, not judged"),
        told(&concerned, Instead::Nothing, "not judged yet"),
    ];
    let by = if given.night { "By night" } else { "By day" };
    let how = match given {
        Given { moving: true, .. } => "at the speed stated, dry and clean plates",
        Given { speed: true, .. } => "in focus",
        _ => "standing still, in focus",
    };
    let left = parts.into_iter().flatten().collect::<Vec<_>>().join("; ");
    let mut letters = left.chars();
    let first = letters.next().map(|letter| letter.to_uppercase().to_string()).unwrap_or_default();
    format!("{by}, {how}. {}.", first + letters.as_str())
}

/// What is done in its stead with all that it is done with; none where that is nothing.
fn told(concerned: &[&LeftOut], instead: Instead, is: &str) -> Option<String> {
    let those: Vec<&LeftOut> = concerned.iter().copied().filter(|left| left.instead == instead).collect();
    let names = listed(&those.iter().map(|left| left.says).collect::<Vec<_>>());
    match those[..] {
        [] => None,
        _ if is.is_empty() => Some(names),
        [LeftOut { several: false, .. }] => Some(format!("{names} is {is}")),
        _ => Some(format!("{names} are {is}")),
    }
}

/// Names, the last of them after "and".
fn listed(names: &[&str]) -> String {
    match names {
        [before @ .., last] if !before.is_empty() => format!("{} and {last}", before.join(", ")),
        _ => names.concat(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_left_is_said_of_one_of_several_and_of_none() {
        let nothing: Vec<&LeftOut> = LEFT_OUT.iter().filter(|left| left.instead == Instead::Nothing).collect();
        let says = |left: &[&LeftOut]| told(left, Instead::Nothing, "not judged yet");
        assert_eq!(says(&nothing[2..]).as_deref(), Some("recording is not judged yet"));
        assert_eq!(says(&nothing[1..]).as_deref(), Some("wiring and recording are not judged yet"));
        assert_eq!(says(&[]), None);
    }

    #[test]
    fn each_setting_says_what_it_leaves_out() {
        let says = |night, moving| leaves_out(Given { night, moving, speed: moving });
        // What moves is not said to stand.
        let walks = leaves_out(Given { night: false, moving: false, speed: true });
        assert!(walks.starts_with("By day, in focus.") && walks.contains("its speed, wiring and recording"), "{walks}");
        assert_eq!(
            says(false, false),
            "By day, standing still, in focus. By night it is judged when the site is set to it; low sun is shown, not judged; wiring and recording are not judged yet."
        );
        assert_eq!(
            says(true, true),
            "By night, at the speed stated, dry and clean plates. What is overexposed and lamps in the picture are shown, not judged; wiring and recording are not judged yet."
        );
    }
}
