//! A session: a site under the hand. It holds what every head makes of every target, and after a change judges again only
//! what the change touches. Sight lines are described when they are asked for.

use crate::equipment::catalogue;
use crate::file::{Fault, HeadRef, Model, Question, SiteChange, SiteFile, Touched, model_faults};
use crate::judge::evaluation::{
    HeadView, TargetResult, describe_head, describe_heads, eye_around, head_named, seen_by, took_too_long, verdicts,
    view_within, viewer_of, within_reach,
};
use crate::judge::rules::masked;
use crate::judge::sight::Sight;
use crate::judge::sight_line::{Judged, describe, judge};
use crate::judge::{Evaluation, HeadResult, SightLine};
use crate::scene::{Eye, Solid};
use crate::site::{Head, Mask, Site, Target};
use crate::verdict::Verdict;
use crate::work::{Over, Patience};
use glam::{DVec2, DVec3};
use serde::Serialize;
use std::collections::HashMap;
use std::mem::take;
use std::sync::Arc;
use utoipa::ToSchema;

/// A site with what every head makes of every target.
///
/// ```
/// use bright_angle_core::{file::SiteFile, judge::Session};
/// let session = Session::open(SiteFile::empty("A yard")).unwrap();
/// assert!(session.summary().targets.is_empty());
/// ```
#[derive(Clone, Debug)]
pub struct Session {
    site: Site,
    /// What stands around each camera, by its id.
    eyes: HashMap<String, Eye>,
    /// What each head makes of each target, in the site's order.
    views: Vec<HeadView>,
    results: Vec<TargetResult>,
    /// The firm's own models, which ways and lines are found among beside those that ship.
    own: Arc<[Model]>,
}

/// What a change did.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Delta {
    /// The promises that stand differently now, or are new.
    pub targets: Vec<TargetResult>,
    /// How many sight lines were judged again.
    pub judged: usize,
    /// What the change touched, by ids.
    #[serde(skip)]
    #[schema(ignore)]
    pub touched: Touched,
    /// Boxes, m, in which something that blocks came, changed or went: their lower and upper corners.
    #[serde(skip)]
    #[schema(ignore)]
    pub boxes: Vec<(DVec3, DVec3)>,
}

/// A site in short: how each promise stands, and one number a head.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Summary {
    /// Each promise.
    pub targets: Vec<TargetResult>,
    /// Each head.
    pub heads: Vec<HeadSummary>,
}

/// A head in short.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct HeadSummary {
    /// The camera's id.
    pub camera: String,
    /// The head's id.
    pub head: String,
    /// The id of the preset or flattened view; null for its own aim.
    #[schema(required)]
    pub view: Option<String>,
    /// How many promises it keeps by itself.
    pub keeps: usize,
}

/// What a head is worth to one target.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct HeadVerdict {
    /// The camera's id.
    pub camera: String,
    /// The head's id.
    pub head: String,
    /// The id of the preset or flattened view; null for its own aim.
    #[schema(required)]
    pub view: Option<String>,
    /// The verdict of its sight line; null where the target is behind it.
    #[schema(required)]
    pub verdict: Option<Verdict>,
}

/// What was known before a change.
#[derive(Default)]
struct Before {
    /// Where each view of a head stood.
    heads: HashMap<HeadRef, usize>,
    /// Where each target stood, by id.
    targets: HashMap<String, usize>,
    views: Vec<HeadView>,
    /// Plan boxes in which something that blocks came, changed or went.
    boxes: Vec<(DVec3, DVec3)>,
}

impl Session {
    /// Opens a session on a file.
    ///
    /// # Errors
    /// The faults of the file, each with its place.
    pub fn open(file: SiteFile) -> Result<Session, Vec<Fault>> {
        Site::from_file(file).map(Session::on)
    }

    /// Opens a session on a site.
    pub fn on(site: Site) -> Session {
        let mut session = Session::unjudged(site);
        session.judge_again(&Touched::everything(), Before::default());
        session.results = session.promises();
        session
    }

