//! Options of one design: all of its promises, the important ones, one camera fewer; each with what falls away, in plain words.

use super::cover::{Cover, Found, Goal};
use super::fewest::{price, weight};
use super::keepers::{Demand, Keepers, present};
use super::leave_out::{leave_out, without};
use crate::file::{Fault, PatchOp, SiteFile, Subject, TargetFile, Task};
use crate::judge::Session;
use crate::verdict::Verdict;
use crate::work::Patience;
use serde::Serialize;
use std::collections::HashMap;
use utoipa::ToSchema;

/// Which option it is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum OptionKind {
    /// All that the design promises, with no camera more than it takes.
    All,
    /// The important promises.
    Important,
    /// One camera fewer than all of it takes.
    OneFewer,
    /// Somebody's own choice.
    Own,
}

impl OptionKind {
    /// What it is called.
    pub fn name(self) -> &'static str {
        match self {
            OptionKind::All => "All promises",
            OptionKind::Important => "The important ones",
            OptionKind::OneFewer => "One camera fewer",
            OptionKind::Own => "Your own choice",
        }
    }
}

/// An option.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Offered {
    /// Which.
    pub kind: OptionKind,
    /// What it is called.
    pub name: String,
    /// The ids of its cameras.
    pub cameras: Vec<String>,
    /// The ids of those that are left out.
    pub left_out: Vec<String>,
    /// Promises kept.
    pub kept: usize,
    /// Promises tight.
    pub tight: usize,
    /// Promises broken or unknown.
    pub broken: usize,
    /// What falls away beside the whole design, the most important first.
    pub falls_away: Vec<FallsAway>,
    /// Whether nothing is better: the search was carried to its end.
    pub proved: bool,
    /// How far from the best it may be, a share; 0 where it is proved.
    pub gap: f64,
    /// The change that makes the site of it.
    pub patch: Vec<PatchOp>,
}

/// A promise that stands worse.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct FallsAway {
    /// The target's id.
    pub target: String,
    /// What it is called.
    pub name: String,
    /// How it stands with the whole design.
    pub before: Verdict,
    /// How it stands now.
    pub after: Verdict,
    /// What that means, in a sentence.
    pub says: String,
}

/// Up to so many cameras the best answer is proved.
const PROVED_UP_TO: usize = 12;
/// So many nodes are looked at where it need not be proved.
const MOST_NODES: u64 = 2_000;

/// The three options of a design.
///
/// # Errors
/// When nobody waits any more.
pub fn options(session: &Session, patience: &Patience) -> Result<Vec<Offered>, Fault> {
    let bench = Bench::of(session);
    let all = bench.search(&Goal { required: bench.standing(), ..Goal::default() }, patience)?;
    let important = bench.search(&Goal { required: bench.important(), ..Goal::default() }, patience)?;
    let mut options = vec![bench.told(OptionKind::All, &all)?, bench.told(OptionKind::Important, &important)?];
    if all.chosen.len() > 1 {
        let wished =
            bench.standing().into_iter().map(|demand| (demand, weight(bench.file(), bench.demands[demand].target)));
        let most = Some(all.chosen.len() - 1);
        let fewer = bench.search(&Goal { wished: wished.collect(), most, ..Goal::default() }, patience)?;
        options.push(bench.told(OptionKind::OneFewer, &fewer)?);
    }
    Ok(options)
}

/// Somebody's own choice of a design's cameras.
///
/// # Errors
/// Names a camera that the site does not have.
pub fn own_option(session: &Session, cameras: &[String]) -> Result<Offered, Fault> {
    let bench = Bench::of(session);
    let place = |id: &String| {
        let found = bench.ids.iter().position(|held| held == id);
        found.ok_or_else(|| Fault::new("cameras", format!("the site has no camera \"{id}\" that stays")))
    };
    let mut chosen = cameras.iter().map(place).collect::<Result<Vec<usize>, Fault>>()?;
    chosen.sort_unstable();
    chosen.dedup();
    bench.told(OptionKind::Own, &Found { chosen, met: vec![], costs: 0.0, gap: 0.0 })
}

struct Bench<'a> {
    session: &'a Session,
    keepers: Keepers<'a>,
    /// The ids of the choices.
    ids: Vec<String>,
    demands: Vec<Demand>,
    costs: Vec<f64>,
}

