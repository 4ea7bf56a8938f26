//! What was agreed, and what is otherwise now: promise by promise, and the cameras behind them.

use super::bill::bill;
use super::client_words::in_client_words;
use crate::change::compare::{Difference, Thing, compare};
use crate::file::{AgreedBy, AgreedPromise, Agreement, Amount, Fault, PatchOp, SiteFile, Stood, fresh_id};
use crate::judge::Session;
use crate::verdict::Verdict;
use crate::words::units::Units;
use serde::{Deserialize, Serialize};
use serde_json::json;
use utoipa::ToSchema;

/// Who agrees, and how.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Signed {
    /// Who.
    pub name: String,
    /// When, as in `2026-11-30`.
    pub date: String,
    /// How.
    pub by: AgreedBy,
    /// The signature, as in [`Agreement`].
    #[schema(value_type = Vec<Vec<[f64; 2]>>)]
    pub signature: Vec<Vec<[f64; 2]>>,
}

/// An agreement against what stands now.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Against {
    /// Its id.
    pub id: String,
    /// Who agreed.
    pub name: String,
    /// When.
    pub date: String,
    /// The signature.
    #[schema(value_type = Vec<Vec<[f64; 2]>>)]
    pub signature: Vec<Vec<[f64; 2]>>,
    /// Promises that stand otherwise.
    pub promises: Vec<PromiseSince>,
    /// What was changed about promises and cameras.
    pub changes: Vec<Difference>,
    /// What was agreed to be paid; null where that was not known.
    #[schema(required)]
    pub total: Option<Amount>,
    /// What it costs now, if that is known and something else.
    #[schema(required)]
    pub total_now: Option<String>,
}

/// A promise that stands otherwise than was agreed.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PromiseSince {
    /// The target's id.
    pub target: String,
    /// What it is called.
    pub name: String,
    /// How it stood; null where it was not there.
    #[schema(required)]
    pub agreed: Option<Verdict>,
    /// How it stands; null where it is no longer there.
    #[schema(required)]
    pub now: Option<Verdict>,
    /// That in a sentence.
    pub says: String,
}

/// The change that keeps an agreement with the site.
///
/// # Errors
/// The faults of an agreement that is none: no name, no day, a signature outside its field.
pub fn agree(session: &Session, signed: Signed) -> Result<Vec<PatchOp>, Vec<Fault>> {
    let file = session.site().file();
    let costs = bill(file).map_err(|fault| vec![fault])?;
    let known = costs.unknown.is_empty() && costs.tax_known && costs.currency.is_some();
    let agreement = Agreement {
        id: fresh_id("a", file.agreements.iter().map(|agreement| agreement.id.as_str())),
        name: signed.name,
        date: signed.date,
        by: signed.by,
        signature: signed.signature,
        option: file.design.clone(),
        total: known.then_some(Amount(costs.total)),
        currency: costs.currency.filter(|_| known),
        promises: file
            .targets
            .iter()
            .zip(session.results())
            .map(|(target, result)| AgreedPromise {
                target: target.id.clone(),
                verdict: stood(result.verdict),
                says: in_client_words(target),
            })
            .collect(),
        targets: file.targets.clone(),
        cameras: file.cameras.clone(),
    };
    let path = if file.agreements.is_empty() { "/agreements" } else { "/agreements/-" };
    let value = if file.agreements.is_empty() { json!([agreement]) } else { json!(agreement) };
    let after = SiteFile { agreements: [file.agreements.clone(), vec![agreement]].concat(), ..file.clone() };
    let faults = crate::file::faults(&after);
    if !faults.is_empty() {
        return Err(faults);
    }
    Ok(vec![PatchOp { op: "add", path: path.to_owned(), value: Some(value) }])
}

fn stood(verdict: Verdict) -> Stood {
    match verdict {
        Verdict::Kept => Stood::Kept,
        Verdict::Tight => Stood::Tight,
        Verdict::Unknown => Stood::Unknown,
        Verdict::Broken => Stood::Broken,
    }
}

fn verdict_of(stood: Stood) -> Verdict {
    match stood {
        Stood::Kept => Verdict::Kept,
        Stood::Tight => Verdict::Tight,
        Stood::Unknown => Verdict::Unknown,
        Stood::Broken => Verdict::Broken,
    }
}

/// An agreement against what stands now.
///
/// # Errors
/// As [`bill`].
pub fn against(session: &Session, agreement: &Agreement, units: Units) -> Result<Against, Fault> {
    let file = session.site().file();
    let before = SiteFile { targets: agreement.targets.clone(), cameras: agreement.cameras.clone(), ..file.clone() };
    let mut changes = compare(&before, file, units);
    changes.retain(|change| matches!(change.thing, Thing::Target | Thing::Camera));
    let costs = bill(file)?;
    let known = costs.unknown.is_empty() && costs.tax_known;
    let total_now =
        (known && agreement.total.as_ref().is_some_and(|total| total.0 != costs.total)).then_some(costs.total);
    Ok(Against {
        id: agreement.id.clone(),
        name: agreement.name.clone(),
        date: agreement.date.clone(),
        signature: agreement.signature.clone(),
        promises: promises_since(session, agreement),
        changes,
        total: agreement.total.clone(),
        total_now,
    })
}

fn promises_since(session: &Session, agreement: &Agreement) -> Vec<PromiseSince> {
    let file = session.site().file();
    let mut since = Vec::new();
    for (target, result) in file.targets.iter().zip(session.results()) {
        let agreed = agreement.promises.iter().find(|promise| promise.target == target.id);
        let words = in_client_words(target);
        let said = agreed.map(|promise| promise.says.as_str());
        let verdict = agreed.map(|promise| verdict_of(promise.verdict));
        if verdict == Some(result.verdict) && said == Some(words.as_str()) {
            continue;
        }
        let says = match agreed {
            None => format!("{}: {words}; not agreed on yet, {} now", target.name, result.verdict.word()),
            Some(agreed) if agreed.says != words => {
                format!(
                    "{}: agreed was to {}; now it is to {words}, {}",
                    target.name,
                    agreed.says,
                    result.verdict.word()
                )
            }
            Some(agreed) => {
                format!(
                    "{}: {} when it was agreed, {} now",
                    target.name,
                    verdict_of(agreed.verdict).word(),
                    result.verdict.word()
                )
            }
        };
        since.push(PromiseSince {
            target: target.id.clone(),
            name: target.name.clone(),
            agreed: verdict,
            now: Some(result.verdict),
            says,
        });
    }
    for agreed in &agreement.promises {
        if file.targets.iter().any(|target| target.id == agreed.target) {
            continue;
        }
        let name = agreement.targets.iter().find(|target| target.id == agreed.target);
        let name = name.map_or(agreed.target.clone(), |target| target.name.clone());
        let says = format!("{name}: agreed was to {}; nothing promises it now", agreed.says);
        since.push(PromiseSince {
            target: agreed.target.clone(),
            name,
            agreed: Some(verdict_of(agreed.verdict)),
            now: None,
            says,
        });
    }
    since
}
