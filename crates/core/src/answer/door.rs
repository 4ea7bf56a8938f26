//! A session with what is kept between questions about it: the ground, the sun's year, reliefs under work. Whoever holds a door asks
//! everything there, and every answer is of the state that the door is in.

use crate::file::{Fault, Model, SiteChange, SiteFile};
use crate::ground::told::{Ground, GroundWish, LiveGround};
use crate::judge::Session;
use crate::judge::session::Delta;
use crate::show::coverage::live_relief::{LiveRelief, ReliefWish, Share};
use crate::show::sun::live_sun::LiveSun;
use crate::sun::SunYear;

/// A site under a hand, with all that is kept of it.
///
/// ```
/// use bright_angle_core::answer::{Answer, Ask, Door};
/// use bright_angle_core::file::SiteFile;
/// let mut door = Door::open(SiteFile::empty("A yard")).unwrap();
/// let Answer::Lost(lost) = door.ask(Ask::Lost).unwrap() else { unreachable!() };
/// assert!(lost.is_empty());
/// ```
#[derive(Clone, Debug)]
pub struct Door {
    session: Session,
    /// The ground, once it was asked about.
    ground: Option<LiveGround>,
    /// The sun, once it was asked about.
    sun: LiveSun,
    /// A coarse relief for a hand on the move, and a fine one.
    reliefs: [Option<LiveRelief>; 2],
}

impl Door {
    /// Opens a door on a file.
    ///
    /// # Errors
    /// The faults of the file, each with its place.
    pub fn open(file: SiteFile) -> Result<Door, Vec<Fault>> {
        Session::open(file).map(Door::on)
    }

    /// Opens a door on a session.
    pub fn on(session: Session) -> Door {
        Door { session, ground: None, sun: LiveSun::default(), reliefs: [None, None] }
    }

    /// The session as it is now.
    pub fn session(&self) -> &Session {
        &self.session
    }

    /// Takes the firm's own models, which ways and lines are found among.
    pub fn keep_own(&mut self, own: Vec<Model>) {
        self.session.keep_own(own);
    }

    /// Makes a change. On faults nothing is changed.
    ///
    /// # Errors
    /// The faults of the site that would come of it.
    pub fn change(&mut self, change: SiteChange) -> Result<Delta, Vec<Fault>> {
        let delta = self.session.apply(change)?;
        let site = self.session.site();
        for relief in self.reliefs.iter_mut().flatten() {
            relief.changed(site, &delta);
        }
        if let Some(ground) = &mut self.ground {
            ground.changed(site, &delta);
        }
        Ok(delta)
    }

    /// What the relief tells about the ground; what is worked out is kept for the next time.
    pub(super) fn ground(&mut self, wish: &GroundWish) -> Result<Ground, Fault> {
        wish.checked()?;
        let site = self.session.site();
        let held = self.ground.take().filter(|ground| ground.height() == wish.height_m);
        self.ground.insert(held.unwrap_or_else(|| LiveGround::new(site, wish.height_m))).tell(site, wish)
    }

    /// How many cameras that never look away see each cell of the ground, as last told, at a need, rows from south to north.
    pub fn ground_counts(&self, need_px_per_m: f32) -> Vec<u8> {
        let counts = |ground: &LiveGround| ground.counts(self.session.site(), need_px_per_m).steady;
        self.ground.as_ref().map(counts).unwrap_or_default()
    }

    /// The session, and a year of the sun over its site, worked out once.
    pub(super) fn under_the_sun(&mut self, year: i32) -> Result<(&Session, &SunYear), Fault> {
        let year = self.sun.year(self.session.site(), year)?;
        Ok((&self.session, year))
    }

    /// Wants a relief of a share of the heads; the slot, 0 or 1, keeps what is worked out for the next time.
    ///
    /// # Errors
    /// Bounds, cells or a height that make no sense.
    pub fn want_relief(&mut self, slot: usize, wish: &ReliefWish, share: Share) -> Result<(), Fault> {
        let grid = wish.grid()?;
        let held = &mut self.reliefs[slot % 2];
        if !held.as_ref().is_some_and(|relief| relief.is_of(&grid, wish.height, share)) {
            *held = Some(LiveRelief::new(self.session.site(), grid, wish.height, share));
        }
        Ok(())
    }

    /// Works out one layer of the relief in a slot; `false` when it is up to date.
    pub fn step_relief(&mut self, slot: usize) -> bool {
        self.reliefs[slot % 2].as_mut().is_some_and(|relief| relief.step(self.session.site()))
    }

    /// The best density of each cell, px/m, rows from south to north; zero where none of the heads sees.
    pub fn relief(&self, slot: usize) -> &[f32] {
        self.reliefs[slot % 2].as_ref().map_or(&[], |relief| relief.relief().best())
    }
}