impl<'a> Bench<'a> {
    fn of(session: &'a Session) -> Bench<'a> {
        let site = session.site();
        let (mut choices, mut ids, mut costs) = (vec![], vec![], vec![]);
        let cameras = present(session);
        let dearest = cameras.iter().filter_map(|(camera, _)| price(site.file(), &camera.model)).fold(0.0, f64::max);
        for (camera, heads) in cameras {
            choices.push(heads);
            ids.push(camera.id.clone());
            // Gear that is there is free. Else how many, and of equals what costs least.
            let price = price(site.file(), &camera.model).unwrap_or(dearest) / f64::max(dearest, 1.0);
            costs.push(if camera.is_bought() { 1.0 + 0.01 * price } else { 0.0 });
        }
        let keepers = Keepers { site, choices };
        let demands =
            (0..site.targets().len()).map(|target| keepers.demand(target, session.results()[target].verdict)).collect();
        Bench { session, keepers, ids, demands, costs }
    }

    fn file(&self) -> &SiteFile {
        self.session.site().file()
    }

    /// The promises that are kept, or hold if all goes well: none of them stands worse.
    fn standing(&self) -> Vec<usize> {
        (0..self.demands.len()).filter(|demand| self.demands[*demand].level <= Verdict::Tight).collect()
    }

    /// Of these the important ones: those of the first importance that is stated; where none is, those that ask for most.
    fn important(&self) -> Vec<usize> {
        let of = |demand: &usize| &self.file().targets[self.demands[*demand].target];
        let standing = self.standing();
        match standing.iter().filter_map(|demand| of(demand).importance).min() {
            Some(least) => standing.into_iter().filter(|demand| of(demand).importance == Some(least)).collect(),
            None => {
                let asks = |demand: &usize| (of(demand).task.reads_plates(), rank(of(demand).task));
                let most = standing.iter().map(asks).max();
                standing.into_iter().filter(|demand| Some(asks(demand)) == most).collect()
            }
        }
    }

    fn search(&self, goal: &Goal, patience: &Patience) -> Result<Found, Fault> {
        let most_nodes = (self.ids.len() > PROVED_UP_TO).then_some(MOST_NODES);
        let (keepers, demands, costs) = (&self.keepers, &self.demands[..], self.costs.clone());
        let free: Vec<usize> = (0..costs.len()).filter(|choice| costs[*choice] == 0.0).collect();
        let cover = Cover { keepers, demands, costs, exclusive: vec![], most_nodes };
        let mut found = cover.best(goal, patience)?;
        // What is there stays: it costs nothing.
        if goal.most.is_none() {
            found.chosen.extend(free);
            found.chosen.sort_unstable();
            found.chosen.dedup();
        }
        Ok(found)
    }

    fn told(&self, kind: OptionKind, found: &Found) -> Result<Offered, Fault> {
        let results: Vec<Verdict> =
            (0..self.demands.len()).map(|target| self.keepers.result(target, &found.chosen).verdict).collect();
        let count = |holds: &dyn Fn(Verdict) -> bool| results.iter().filter(|verdict| holds(**verdict)).count();
        let (kept_ids, left_out): (Vec<usize>, Vec<usize>) =
            (0..self.ids.len()).partition(|choice| found.chosen.contains(choice));
        let ids = |places: &[usize]| places.iter().map(|place| self.ids[*place].clone()).collect::<Vec<String>>();
        let left = ids(&left_out);
        Ok(Offered {
            kind,
            name: kind.name().to_owned(),
            cameras: ids(&kept_ids),
            kept: count(&|verdict| verdict == Verdict::Kept),
            tight: count(&|verdict| verdict == Verdict::Tight),
            broken: count(&|verdict| verdict > Verdict::Tight),
            falls_away: self.falls_away(&results, &left_out)?,
            proved: found.gap == 0.0,
            gap: found.gap,
            patch: leave_out(self.file(), &left),
            left_out: left,
        })
    }

    fn falls_away(&self, after: &[Verdict], left_out: &[usize]) -> Result<Vec<FallsAway>, Fault> {
        let file = self.file();
        let worse: Vec<usize> =
            (0..after.len()).filter(|target| after[*target] > self.demands[*target].level).collect();
        let left: Vec<String> = left_out.iter().map(|place| self.ids[*place].clone()).collect();
        let still = still_done(&without(file, &left), &worse)?;
        let mut found: Vec<(f64, FallsAway)> = worse
            .iter()
            .map(|target| {
                let of = &file.targets[*target];
                let (before, now) = (self.demands[*target].level, after[*target]);
                let says = in_a_sentence(&self.without_whom(*target, left_out), of, now, still.get(target).copied());
                (
                    weight(file, *target),
                    FallsAway { target: of.id.clone(), name: of.name.clone(), before, after: now, says },
                )
            })
            .collect();
        found.sort_by(|a, b| b.0.total_cmp(&a.0));
        Ok(found.into_iter().map(|(_, falls)| falls).collect())
    }

    /// The names of the cameras that are left out and had to do with a promise.
    fn without_whom(&self, target: usize, left_out: &[usize]) -> String {
        let concerned = &self.demands[target].concerned;
        let name = |place: &usize| {
            let camera = self.file().cameras.iter().find(|camera| camera.id == self.ids[*place]);
            camera.map_or(String::new(), |camera| camera.name.clone())
        };
        let names: Vec<String> = left_out.iter().filter(|place| concerned.contains(place)).map(name).collect();
        match names.as_slice() {
            [] => "Without them".to_owned(),
            [one] => format!("Without {one}"),
            [first @ .., last] => format!("Without {} and {last}", first.join(", ")),
        }
    }
}

/// How much a task asks for.
fn rank(task: Task) -> usize {
    Task::ALL.iter().position(|other| *other == task).unwrap_or(0)
}

/// What is still done at some targets: of all that asks for less what asks for most and is kept.
fn still_done(file: &SiteFile, targets: &[usize]) -> Result<HashMap<usize, Task>, Fault> {
    let mut asked: Vec<(usize, Task)> = Vec::new();
    let mut lower: Vec<TargetFile> = Vec::new();
    for place in targets {
        let of = &file.targets[*place];
        let plate = of.task.reads_plates();
        let tasks = Task::ALL.into_iter().filter(|task| {
            let less = if plate { rank(*task) <= rank(Task::Recognise) } else { rank(*task) < rank(of.task) };
            let alone = *task == of.task && of.heads_wanted > 1;
            (less && !task.reads_plates()) || alone
        });
        for task in tasks {
            let id = format!("still{}", lower.len());
            let plate = plate && task != of.task;
            let subject = if plate { Subject::Vehicle } else { of.subject };
            let plain = TargetFile { id, subject, task, needs_px_per_m: None, heads_wanted: 1, ..of.clone() };
            lower.push(if plate { TargetFile { size_m: None, ..plain } } else { plain });
            asked.push((*place, task));
        }
    }
    let lower = SiteFile { targets: lower, readings: vec![], variants: vec![], agreements: vec![], ..file.clone() };
    let session =
        Session::open(lower).map_err(|faults| faults.into_iter().next().unwrap_or_else(|| Fault::new("", "")))?;
    let mut still: HashMap<usize, Task> = HashMap::new();
    for ((place, task), result) in asked.into_iter().zip(session.results()) {
        if result.verdict == Verdict::Kept && still.get(&place).is_none_or(|held| rank(*held) < rank(task)) {
            still.insert(place, task);
        }
    }
    Ok(still)
}

/// What a task is called when it is done.
fn done(task: Task) -> &'static str {
    match task {
        Task::Monitor => "watched from afar",
        Task::Detect => "watched so that somebody is noticed",
        Task::Observe => "observed",
        Task::Recognise => "seen well enough to recognise somebody known",
        Task::Identify => "seen well enough to identify a stranger",
        Task::Inspect => "seen in every detail",
        Task::Read | Task::ReadByEye => "read",
    }
}

/// What became of a promise, in a sentence.
fn in_a_sentence(without: &str, of: &TargetFile, now: Verdict, still: Option<Task>) -> String {
    let name = &of.name;
    if now == Verdict::Tight {
        return format!("{without} {name} holds only if all goes well");
    }
    if still == Some(of.task) {
        return format!("{without} {name} has fewer cameras than were wished for");
    }
    match (of.task.reads_plates(), still) {
        (true, Some(task)) => format!("{without} no plate is read at {name}; the vehicle is {}", done(task)),
        (true, None) => format!("{without} no plate is read at {name}"),
        (false, Some(task)) => format!("{without} {name} is only {}", done(task)),
        (false, None) => format!("{without} {name} is not seen well enough for anything"),
    }
}
