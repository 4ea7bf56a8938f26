//! A change to a site file by ids: what came, what changed, what went. Whoever holds the site says only that.

use super::lists::with_lists;
use super::{
    Agreement, Brief, Cable, CablePath, CameraFile, Conditions, Drawing, Fault, FaultCode, Flattened, GeoPlace,
    HeadFile, Lamp, MountPart, Network, Node, Obstacle, PictureZone, Preset, Prices, PrivatePlace, Proof, Reading,
    Rules, SiteFile, Snapshot, Spot, StepDone, Subject, TargetFile, Upkept, Variant, Visit,
};
use serde::{Deserialize, Serialize};
use std::collections::{HashMap, HashSet};
use utoipa::ToSchema;

/// What a site file holds beside its lists.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SiteHeading {
    /// Name of the site.
    pub name: String,
    /// Its limits; the handbook's where left out.
    #[serde(default)]
    #[schema(required = false)]
    pub rules: Rules,
    /// Season and years that its verdicts are given for.
    #[serde(default)]
    #[schema(required = false)]
    pub conditions: Conditions,
    /// Where on the earth it is.
    #[serde(default)]
    pub place: Option<GeoPlace>,
    /// What the design in hand is called.
    #[serde(default)]
    pub design: Option<String>,
    /// The brief.
    #[serde(default)]
    pub brief: Option<Brief>,
    /// The drawing.
    #[serde(default)]
    pub drawing: Option<Drawing>,
    /// The prices.
    #[serde(default)]
    pub prices: Option<Prices>,
}

/// What is different in a list of things with ids.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ListChange<T> {
    /// All ids in their order, if something came, went or changed its place.
    #[serde(default = "Option::default", skip_serializing_if = "Option::is_none")]
    pub order: Option<Vec<String>>,
    /// What is new or different.
    #[serde(default = "Vec::new")]
    pub put: Vec<T>,
}

/// A thing with an id.
pub(super) trait Named {
    fn id(&self) -> &str;
}

macro_rules! named {
    ($($thing:ty),*) => {$(
        impl Named for $thing {
            fn id(&self) -> &str {
                &self.id
            }
        }
    )*};
}
named!(HeadFile, Preset, Flattened, MountPart, StepDone, PictureZone, Upkept);

macro_rules! changes {
    (
        { $($list:ident: $thing:ty, $kind:ident, $about:literal;)* }
        { $($wired:ident: $one:ty, $wired_kind:ident, $wired_about:literal;)* }
    ) => {
        /// What is different in a site file. What is left out stays as it is.
        #[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
        #[serde(deny_unknown_fields, default)]
        pub struct SiteChange {
            /// Name, limits, brief and drawing, all of them if one is different.
            #[serde(skip_serializing_if = "Option::is_none")]
            pub head: Option<SiteHeading>,
            $(
                #[doc = $about]
                #[serde(skip_serializing_if = "Option::is_none")]
                pub $list: Option<ListChange<$thing>>,
            )*
            $(
                #[doc = $wired_about]
                #[serde(skip_serializing_if = "Option::is_none")]
                pub $wired: Option<ListChange<$one>>,
            )*
        }

        /// What a change touched, by the ids of what came, changed or went.
        #[derive(Clone, Debug, Default, PartialEq)]
        pub struct Touched {
            /// Whether everything has to be looked at again.
            pub all: bool,
            /// Whether name, limits, brief or drawing changed.
            pub heading: bool,
            /// Whether things that stay changed places in their list.
            pub reordered: bool,
            $(
                #[doc = $about]
                pub $list: HashSet<String>,
            )*
            $(
                #[doc = $wired_about]
                pub $wired: HashSet<String>,
            )*
        }

        impl SiteChange {
            /// Makes the change and says what it touched. The file that comes of it has not been validated.
            ///
            /// # Errors
            /// Names an id that the change speaks of and nobody has.
            pub fn apply(self, file: &mut SiteFile) -> Result<Touched, Vec<Fault>> {
                let mut touched = Touched::default();
                if let Some(heading) = self.head {
                    heading.put(file, &mut touched);
                }
                let SiteFile {
                    // The heading's, and what never changes: a list that is missing from `with_lists` does not compile.
                    format: _, version: _, name: _, rules: _, conditions: _, place: _, design: _, brief: _, drawing: _, prices: _, network,
                    $($list),*
                } = file;
                let mut faults = vec![];
                $(match put(stringify!($list), $list, self.$list, &mut touched.$list) {
                    Ok(reordered) => touched.reordered |= reordered,
                    Err(fault) => faults.push(fault),
                })*
                if $(self.$wired.is_some())||* {
                    let held = network.get_or_insert_default();
                    $(if let Err(fault) = put(concat!("network.", stringify!($wired)), &mut held.$wired, self.$wired, &mut touched.$wired) {
                        faults.push(fault);
                    })*
                    if *held == Network::default() {
                        *network = None;
                    }
                }
                touched.by_night(file);
                if faults.is_empty() { Ok(touched) } else { Err(faults) }
            }
        }

        named!($($thing),*);
        named!($($one),*);
    };
}
with_lists!(changes);

