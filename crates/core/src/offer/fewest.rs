//! The fewest cameras, or the cheapest, that keep every promise: of those that a site has, or of all that might hang at its surveyed spots.
//!
//! Which promises a set keeps is the evaluation's own answer, sample by sample; the set is found by an integer program (`cover`).

use super::bill::model_price;
use super::candidates::{Candidates, candidates};
use super::cover::{Cover, Found, Goal};
use super::keepers::{Demand, Keepers, Looking, different, present};
use super::leave_out::leave_out;
use crate::change::ways::hangs_at;
use crate::file::{CameraFile, Existing, Fault, Model, PatchOp, SiteFile, Spot, fresh_id};
use crate::judge::Session;
use crate::verdict::Verdict;
use crate::words::because::{reasons, what_holds_back};
use crate::words::units::Units;
use crate::work::Patience;
use rust_decimal::prelude::ToPrimitive;
use serde::{Deserialize, Serialize};
use serde_json::json;
use utoipa::ToSchema;

/// What counts.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FewestBy {
    /// How many cameras there are.
    #[default]
    Count,
    /// What the cameras that are bought cost.
    Price,
    /// How many cameras have to be put up: those that hang there already cost no way up the ladder.
    Trips,
    /// As many promises as can be are kept by two that don't fail together; then how many cameras there are.
    BackUp,
}

/// What is chosen from.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FewestAmong {
    /// The cameras of the file as they are aimed.
    Present,
    /// Those, and every model at every surveyed spot.
    #[default]
    Spots,
}

/// The answer.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Fewest {
    /// What counted.
    pub by: FewestBy,
    /// How many cameras it takes.
    pub cameras: usize,
    /// What no set can go under: cameras, or money where it is sought by price.
    pub bound: f64,
    /// Whether nothing is better: the search was carried to its end.
    pub proved: bool,
    /// The ids of its cameras, as the patch leaves them.
    pub keep: Vec<String>,
    /// The ids of the targets that it keeps.
    pub kept: Vec<String>,
    /// What cannot be kept.
    pub cannot: Vec<Cannot>,
    /// The change that makes the site of it.
    pub patch: Vec<PatchOp>,
    /// Cameras that have to be put up.
    pub new: usize,
    /// What those that are bought cost; null where not each has a price.
    #[schema(required)]
    pub price: Option<f64>,
    /// The models that have no price and are in it.
    pub unpriced: Vec<String>,
    /// How many promises two keep that don't fail together.
    pub backed_up: usize,
    /// How many cameras were judged.
    pub tried: usize,
}

/// A promise that none keeps.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Cannot {
    /// The target's id.
    pub target: String,
    /// Why, in words.
    pub why: String,
}

/// How much work it may be.
pub struct Waiting<'a> {
    /// Whether somebody still waits.
    pub patience: &'a Patience<'a>,
    /// Is told how much of it is done, 0 to 1.
    pub progress: &'a dyn Fn(f64),
}

/// So many spots are tried.
const MOST_SPOTS: usize = 200;
/// Up to so many cameras to choose from the best answer is proved; beyond it the search may end earlier and says so.
const PROVED_UP_TO: usize = 12;
/// So many nodes are looked at where it need not be proved.
const MOST_NODES: u64 = 400;

/// The fewest cameras of a site for each of some wishes.
///
/// # Errors
/// When it is asked by price and one of those to choose from has none; when nobody waits any more.
pub fn fewest(
    session: &Session,
    among: FewestAmong,
    wishes: &[FewestBy],
    units: Units,
    waiting: &Waiting,
) -> Result<Vec<Fewest>, Fault> {
    let bench = Bench::of(session, among, units, waiting)?;
    let keepers = Keepers { site: session.site(), choices: bench.choices };
    let bench = Bench { choices: vec![], ..bench };
    wishes.iter().map(|by| bench.answer(&keepers, *by, waiting)).collect()
}

/// All that there is to choose from.
struct Bench<'a> {
    session: &'a Session,
    among: FewestAmong,
    units: Units,
    choices: Vec<Vec<Looking>>,
    /// The camera of each choice, and whether the file has it.
    cameras: Vec<(CameraFile, bool)>,
    exclusive: Vec<Vec<usize>>,
    /// How near the best that was tried came to each target.
    best: Vec<Option<(Verdict, f64, CameraFile)>>,
    tried: usize,
}

