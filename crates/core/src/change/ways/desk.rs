//! A sight line under the hand: the site, and which part of it may change.

use super::rank::{Rank, compare_sites, kept_twice};
use super::way::Effect;
use crate::change::forms::takes_aim;
use crate::file::{CameraFile, Fault, Question, Which};
use crate::judge::Session;
use crate::judge::evaluation::{HeadView, Seen, eye_around, seen_by, verdicts, view, viewer_of};
use crate::judge::sight::Viewer;
use crate::judge::sight_line::keeps;
use crate::scene::Eye;
use crate::site::{Head, Site, Target};
use crate::verdict::Verdict;
use crate::work::Patience;
use std::cell::Cell;

/// How many samples the search for ways looks at in all: a third of a second's work on a large site.
const MOST_LOOKS: usize = 120_000;
/// How much of it one search may take, so that the others have their turn.
const A_SEARCH: usize = 12_000;
/// How many samples of the whole site cost as much as a look at one in the picture.
const OUT_OF_PICTURE: usize = 4;
/// So many lamps cost as much as a look at a sample.
const LAMPS_A_LOOK: usize = 25;
/// What the mask of a private place costs, in looks: some thousand rays.
const MASK_LOOKS: usize = 60;
/// What making an eye for another place costs, in looks.
const EYE_LOOKS: usize = 12;

/// The work that the search may still do.
pub struct Budget<'a> {
    patience: &'a Patience<'a>,
    left: Cell<usize>,
    search: Cell<usize>,
    spent: Cell<bool>,
}

impl<'a> Budget<'a> {
    /// The work that is allowed, while somebody waits for it.
    pub fn within(patience: &'a Patience<'a>) -> Self {
        Budget { patience, left: Cell::new(MOST_LOOKS), search: Cell::new(A_SEARCH), spent: Cell::new(false) }
    }
}

impl Budget<'_> {
    /// Begins another search.
    pub fn next_search(&self) {
        self.search.set(A_SEARCH);
    }

    /// Whether so many looks can still be paid; pays them.
    pub fn pay(&self, looks: usize) -> bool {
        let can = self.left.get().min(self.search.get()) >= looks && !self.patience.is_over();
        if can {
            self.left.set(self.left.get() - looks);
            self.search.set(self.search.get() - looks);
        } else {
            self.spent.set(true);
        }
        can
    }

    /// The same for what belongs to no single search.
    pub fn pay_whole(&self, looks: usize) -> bool {
        let search = self.search.replace(usize::MAX);
        let can = self.pay(looks);
        self.search.set(search);
        can
    }

    /// Whether something was not tried for want of it.
    pub fn is_spent(&self) -> bool {
        self.spent.get()
    }
}

/// A sight line, and the camera that may change.
pub struct Desk<'a> {
    pub site: &'a Site,
    pub session: &'a Session,
    pub budget: &'a Budget<'a>,
    pub camera_place: usize,
    pub head_place: usize,
    /// Which of the head's views.
    pub which: Which,
    pub target_place: usize,
    /// What stands around the camera as it is.
    eye: Eye,
    /// The sample that failed last: most that fail once fail again.
    failing: Cell<usize>,
}

impl<'a> Desk<'a> {
    pub fn new(session: &'a Session, question: &Question, budget: &'a Budget<'a>) -> Result<Self, Fault> {
        let site = session.site();
        let head = site.view(&question.head_ref())?;
        let target_place = site.target_place(&question.target)?;
        Ok(Desk::of(session, head, target_place, budget))
    }

    /// The desk of a head and a target of the site.
    pub fn of(session: &'a Session, head: &Head, target_place: usize, budget: &'a Budget<'a>) -> Self {
        let site = session.site();
        let eye = eye_around(site, head);
        let (camera_place, head_place, which) = (head.camera(), head.place(), head.which());
        Desk { site, session, budget, camera_place, head_place, which, target_place, eye, failing: Cell::new(0) }
    }