impl SiteHeading {
    fn put(self, file: &mut SiteFile, touched: &mut Touched) {
        let SiteHeading { name, rules, conditions, place, design, brief, drawing, prices } = self;
        touched.heading = true;
        touched.all = rules != file.rules || conditions != file.conditions;
        (file.name, file.rules, file.conditions, file.place) = (name, rules, conditions, place);
        (file.design, file.brief, file.drawing, file.prices) = (design, brief, drawing, prices);
    }
}

impl Touched {
    /// Everything.
    pub fn everything() -> Self {
        Touched { all: true, heading: true, ..Default::default() }
    }

    /// By night every promise may hang on any lamp, and a solid that moves may shade one from anywhere.
    fn by_night(&mut self, file: &SiteFile) {
        let lit_from_aside = !file.lamps.is_empty() || file.cameras.iter().any(|camera| camera.emitter.is_some());
        // What an automatic makes of a plate hangs on all that its picture shows.
        let plates = file.targets.iter().any(|target| target.subject == Subject::Plate);
        let fixed = |head: &HeadFile| head.exposure.is_some_and(|exposure| exposure.fixed_s().is_some());
        let metered = plates && !file.cameras.iter().flat_map(|camera| &camera.heads).all(fixed);
        let shaded_anew = (lit_from_aside || metered) && !self.obstacles.is_empty();
        // Of two surfaces at one place the earlier in the list is metered, and sums of light are made in its order.
        self.all |= file.conditions.night && (!self.lamps.is_empty() || shaded_anew || self.reordered);
    }
}

/// Makes a list's change; answers whether things that stay changed places.
fn put<T: Named>(
    name: &str,
    list: &mut Vec<T>,
    change: Option<ListChange<T>>,
    touched: &mut HashSet<String>,
) -> Result<bool, Fault> {
    let Some(change) = change else { return Ok(false) };
    let nobody = |id: &str| {
        Fault::new(name, format!("the change speaks of \"{id}\", which is not there")).of(FaultCode::UnknownId)
    };
    touched.extend(change.put.iter().map(|item| item.id().to_owned()));
    let Some(order) = change.order else {
        for item in change.put {
            let place = list.iter().position(|held| held.id() == item.id());
            let place = place.ok_or_else(|| nobody(item.id()))?;
            list[place] = item;
        }
        return Ok(false);
    };
    let places: HashMap<String, usize> =
        list.iter().zip(0..).map(|(item, place)| (item.id().to_owned(), place)).collect();
    let mut held: HashMap<String, T> = list.drain(..).map(|item| (item.id().to_owned(), item)).collect();
    for item in change.put {
        held.insert(item.id().to_owned(), item);
    }
    let reordered = !order.iter().filter_map(|id| places.get(id)).is_sorted();
    for id in order {
        list.push(held.remove(&id).ok_or_else(|| nobody(&id))?);
    }
    touched.extend(held.into_keys());
    Ok(reordered)
}