    /// Opens a session on a site, if it is not too large for somebody's patience.
    ///
    /// # Errors
    /// Says why it is too large.
    pub fn within(site: Site, patience: &Patience) -> Result<Session, Over> {
        within_reach(&site)?;
        let mut session = Session::unjudged(site);
        for head in session.site.heads() {
            let eye = eye_of(&mut session.eyes, &session.site, head);
            session.views.push(view_within(&session.site, head, eye, patience));
            patience.check(|| took_too_long(&session.site))?;
        }
        session.results = session.promises();
        Ok(session)
    }

    fn unjudged(site: Site) -> Session {
        Session { site, eyes: HashMap::new(), views: vec![], results: vec![], own: Arc::new([]) }
    }

    /// The site as it is now.
    pub fn site(&self) -> &Site {
        &self.site
    }

    /// Takes the firm's own models, of which those are left out that are none.
    pub fn keep_own(&mut self, own: Vec<Model>) {
        self.own = own.into_iter().filter(|model| model_faults("own", model).is_empty()).collect();
    }

    /// The firm's own models.
    pub fn own(&self) -> &[Model] {
        &self.own
    }

    /// The models that there are to choose from, the firm's own first.
    ///
    /// # Errors
    /// As those that ship.
    pub fn models(&self) -> Result<Vec<Model>, Fault> {
        catalogue::with_own(&self.own)
    }

    /// Makes a change. On faults nothing is changed.
    ///
    /// # Errors
    /// The faults of the file that would come of it.
    pub fn apply(&mut self, change: SiteChange) -> Result<Delta, Vec<Fault>> {
        let mut before = Before::of(&self.site);
        let boxes_before = change.obstacles.is_some().then(|| blocking_boxes(&self.site));
        let touched = self.site.change(change)?;
        if touched.all {
            // Another season is another scene.
            self.eyes.clear();
        }
        if let Some(boxes_before) = boxes_before {
            // Eyes name solids by their place in the list.
            self.eyes.clear();
            let boxes_after = blocking_boxes(&self.site);
            let of_touched = |boxes: HashMap<String, (DVec3, DVec3)>| -> Vec<(DVec3, DVec3)> {
                boxes.into_iter().filter(|(id, _)| touched.obstacles.contains(id)).map(|(_, bounds)| bounds).collect()
            };
            before.boxes = [of_touched(boxes_before), of_touched(boxes_after)].concat();
        }
        before.views = take(&mut self.views);
        let boxes = before.boxes.clone();
        let judged = self.judge_again(&touched, before);
        let results = self.promises();
        let held: HashMap<&str, &TargetResult> = self.results.iter().map(|r| (r.target.as_str(), r)).collect();
        let targets = results.iter().filter(|new| held.get(new.target.as_str()) != Some(new)).cloned().collect();
        self.results = results;
        Ok(Delta { targets, judged, touched, boxes })
    }

    /// Judges what a change touched; answers how many sight lines that were.
    fn judge_again(&mut self, touched: &Touched, mut before: Before) -> usize {
        self.eyes.retain(|camera, _| !touched.cameras.contains(camera));
        let mut judged = 0;
        let mut views = Vec::with_capacity(self.site.heads().len());
        for head in self.site.heads() {
            let changed = touched.all || touched.cameras.contains(head.camera_id());
            let held = if changed { None } else { before.take(head) };
            let view = match held {
                Some(view) => self.follow(head, view, touched, &before, &mut judged),
                None => {
                    judged += self.site.targets().len();
                    let eye = eye_of(&mut self.eyes, &self.site, head);
                    let viewer = viewer_of(&self.site, head, eye);
                    HeadView { targets: self.site.targets().iter().map(|target| judge(viewer, target)).collect() }
                }
            };
            views.push(view);
        }
        self.views = views;
        judged
    }