    /// The camera as it is.
    pub fn camera(&self) -> &'a CameraFile {
        &self.site.file().cameras[self.camera_place]
    }

    /// Whether the sight line is kept as it is.
    pub fn is_kept(&self) -> bool {
        let here = |head: &&Head| {
            head.camera() == self.camera_place && head.place() == self.head_place && head.which() == self.which
        };
        let head = self.site.heads().iter().position(|head| here(&head));
        let judged = head.map(|head| &self.session.views()[head].targets[self.target_place]);
        judged.and_then(|judged| judged.deciding).is_some_and(|deciding| deciding.verdict == Verdict::Kept)
    }

    /// The target in question.
    pub fn target(&self) -> &'a Target {
        &self.site.targets()[self.target_place]
    }

    /// The head in question of a changed camera.
    pub fn head(&self, camera: &CameraFile) -> Head {
        self.head_at(camera, (self.head_place, self.which))
    }

    fn head_at(&self, camera: &CameraFile, view: (usize, Which)) -> Head {
        self.site.head_of(self.camera_place, camera, view)
    }

    /// Whether the build of a changed camera takes the aim that it is given. What is as it was is nobody's advice.
    pub fn can_be_built(&self, camera: &CameraFile) -> bool {
        let aim = |camera: &CameraFile| camera.heads[self.head_place].aimed(self.which);
        let as_it_was = camera.model == self.camera().model && aim(camera) == aim(self.camera());
        let takes = || takes_aim(&self.head(camera), self.site.scene(), camera, self.head_place, self.which);
        as_it_was || self.which_is_cut_out() || takes()
    }

    fn which_is_cut_out(&self) -> bool {
        matches!(self.which, Which::Flattened(_))
    }

    /// Lets a head of the changed camera look.
    pub fn looking<T>(&self, head: &Head, look: impl FnOnce(Viewer) -> T) -> T {
        if head.position() == self.site_position() && head.mounted_on() == self.camera().mounted_on.as_deref() {
            look(viewer_of(self.site, head, &self.eye))
        } else {
            look(viewer_of(self.site, head, &eye_around(self.site, head)))
        }
    }

    fn site_position(&self) -> glam::DVec3 {
        self.camera().eye()
    }

    /// Whether a changed camera keeps the sight line, at worst, and stands where a camera can. `false` once the work is spent.
    pub fn keeps(&self, camera: &CameraFile) -> bool {
        self.keeps_target(camera, self.target())
    }

    /// The same for the target as it may be.
    pub fn keeps_target(&self, camera: &CameraFile, target: &Target) -> bool {
        if !self.can_be_built(camera) {
            return false;
        }
        let moved = camera.eye() != self.site_position();
        if !self.budget.pay(self.look_costs() + if moved { EYE_LOOKS } else { 0 }) {
            return false;
        }
        let head = self.head(camera);
        if moved {
            let at = self.site.scene().out_of_mounting(head.position(), head.mounted_on());
            if self.site.scene().solid_around(at).is_some() {
                return false;
            }
        }
        self.looking(&head, |viewer| {
            keeps(viewer, target, self.failing.get(), &mut |looked_at, held| {
                if !held {
                    self.failing.set(looked_at);
                }
                self.budget.pay(self.look_costs())
            })
        })
    }

    /// What a look costs on this site: by night each lamp may throw a shadow, and each private place takes a mask of a new head.
    pub fn look_costs(&self) -> usize {
        let lamps = if self.site.file().conditions.night { self.site.lamps().len() } else { 0 };
        1 + lamps / LAMPS_A_LOOK
    }

    /// Whether so many heads may still look at all targets. Most are out of a head's picture, which costs little.
    pub fn pays_for_all(&self, heads: usize) -> bool {
        let samples: usize = self.site.targets().iter().map(|target| target.samples.len()).sum();
        let masks = self.site.private().len() * MASK_LOOKS;
        self.budget.pay_whole(heads * (samples * self.look_costs() / OUT_OF_PICTURE + masks))
    }

    /// A rank with what the client's school of overlap makes of it.
    pub fn by_school(&self, rank: Rank, then: &[Seen]) -> Rank {
        let Some(school) = self.site.rules().overlap else { return rank };
        let targets = self.site.targets().len();
        let now = seen_by(self.site, self.session.views());
        rank.by_school(Some(school), kept_twice(targets, &now), kept_twice(targets, then))
    }

    /// How a changed camera ranks at some effort, and what it does to the site's promises; `None` once the work is spent.
    pub fn consequences(&self, effort: f64, camera: &CameraFile) -> Option<(Rank, Vec<Effect>)> {
        if !self.pays_for_all(camera.heads.len()) {
            return None;
        }
        let views = camera.heads.iter().enumerate();
        let views = views.flat_map(|(place, head)| head.views().into_iter().map(move |which| (place, which)));
        let heads: Vec<Head> = views.map(|view| self.head_at(camera, view)).collect();
        let views: Vec<HeadView> =
            heads.iter().map(|head| self.looking(head, |viewer| view(self.site, head, viewer.eye))).collect();
        let mut replacements = heads.iter().zip(&views);
        let now = self.site.heads().iter().zip(self.session.views());
        let seen: Vec<Seen> = now
            .map(|(head, view)| {
                let other = if head.camera() == self.camera_place { replacements.next() } else { None };
                let (head, view) = other.unwrap_or((head, view));
                Seen { head, view }
            })
            .collect();
        let (rank, effects) = compare_sites(effort, self.site, self.session.results(), &verdicts(self.site, &seen));
        Some((self.by_school(rank, &seen), effects))
    }
}
