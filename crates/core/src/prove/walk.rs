//! A walk test: somebody stands at a target with a board or a car, and the picture says what it gets there (handbook, section 14).

use crate::file::{Evidence, Fault, HeadRef, Hung, Proof, ProofHow, Subject};
use crate::judge::Session;
use crate::verdict::Verdict;
use serde::Serialize;
use utoipa::ToSchema;

/// How well the marks on a board are apart as stated, ± m (our default).
const APART_OFF_M: f64 = 0.01;
/// Marks so far from where the plan has the target, as a share of the picture's width, may be somewhere else.
const FAR_SHARE: f64 = 0.08;

/// What a try showed.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ProofTold {
    /// Its id.
    pub id: String,
    /// The view that it was tried in.
    pub head: HeadRef,
    /// By night.
    pub night: bool,
    /// How the promise stands by it.
    pub verdict: Verdict,
    /// It in words: what is got of what was promised.
    pub says: String,
    /// What was counted.
    pub counted: Counted,
    /// How much of it; null where somebody only said yes or no.
    #[schema(required)]
    pub got: Option<f64>,
    /// What it is held against.
    #[schema(required)]
    pub promised: Option<f64>,
    /// What the plan has there, px/m; null where it is none.
    #[schema(required)]
    pub planned: Option<f64>,
    /// What does not go together with the plan, in words.
    pub odd: Vec<String>,
    /// Why it says nothing any more; null where it does.
    #[schema(required)]
    pub past: Option<String>,
    /// When.
    #[schema(required)]
    pub at: Option<String>,
    /// Who tried.
    #[schema(required)]
    pub by: Option<String>,
    /// The picture that shows it.
    #[schema(required)]
    pub picture: Option<Evidence>,
}

/// What a try counts.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Counted {
    /// Pixels a metre, between two marks.
    PxPerM,
    /// Characters of a plate.
    Characters,
    /// Nothing: somebody said yes or no.
    Word,
}

/// What a try showed.
///
/// # Errors
/// Names the target, camera or view that the site does not have any more.
pub fn proof_told(session: &Session, proof: &Proof) -> Result<ProofTold, Fault> {
    let site = session.site();
    let target = &site.targets()[site.target_place(&proof.target)?];
    let head = proof.head_ref();
    site.view(&head)?;
    let need = target.need.px_per_m;
    let mut told = match &proof.how {
        ProofHow::Marks { a, b, apart_m, upright, clicked_px } => {
            let long = (a[0] - b[0]).hypot(a[1] - b[1]);
            let mut told = measured(long / apart_m, least(long, *apart_m, *clicked_px), need);
            beside_the_plan(session, proof, &mut told, (*a, *b), *upright)?;
            told
        }
        ProofHow::Plate { shown, read } => plate(shown, read),
        ProofHow::Yes { yes } => said(*yes, target.subject),
    };
    told.id.clone_from(&proof.id);
    told.past = past(session, proof, need);
    (told.at, told.by, told.picture) = (proof.at.clone(), proof.by.clone(), proof.picture.clone());
    (told.head, told.night) = (head, proof.night);
    Ok(told)
}

/// The least density that two marks are sure of, px/m: both clicks off towards each other, the board longer than stated.
fn least(long: f64, apart_m: f64, clicked_px: f64) -> f64 {
    ((long - 2.0 * clicked_px) / (apart_m + APART_OFF_M)).max(0.0)
}

fn told(verdict: Verdict, says: String) -> ProofTold {
    ProofTold {
        id: String::new(),
        head: HeadRef { camera: String::new(), head: String::new(), view: None },
        night: false,
        verdict,
        says,
        counted: Counted::Word,
        got: None,
        promised: None,
        planned: None,
        odd: vec![],
        past: None,
        at: None,
        by: None,
        picture: None,
    }
}

fn measured(got: f64, least: f64, need: f64) -> ProofTold {
    let verdict = Verdict::of(got >= need, least >= need);
    let says = match verdict {
        Verdict::Kept => format!("{got:.0} px/m of {need:.0}"),
        Verdict::Tight => format!("{got:.0} px/m of {need:.0}, no more than the clicks are sure to"),
        _ => format!("{got:.0} px/m of {need:.0}, {:.0} % short", 100.0 * (1.0 - got / need)),
    };
    ProofTold { counted: Counted::PxPerM, got: Some(got), promised: Some(need), ..told(verdict, says) }
}