impl<'a> Bench<'a> {
    fn of(session: &'a Session, among: FewestAmong, units: Units, waiting: &Waiting) -> Result<Bench<'a>, Fault> {
        let mut bench = Bench {
            session,
            among,
            units,
            choices: vec![],
            cameras: vec![],
            exclusive: vec![],
            best: vec![],
            tried: 0,
        };
        for (camera, heads) in present(session) {
            bench.choices.push(heads);
            bench.cameras.push((camera.clone(), true));
        }
        bench.tried = bench.cameras.len();
        if among == FewestAmong::Spots {
            bench.hang(&site_models(session)?, waiting)?;
        }
        Ok(bench)
    }

    /// What might hang at the surveyed spots.
    fn hang(&mut self, models: &[Model], waiting: &Waiting) -> Result<(), Fault> {
        let site = self.session.site();
        let file = site.file();
        // Where a camera stays that was there before none other hangs.
        let stays = |spot: &Spot| {
            file.cameras.iter().any(|camera| {
                matches!(camera.existing, Some(Existing::Stays | Existing::Reused)) && hangs_at(camera, spot)
            })
        };
        let spots: Vec<&Spot> = file.spots.iter().filter(|spot| !stays(spot)).take(MOST_SPOTS).collect();
        let Candidates { found, best, tried } = candidates(site, &spots, models, waiting.patience, waiting.progress)?;
        self.exclusive = spots
            .iter()
            .map(|spot| (0..self.cameras.len()).filter(|place| hangs_at(&self.cameras[*place].0, spot)).collect())
            .collect();
        let first = file.cameras.len();
        for (place, candidate) in found.into_iter().enumerate() {
            self.exclusive[candidate.spot].push(self.choices.len());
            let Looking { head, view } = candidate.looking;
            self.choices.push(vec![Looking { head: head.at_place(first + place), view }]);
            self.cameras.push((candidate.camera, false));
        }
        (self.best, self.tried) = (best, self.tried + tried);
        Ok(())
    }

    fn answer(&self, keepers: &Keepers, by: FewestBy, waiting: &Waiting) -> Result<Fewest, Fault> {
        let costs = self.costs(by)?;
        let targets = 0..keepers.site.targets().len();
        let demands: Vec<Demand> = targets.clone().map(|target| keepers.demand(target, Verdict::Kept)).collect();
        let can = |target: &usize| self.can_keep(keepers, &demands[*target]);
        let required: Vec<usize> = targets.filter(can).collect();
        let found = self.search(keepers, (demands, required), costs, by, waiting)?;
        Ok(self.told(keepers, by, &found))
    }

    /// Whether all that there is to choose from together keep a promise. Of one spot only one hangs, which the search finds out.
    fn can_keep(&self, keepers: &Keepers, demand: &Demand) -> bool {
        // Cameras that the file has are asked all together: that is what "keeps" means of them.
        if self.among == FewestAmong::Present {
            return keepers.keep(demand.target, demand.level, &keepers.all());
        }
        let groups = keepers.fails_with();
        let mut spots_of: Vec<usize> = groups.clone();
        for (spot, set) in self.exclusive.iter().enumerate() {
            set.iter().for_each(|choice| spots_of[*choice] = self.cameras.len() + spot);
        }
        demand.rows.iter().all(|row| different(row.iter().map(|choice| spots_of[*choice])) >= demand.wanted)
    }

    /// The best set. What turns out not to go together is given up, the least important first.
    fn search(
        &self,
        keepers: &Keepers,
        (mut demands, required): (Vec<Demand>, Vec<usize>),
        costs: Vec<f64>,
        by: FewestBy,
        waiting: &Waiting,
    ) -> Result<Found, Fault> {
        let mut goal = Goal { required: required.clone(), ..Goal::default() };
        if by == FewestBy::BackUp {
            for target in &required {
                let twice = keepers.demand(*target, Verdict::Kept);
                let twice = Demand { wanted: twice.wanted + 1, is_promise: false, ..twice };
                if self.can_keep_rows(keepers, &twice) {
                    goal.wished.push((demands.len(), 1.0));
                    demands.push(twice);
                }
            }
        }
        let most_nodes = (self.cameras.len() > PROVED_UP_TO).then_some(MOST_NODES);
        let cover = Cover { keepers, demands: &demands, costs, exclusive: self.exclusive.clone(), most_nodes };
        match cover.best(&goal, waiting.patience) {
            Ok(found) => Ok(found),
            // Not all of it goes together: as much as can be, by importance.
            Err(_) if !waiting.patience.is_over() && !required.is_empty() => {
                let wished = required.iter().map(|target| (*target, weight(keepers.site.file(), *target)));
                let most = Goal { wished: wished.collect(), ..Goal::default() };
                cover.best(&most, waiting.patience)
            }
            Err(fault) => Err(fault),
        }
    }

    fn can_keep_rows(&self, keepers: &Keepers, demand: &Demand) -> bool {
        let groups = keepers.fails_with();
        demand.rows.iter().all(|row| different(row.iter().map(|choice| groups[*choice])) >= demand.wanted)
    }

    /// What each choice costs.
    fn costs(&self, by: FewestBy) -> Result<Vec<f64>, Fault> {
        let of = |(camera, present): &(CameraFile, bool)| match by {
            // Of two as good the one that is there already.
            FewestBy::Count | FewestBy::BackUp => Ok(if *present { 1.0 - AS_IT_IS } else { 1.0 }),
            FewestBy::Trips => Ok(if camera.is_bought() { 1.0 } else { AS_IT_IS }),
            FewestBy::Price if !camera.is_bought() => Ok(0.0),
            FewestBy::Price => match price(self.session.site().file(), &camera.model) {
                Some(price) => Ok(price),
                // Of all that there is on the market only what has a price can be the cheapest.
                None if self.among == FewestAmong::Spots => Ok(f64::INFINITY),
                None => {
                    let says = format!("{} has no price: enter it, or ask by count", camera.model.name);
                    Err(Fault::new("cameras", says))
                }
            },
        };
        let costs = self.cameras.iter().map(of).collect::<Result<Vec<f64>, Fault>>()?;
        if !costs.is_empty() && costs.iter().all(|cost| cost.is_infinite()) {
            return Err(Fault::new("cameras", "no model has a price yet: enter prices, or ask by count"));
        }
        Ok(costs)
    }

    fn told(&self, keepers: &Keepers, by: FewestBy, found: &Found) -> Fewest {
        let site = keepers.site;
        let file = site.file();
        let chosen = |place: usize| found.chosen.contains(&place);
        let out: Vec<String> = self
            .cameras
            .iter()
            .enumerate()
            .filter(|(place, (_, present))| *present && !chosen(*place))
            .map(|(_, (camera, _))| camera.id.clone())
            .collect();
        let mut patch = leave_out(file, &out);
        let mut ids: Vec<String> = file.cameras.iter().map(|camera| camera.id.clone()).collect();
        let mut keep: Vec<String> = Vec::new();
        for (camera, present) in found.chosen.iter().map(|place| &self.cameras[*place]) {
            if *present {
                keep.push(camera.id.clone());
                continue;
            }
            let id = fresh_id("c", ids.iter().map(String::as_str));
            let new = CameraFile { name: id.to_uppercase(), id: id.clone(), ..camera.clone() };
            patch.push(PatchOp { op: "add", path: "/cameras/-".to_owned(), value: Some(json!(new)) });
            ids.push(id.clone());
            keep.push(id);
        }
        let of_chosen = || found.chosen.iter().map(|place| &self.cameras[*place].0);
        let bought = || of_chosen().filter(|camera| camera.is_bought());
        let mut unpriced: Vec<String> = bought()
            .filter(|camera| price(file, &camera.model).is_none())
            .map(|camera| camera.model.name.clone())
            .collect();
        unpriced.sort();
        unpriced.dedup();
        let kept: Vec<usize> =
            (0..site.targets().len()).filter(|target| keepers.keep(*target, Verdict::Kept, &found.chosen)).collect();
        let lost = (0..site.targets().len()).filter(|target| !kept.contains(target));
        let twice = |target: &&usize| {
            let demand = keepers.demand(**target, Verdict::Kept);
            let groups = keepers.fails_with();
            let held = |row: &Vec<usize>| different(row.iter().filter(|c| chosen(**c)).map(|c| groups[*c]));
            demand.rows.iter().all(|row| held(row) > demand.wanted)
        };
        let costs = bought().map(|camera| price(file, &camera.model)).sum::<Option<f64>>();
        let bound = match by {
            FewestBy::Price => found.costs * (1.0 - found.gap),
            // Whole cameras: what is there already counts a little less only among equals.
            _ => (found.costs * (1.0 - found.gap) - 0.05).ceil().max(0.0),
        };
        Fewest {
            by,
            cameras: found.chosen.len(),
            bound,
            proved: found.gap == 0.0,
            keep,
            cannot: lost
                .map(|target| Cannot { target: site.targets()[target].id.clone(), why: self.why(target) })
                .collect(),
            backed_up: kept.iter().filter(twice).count(),
            kept: kept.iter().map(|target| site.targets()[*target].id.clone()).collect(),
            patch,
            new: bought().count(),
            price: costs,
            unpriced,
            tried: self.tried,
        }
    }

    /// Why nothing keeps a promise: what stands against the camera that came nearest.
    fn why(&self, target: usize) -> String {
        let file = self.session.site().file();
        let of = &file.targets[target];
        let Some(best) = self.best.get(target) else {
            let because = reasons(self.session, self.units).into_iter().find(|because| because.target == of.id);
            return because.and_then(|because| because.says).unwrap_or_else(|| "not all of it is kept".to_owned());
        };
        if file.spots.is_empty() {
            return "the survey has no spot yet".to_owned();
        }
        let Some((verdict, _, camera)) = best else {
            return "from no spot a camera has it in its picture".to_owned();
        };
        if *verdict == Verdict::Kept {
            return if of.heads_wanted > 1 {
                "there are not as many spots as cameras are wished for, or no overview beside it".to_owned()
            } else {
                "no camera keeps all of it, and the others do not go beside it".to_owned()
            };
        }
        let (targets, cameras) = (vec![of.clone()], vec![camera.clone()]);
        let alone = SiteFile { targets, cameras, variants: vec![], readings: vec![], ..file.clone() };
        let Ok(session) = Session::open(alone) else { return "nothing holds it".to_owned() };
        let line = session.evaluation().sight_lines.into_iter().next();
        let holds = line.and_then(|line| what_holds_back(&session, &line, self.units));
        let at = camera.spot.as_ref().and_then(|id| file.spots.iter().find(|spot| &spot.id == id));
        let where_at = at.map_or(String::new(), |spot| format!(" at {}", spot.name));
        format!(
            "nearest is {}{where_at}: {}",
            camera.model.name,
            holds.unwrap_or_else(|| "not all of it is kept".to_owned())
        )
    }
}

/// What is there already costs so much less, where all else is equal.
const AS_IT_IS: f64 = 1e-4;

/// What a promise weighs: one of an importance outweighs ten of the next.
pub(super) fn weight(file: &SiteFile, target: usize) -> f64 {
    let least = file.targets.iter().filter_map(|of| of.importance).min().unwrap_or(1);
    let step = file.targets[target].importance.map_or(4, |of| (of - least).min(4));
    10_f64.powi(4 - step as i32)
}

/// What a model costs: the price list goes before what the model carries.
pub(super) fn price(file: &SiteFile, model: &Model) -> Option<f64> {
    model_price(file.prices.as_ref(), model).ok().flatten().and_then(|price| price.to_f64())
}

/// The models to choose from: those of the file first, then the firm's own and those that ship.
fn site_models(session: &Session) -> Result<Vec<Model>, Fault> {
    let held = session.site().file().cameras.iter().map(|camera| camera.model.clone());
    let mut models: Vec<Model> = Vec::new();
    for model in held.chain(session.models()?) {
        if model.form.looks_one_way() && !models.iter().any(|known| known.name == model.name) {
            models.push(model);
        }
    }
    Ok(models)
}