    /// The view of a head that did not change itself.
    fn follow(
        &self,
        head: &Head,
        mut view: HeadView,
        touched: &Touched,
        before: &Before,
        judged: &mut usize,
    ) -> HeadView {
        let eye = OnceEye { site: &self.site, head, eye: std::cell::OnceCell::new() };
        let mut anew = |target: &Target| {
            *judged += 1;
            judge(viewer_of(&self.site, head, eye.get(&self.eyes)), target)
        };
        let targets = self.site.targets().iter().map(|target| {
            let held = before.targets.get(&target.id).filter(|_| !touched.targets.contains(&target.id));
            match held {
                Some(place) if !before.boxes.iter().any(|bounds| may_pass(&self.site, head, target, bounds)) => {
                    take(&mut view.targets[*place])
                }
                _ => anew(target),
            }
        });
        HeadView { targets: targets.collect() }
    }

    fn promises(&self) -> Vec<TargetResult> {
        verdicts(&self.site, &seen_by(&self.site, &self.views))
    }

    /// What each head makes of each target, in the site's order.
    pub(crate) fn views(&self) -> &[HeadView] {
        &self.views
    }

    /// How each promise stands.
    pub fn results(&self) -> &[TargetResult] {
        &self.results
    }

    /// How each promise stands, and one number a head.
    pub fn summary(&self) -> Summary {
        let heads = self.site.heads().iter().zip(&self.views).map(|(head, view)| HeadSummary {
            camera: head.camera_id().to_owned(),
            head: head.id().to_owned(),
            view: head.view_id().map(str::to_owned),
            keeps: view.targets.iter().filter(|judged| verdict_of(judged) == Some(Verdict::Kept)).count(),
        });
        Summary { targets: self.results.clone(), heads: heads.collect() }
    }

    /// A sight line in detail; `None` when nothing of the target is in front of the head.
    ///
    /// # Errors
    /// Names the id that the site does not have.
    pub fn line(&self, line: &Question) -> Result<Option<SightLine>, Fault> {
        let head = self.site.view_place(&line.camera, &line.head, line.view.as_deref())?;
        let target = self.site.target_place(&line.target)?;
        Ok(self.described(head, target))
    }

    /// A head by itself.
    ///
    /// # Errors
    /// Names the id that the site does not have.
    pub fn head(&self, head: &HeadRef) -> Result<HeadResult, Fault> {
        Ok(describe_head(&self.site, &head_named(&self.site, head)?))
    }

    /// What each head is worth to a target.
    ///
    /// # Errors
    /// Names the id that the site does not have.
    pub fn heads_of(&self, target: &str) -> Result<Vec<HeadVerdict>, Fault> {
        let place = self.site.target_place(target)?;
        let verdict = |(head, view): (&Head, &HeadView)| HeadVerdict {
            camera: head.camera_id().to_owned(),
            head: head.id().to_owned(),
            view: head.view_id().map(str::to_owned),
            verdict: verdict_of(&view.targets[place]),
        };
        Ok(self.site.heads().iter().zip(&self.views).map(verdict).collect())
    }

    /// What a mask of a head alone does to a target: the worst over the samples that it has in its picture.
    pub(crate) fn behind(&self, head: &Head, target: &Target, mask: &Mask) -> Verdict {
        let eye = OnceEye { site: &self.site, head, eye: std::cell::OnceCell::new() };
        let viewer = viewer_of(&self.site, head, eye.get(&self.eyes));
        let samples = target.samples.iter().filter(|point| head.in_front(**point) == Some(true));
        let verdicts = samples.map(|point| masked::by(&Sight::new(viewer, target, *point, true), mask));
        verdicts.max().unwrap_or(Verdict::Kept)
    }

    /// Everything described: what [`evaluate`](crate::evaluate) says of the same site.
    pub fn evaluation(&self) -> Evaluation {
        let heads = self.site.heads();
        let pairs = (0..heads.len()).flat_map(|head| (0..self.site.targets().len()).map(move |target| (head, target)));
        Evaluation {
            heads: describe_heads(&self.site),
            sight_lines: pairs.filter_map(|(head, target)| self.described(head, target)).collect(),
            targets: self.results.clone(),
        }
    }