/// What the plan has where the marks are, and whether they are where it has the target.
fn beside_the_plan(
    session: &Session,
    proof: &Proof,
    told: &mut ProofTold,
    (a, b): ([f64; 2], [f64; 2]),
    upright: bool,
) -> Result<(), Fault> {
    let Some(line) = session.line(&proof.head_ref().to(&proof.target))? else {
        told.odd.push("the plan has the target behind this camera".to_owned());
        return Ok(());
    };
    if proof.hung.differs(&hung_now(session, proof)?).is_some() {
        return Ok(());
    }
    told.planned = if upright { line.px_per_m_up } else { line.px_per_m };
    let far = session.site().rules().proving.density_share;
    if let (Some(planned), Some(got)) = (told.planned, told.got) {
        let off = got / planned - 1.0;
        if off.abs() > far {
            let word = if off < 0.0 { "less" } else { "more" };
            told.odd.push(format!(
                "{:.0} % {word} than the plan's {planned:.0}: is the distance, the lens or the aim another?",
                100.0 * off.abs()
            ));
        }
    }
    let middle = [(a[0] + b[0]) / 2.0, (a[1] + b[1]) / 2.0];
    let apart = (middle[0] - line.pixel[0]).hypot(middle[1] - line.pixel[1]);
    let wide = session.site().view(&proof.head_ref())?.view().projection.size().x;
    // Of a line or an area any place will do.
    let point = session.site().targets()[session.site().target_place(&proof.target)?].samples.len() == 1;
    if point && apart > FAR_SHARE * wide + (a[0] - b[0]).hypot(a[1] - b[1]) {
        told.odd.push(format!("the marks are {:.0} % of the picture from where the plan has it", 100.0 * apart / wide));
    }
    Ok(())
}

/// How a plate was read: each character in its place; spaces and dashes do not count.
fn plate(shown: &str, read: &str) -> ProofTold {
    let plain = |text: &str| -> Vec<char> {
        text.chars().filter(|c| !c.is_whitespace() && !"-·.".contains(*c)).flat_map(char::to_uppercase).collect()
    };
    let (shown, read) = (plain(shown), plain(read));
    let right = in_common(&shown, &read);
    // One too many is as wrong as one too few.
    let all = right == shown.len() && read.len() == shown.len();
    let says = match all {
        true => format!("all {} characters read", shown.len()),
        false if right == shown.len() => format!("{} characters read where {} are", read.len(), shown.len()),
        false => format!("{right} of {} characters read right", shown.len()),
    };
    let verdict = if all { Verdict::Kept } else { Verdict::Broken };
    let promised = Some(shown.len() as f64);
    ProofTold { counted: Counted::Characters, got: Some(right as f64), promised, ..told(verdict, says) }
}

/// The most characters that two rows have in common in one order (longest common subsequence).
fn in_common(a: &[char], b: &[char]) -> usize {
    let mut before = vec![0; b.len() + 1];
    for one in a {
        let mut now = vec![0; b.len() + 1];
        for (place, other) in b.iter().enumerate() {
            now[place + 1] = if one == other { before[place] + 1 } else { before[place + 1].max(now[place]) };
        }
        before = now;
    }
    before[b.len()]
}

fn said(yes: bool, subject: Subject) -> ProofTold {
    let says = match (subject, yes) {
        (Subject::Face | Subject::Person, true) => "the client knows who it is",
        (Subject::Face | Subject::Person, false) => "the client does not know who it is",
        (_, true) => "the client says that it will do",
        (_, false) => "the client says that it will not do",
    };
    told(if yes { Verdict::Kept } else { Verdict::Broken }, says.to_owned())
}

fn hung_now(session: &Session, proof: &Proof) -> Result<Hung, Fault> {
    let cameras = &session.site().file().cameras;
    let camera = cameras.iter().find(|camera| camera.id == proof.camera);
    let hung = camera.and_then(|camera| camera.hung(&proof.head, proof.view.as_deref()));
    hung.ok_or_else(|| Fault::new("camera", format!("there is no camera \"{}\" any more", proof.camera)))
}

/// Why a try says nothing any more.
fn past(session: &Session, proof: &Proof, need: f64) -> Option<String> {
    let now = hung_now(session, proof).ok()?;
    if let Some(differs) = proof.hung.differs(&now) {
        return Some(differs.to_owned());
    }
    // A measured figure is held against the need of today; a yes and a plate were of the need of then.
    let raised = !matches!(proof.how, ProofHow::Marks { .. }) && need > proof.needed_px_per_m * (1.0 + 1e-9);
    raised.then(|| "more is promised now".to_owned())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn characters_count_in_their_order_and_one_too_many_is_wrong() {
        for (shown, read, verdict, says) in [
            ("AB12 CDE", "ab12-cde", Verdict::Kept, "all 7 characters read"),
            ("AB12CDE", "A812CDE", Verdict::Broken, "6 of 7 characters read right"),
            ("AB12CDE", "AB12CD", Verdict::Broken, "6 of 7 characters read right"),
            ("AB12CDE", "AB12CDEE", Verdict::Broken, "8 characters read where 7 are"),
            ("AB12CDE", "", Verdict::Broken, "0 of 7 characters read right"),
            ("ÄB1", "äb1", Verdict::Kept, "all 3 characters read"),
        ] {
            let told = plate(shown, read);
            assert_eq!((told.verdict, told.says.as_str()), (verdict, says), "{shown} {read}");
        }
    }

    #[test]
    fn marks_are_as_sure_as_their_clicks() {
        // 400 px over 1.6 m: 250 px/m; with 3 px off at both ends and 1 cm more of board 244.7.
        assert!((least(400.0, 1.6, 3.0) - 394.0 / 1.61).abs() < 1e-9);
        let of = |need: f64| measured(250.0, least(400.0, 1.6, 3.0), need).verdict;
        assert_eq!([of(244.0), of(250.0), of(251.0)], [Verdict::Kept, Verdict::Tight, Verdict::Broken]);
    }
}
