//! A change to a site file by ids: what came, what changed, what went. Whoever holds the site says only that.

use super::{
    Brief, CameraFile, Conditions, Drawing, Fault, Flattened, GeoPlace, HeadFile, Lamp, Obstacle, Preset, PrivatePlace,
    Reading, Rules, SiteFile, Spot, TargetFile, Variant,
};
use serde::{Deserialize, Serialize};
use std::collections::{HashMap, HashSet};
use utoipa::ToSchema;

/// What is different in a site file. What is left out stays as it is.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct SiteChange {
    /// Name, limits, brief and drawing, all of them if one is different.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub head: Option<SiteHeading>,
    /// The obstacles.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub obstacles: Option<ListChange<Obstacle>>,
    /// The lamps.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub lamps: Option<ListChange<Lamp>>,
    /// The private places.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub private: Option<ListChange<PrivatePlace>>,
    /// The targets.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub targets: Option<ListChange<TargetFile>>,
    /// The cameras.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub cameras: Option<ListChange<CameraFile>>,
    /// The spots.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub spots: Option<ListChange<Spot>>,
    /// The readings.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub readings: Option<ListChange<Reading>>,
    /// The other designs.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub variants: Option<ListChange<Variant>>,
}

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

/// What a change touched, by ids.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Touched {
    /// Whether everything has to be looked at again.
    pub all: bool,
    /// Whether name, limits, brief or drawing changed.
    pub heading: bool,
    /// Obstacles that came, changed or went.
    pub obstacles: HashSet<String>,
    /// Lamps that came, changed or went.
    pub lamps: HashSet<String>,
    /// Private places that came, changed or went.
    pub private: HashSet<String>,
    /// Targets that came, changed or went.
    pub targets: HashSet<String>,
    /// Cameras that came, changed or went.
    pub cameras: HashSet<String>,
    /// Spots that came, changed or went.
    pub spots: HashSet<String>,
    /// Readings that came, changed or went.
    pub readings: HashSet<String>,
    /// Other designs that came, changed or went.
    pub variants: HashSet<String>,
}

impl Touched {
    /// Everything.
    pub fn everything() -> Self {
        Touched { all: true, heading: true, ..Default::default() }
    }
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
named!(Obstacle, Lamp, PrivatePlace, TargetFile, CameraFile, HeadFile, Spot, Reading, Variant, Preset, Flattened);

impl SiteChange {
    /// Makes the change and says what it touched. The file that comes of it has not been validated.
    ///
    /// # Errors
    /// Names an id that the change speaks of and nobody has.
    pub fn apply(self, file: &mut SiteFile) -> Result<Touched, Vec<Fault>> {
        let mut touched = Touched::default();
        if let Some(heading) = self.head {
            touched.heading = true;
            touched.all = heading.rules != file.rules || heading.conditions != file.conditions;
            file.name = heading.name;
            file.rules = heading.rules;
            file.conditions = heading.conditions;
            file.place = heading.place;
            file.design = heading.design;
            file.brief = heading.brief;
            file.drawing = heading.drawing;
        }
        let faults: Vec<Fault> = [
            put("obstacles", &mut file.obstacles, self.obstacles, &mut touched.obstacles),
            put("lamps", &mut file.lamps, self.lamps, &mut touched.lamps),
            put("private", &mut file.private, self.private, &mut touched.private),
            put("targets", &mut file.targets, self.targets, &mut touched.targets),
            put("cameras", &mut file.cameras, self.cameras, &mut touched.cameras),
            put("spots", &mut file.spots, self.spots, &mut touched.spots),
            put("readings", &mut file.readings, self.readings, &mut touched.readings),
            put("variants", &mut file.variants, self.variants, &mut touched.variants),
        ]
        .into_iter()
        .filter_map(Result::err)
        .collect();
        // By night every promise may hang on any lamp, and a solid that moves may shade one from anywhere.
        let lit_from_aside = !file.lamps.is_empty() || file.cameras.iter().any(|camera| camera.emitter.is_some());
        let shaded_anew = lit_from_aside && !touched.obstacles.is_empty();
        touched.all |= file.conditions.night && (!touched.lamps.is_empty() || shaded_anew);
        if faults.is_empty() { Ok(touched) } else { Err(faults) }
    }
}

fn put<T: Named>(
    name: &str,
    list: &mut Vec<T>,
    change: Option<ListChange<T>>,
    touched: &mut HashSet<String>,
) -> Result<(), Fault> {
    let Some(change) = change else { return Ok(()) };
    let nobody = |id: &str| Fault::new(name, format!("the change speaks of \"{id}\", which is not there"));
    touched.extend(change.put.iter().map(|item| item.id().to_owned()));
    let Some(order) = change.order else {
        for item in change.put {
            let place = list.iter().position(|held| held.id() == item.id());
            let place = place.ok_or_else(|| nobody(item.id()))?;
            list[place] = item;
        }
        return Ok(());
    };
    let mut held: HashMap<String, T> = list.drain(..).map(|item| (item.id().to_owned(), item)).collect();
    for item in change.put {
        held.insert(item.id().to_owned(), item);
    }
    for id in order {
        list.push(held.remove(&id).ok_or_else(|| nobody(&id))?);
    }
    touched.extend(held.into_keys());
    Ok(())
}