    fn described(&self, head: usize, target: usize) -> Option<SightLine> {
        let judged = &self.views[head].targets[target];
        let head = &self.site.heads()[head];
        let eye = OnceEye { site: &self.site, head, eye: std::cell::OnceCell::new() };
        describe(viewer_of(&self.site, head, eye.get(&self.eyes)), &self.site.targets()[target], judged)
    }
}

/// The eye of a head that may have to be made, once, and only if it is asked for.
struct OnceEye<'a> {
    site: &'a Site,
    head: &'a Head,
    eye: std::cell::OnceCell<Eye>,
}

impl OnceEye<'_> {
    fn get<'b>(&'b self, held: &'b HashMap<String, Eye>) -> &'b Eye {
        held.get(self.head.camera_id()).unwrap_or_else(|| self.eye.get_or_init(|| eye_around(self.site, self.head)))
    }
}

/// The eye of a head, kept for the next time.
fn eye_of<'a>(eyes: &'a mut HashMap<String, Eye>, site: &Site, head: &Head) -> &'a Eye {
    eyes.entry(head.camera_id().to_owned()).or_insert_with(|| eye_around(site, head))
}

fn verdict_of(judged: &Judged) -> Option<Verdict> {
    judged.deciding.map(|deciding| deciding.verdict)
}

/// The boxes of all solids by id: see-through ones hide something once several stand in series.
fn blocking_boxes(site: &Site) -> HashMap<String, (DVec3, DVec3)> {
    let blocking = site.scene().solids().iter();
    let bounds = |solid: &Solid| {
        let (lower, upper) = solid.bounds();
        (lower.extend(solid.base()), upper.extend(solid.top()))
    };
    let mut boxes: HashMap<String, (DVec3, DVec3)> = HashMap::new();
    for solid in blocking {
        let (lower, upper) = bounds(solid);
        // A tree is two solids of one name.
        let whole = boxes.entry(solid.id().to_owned()).or_insert((lower, upper));
        *whole = (whole.0.min(lower), whole.1.max(upper));
    }
    boxes
}

/// Whether a line from a head to some sample of a target, or to where it may be, may pass over a box of the plan.
fn may_pass(site: &Site, head: &Head, target: &Target, (lower, upper): &(DVec3, DVec3)) -> bool {
    let (lower, upper) = (lower.truncate(), upper.truncate());
    let (from, to) = (head.position().truncate(), target.middle.truncate());
    let (middle, half) = ((from + to) / 2.0, (to - from) / 2.0);
    // All that is looked at lies within the target's reach of its middle, and what counts so far around that.
    let reach = target.reach_with_way();
    let farthest = from.distance(to) + reach;
    let vehicle = target.overview.as_ref().map_or(0.0, |vehicle| vehicle.body.half);
    let around = site.rules().uncertainties.across(&target.distance, farthest) + target.body.half.max(vehicle);
    let size = (upper - lower) / 2.0 + DVec2::splat(reach + around + 0.01);
    let apart = (lower + upper) / 2.0 - middle;
    apart.x.abs() <= size.x + half.x.abs()
        && apart.y.abs() <= size.y + half.y.abs()
        && apart.perp_dot(half).abs() <= size.x * half.y.abs() + size.y * half.x.abs() + 1e-9
}

impl Before {
    fn of(site: &Site) -> Self {
        let name = |(place, head): (usize, &Head)| (head.name(), place);
        Before {
            heads: site.heads().iter().enumerate().map(name).collect(),
            targets: site.targets().iter().enumerate().map(|(place, target)| (target.id.clone(), place)).collect(),
            ..Before::default()
        }
    }

    fn take(&mut self, head: &Head) -> Option<HeadView> {
        let place = self.heads.remove(&head.name())?;
        Some(take(&mut self.views[place]))
    }
}
