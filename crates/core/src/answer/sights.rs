//! What the Aim screen shows at once of the site in hand.

use crate::file::{Fault, HeadRef};
use crate::judge::evaluation::head_named;
use crate::judge::session::{HeadVerdict, Summary};
use crate::judge::{HeadResult, Session, SightLine};
use crate::show::coverage::outline::outline;
use crate::show::coverage::section::{Section, section};
use crate::verdict::RuleName;
use crate::words::shortfall;
use serde::Serialize;
use utoipa::ToSchema;

/// What the Aim screen shows at once.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Sights {
    /// Every promise and every head in short.
    pub summary: Summary,
    /// What each head is worth to the target in hand.
    pub heads: Vec<HeadVerdict>,
    /// The sight line in hand; null without one, or where the target is behind the head.
    #[schema(required)]
    pub line: Option<SightLine>,
    /// How its density stands to the need, in words.
    #[schema(required)]
    pub shortfall: Option<String>,
    /// The head in hand.
    #[schema(required)]
    pub head: Option<HeadResult>,
    /// The outline of its picture on the ground, m: lines that end at the horizon, or one that closes.
    pub outline: Vec<Vec<[f64; 2]>>,
    /// The section along the sight line in hand.
    #[schema(required)]
    pub section: Option<Section>,
}

/// What stands on screen with a target and a head in hand, or one of them, or none.
///
/// # Errors
/// Names the id that the site does not have.
pub fn sights(session: &Session, target: Option<String>, head: Option<HeadRef>) -> Result<Sights, Fault> {
    // A camera that goes can be in the hand, and shows nothing.
    let head = head.filter(|head| !session.site().goes(&head.camera));
    let line = target.as_ref().zip(head.as_ref()).map(|(target, head)| head.to(target));
    let found = line.as_ref().map(|line| session.line(line)).transpose()?.flatten();
    let short = |line: &SightLine| -> Result<Option<String>, Fault> {
        let target = &session.site().targets()[session.site().target_place(&line.target)?];
        // What the rule found: seen steeply, the lesser of across and up.
        let found = line.rules.iter().find(|rule| rule.rule == RuleName::PixelDensity).and_then(|rule| rule.value);
        Ok(found.or(line.px_per_m).map(|found| shortfall(found, target.need.px_per_m, target.task)))
    };
    Ok(Sights {
        summary: session.summary(),
        heads: target.as_ref().map_or(Ok(vec![]), |target| session.heads_of(target))?,
        shortfall: found.as_ref().map(short).transpose()?.flatten(),
        line: found,
        head: head.as_ref().map(|head| session.head(head)).transpose()?,
        outline: match &head {
            Some(head) => outline(&head_named(session.site(), head)?),
            None => vec![],
        },
        section: line.as_ref().map(|line| section(session, line)).transpose()?,
    })
}
