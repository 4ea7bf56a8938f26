//! Two states of a site that came from one: put together thing by thing, and what has to be chosen.

use super::compare::{Difference, LISTS, PARTS, Thing, WHOLES, as_map, as_written, compare, items, keys};
use super::edits::fresh_id;
use super::merge_fields::by_field;
use super::side::Side;
use crate::file::{Fault, SiteFile};
use crate::site::Site;
use crate::words::units::Units;
use serde::{Deserialize, Serialize};
use serde_json::{Map, Value};
use std::collections::HashMap;
use utoipa::ToSchema;

/// What somebody chose for a thing that both changed.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Choice {
    /// What it is.
    pub thing: Thing,
    /// Its id, or the name of the field.
    pub id: String,
    /// Whose.
    pub take: Side,
}

/// A thing that both changed, each in another way.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Clash {
    /// What it is.
    pub thing: Thing,
    /// Its id, or the name of the field.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// What is different about mine.
    pub mine: String,
    /// What is different about theirs.
    pub theirs: String,
}

/// Two states put together.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Merged {
    /// The site: what only one side changed is as that side has it; of what both changed it is what was chosen, mine where nothing
    /// was. Null where that does not hold together.
    #[schema(required)]
    pub site: Option<SiteFile>,
    /// What both changed and nobody chose about yet.
    pub clashes: Vec<Clash>,
    /// Why the two don't hold together; then one has to be taken whole, or something chosen otherwise.
    pub faults: Vec<Fault>,
}

/// Puts two states together that both came from `base`, thing by thing, a camera field by field. Things that both sides added under
/// one id are two things: mine gets another id.
pub fn merge(base: &SiteFile, mine: &SiteFile, theirs: &SiteFile, choices: &[Choice], units: Units) -> Merged {
    let (b, t) = (as_map(base), as_map(theirs));
    let m = with_own_ids(&b, as_map(mine), &t);
    let Ok(mine) = read(&m) else {
        return Merged { site: None, clashes: vec![], faults: vec![Fault::new("", "mine cannot be read")] };
    };
    let [of_mine, of_theirs] = [&mine, theirs].map(|side| compare(base, side, units));
    let mut hand = Hand { choices, of_mine: &of_mine, of_theirs: &of_theirs, clashes: vec![] };
    let mut out = t.clone();
    for (key, thing) in WHOLES {
        hand.field(&mut out, thing, key, [&b, &m, &t].map(|site| site.get(key)));
    }
    for (key, thing) in PARTS {
        let parts = [&b, &m, &t].map(|site| site.get(key).and_then(Value::as_object));
        let mut part = parts[2].cloned().unwrap_or_default();
        for field in keys(parts[0], parts[1]).into_iter().chain(keys(parts[2], None)) {
            hand.field(&mut part, thing, field, parts.map(|part| part.and_then(|part| part.get(field))));
        }
        put(&mut out, key, (!part.is_empty()).then_some(Value::Object(part)));
    }
    for &(key, thing) in LISTS {
        let list = hand.list(thing, [&b, &m, &t].map(|site| items(site, key)));
        out.insert(key.to_owned(), Value::Array(list));
    }
    let clashes = hand.clashes;
    match read(&out) {
        Ok(site) => match Site::from_file(site.clone()) {
            Ok(_) => Merged { site: Some(site), clashes, faults: vec![] },
            Err(faults) => Merged { site: None, clashes, faults },
        },
        Err(faults) => Merged { site: None, clashes, faults },
    }
}

/// A site file out of its fields: by way of text, as every other is read.
fn read(fields: &Map<String, Value>) -> Result<SiteFile, Vec<Fault>> {
    let text = serde_json::to_string(&as_written(fields)).map_err(|error| vec![Fault::new("", error.to_string())])?;
    SiteFile::parse(&text)
}

fn put(map: &mut Map<String, Value>, key: &str, value: Option<Value>) {
    match value {
        Some(value) => drop(map.insert(key.to_owned(), value)),
        None => drop(map.remove(key)),
    }
}

/// Puts together, and notes what has to be chosen.
struct Hand<'a> {
    choices: &'a [Choice],
    of_mine: &'a [Difference],
    of_theirs: &'a [Difference],
    clashes: Vec<Clash>,
}

impl Hand<'_> {
    /// Of a thing as it was, as mine is and as theirs is: the one to take.
    fn of<'v>(&mut self, thing: Thing, id: &str, [base, mine, theirs]: [Option<&'v Value>; 3]) -> Option<&'v Value> {
        if mine == theirs || mine == base {
            return theirs;
        }
        if theirs == base {
            return mine;
        }
        match self.choices.iter().find(|choice| choice.thing == thing && choice.id == id) {
            Some(choice) if choice.take == Side::Theirs => theirs,
            Some(_) => mine,
            None => {
                let said = |of: &[Difference]| of.iter().find(|said| said.thing == thing && said.id == id).cloned();
                let (ours, others) = (said(self.of_mine), said(self.of_theirs));
                let name = ours.as_ref().or(others.as_ref()).map(|said| said.name.clone()).unwrap_or_default();
                let says = |said: Option<Difference>| said.map(|said| said.says).unwrap_or_default();
                self.clashes.push(Clash { thing, id: id.to_owned(), name, mine: says(ours), theirs: says(others) });
                mine
            }
        }
    }

    fn field(&mut self, out: &mut Map<String, Value>, thing: Thing, key: &str, of: [Option<&Value>; 3]) {
        // A field that is left out and one that is null say the same.
        let taken = self.of(thing, key, of.map(|value| value.filter(|value| !value.is_null())));
        put(out, key, taken.cloned());
    }

    /// A camera that all have: each field as the side has it that changed it; of a field that both changed what was chosen.
    fn camera(&mut self, id: &str, of: [&Value; 3]) -> Value {
        let (mine, clash) = by_field(of, Side::Mine);
        if !clash {
            return mine;
        }
        // Notes the clash where nobody has chosen yet.
        let taken = self.of(Thing::Camera, id, of.map(Some));
        if taken == Some(of[2]) { by_field(of, Side::Theirs).0 } else { mine }
    }

    /// Theirs in their order, then what mine has beside them.
    fn list(&mut self, thing: Thing, [base, mine, theirs]: [Vec<(&str, &Value)>; 3]) -> Vec<Value> {
        let find = |list: &[(&str, &Value)]| -> HashMap<String, Value> {
            list.iter().map(|(id, item)| ((*id).to_owned(), (*item).clone())).collect()
        };
        let [b, m, t] = [&base, &mine, &theirs].map(|list| find(list));
        let beside = mine.iter().filter(|(id, _)| !t.contains_key(*id));
        let mut list = Vec::with_capacity(theirs.len());
        for (id, _) in theirs.iter().chain(beside) {
            let of = [b.get(*id), m.get(*id), t.get(*id)];
            list.extend(match of {
                [Some(base), Some(mine), Some(theirs)] if thing == Thing::Camera => {
                    Some(self.camera(id, [base, mine, theirs]))
                }
                _ => self.of(thing, id, of).cloned(),
            });
        }
        list
    }
}

/// Gives what both sides added under one id, and is not the same, another id in mine; what speaks of it speaks of the new one.
fn with_own_ids(
    base: &Map<String, Value>,
    mut mine: Map<String, Value>,
    theirs: &Map<String, Value>,
) -> Map<String, Value> {
    for &(list, thing) in LISTS {
        let [b, m, t] = [base, &mine, theirs].map(|site| items(site, list));
        let at = |list: &[(&str, &Value)], id: &str| list.iter().position(|(other, _)| *other == id);
        // A reading that both took between the same ends is one reading.
        let same =
            |a: &Value, b: &Value| a == b || thing == Thing::Reading && a["from"] == b["from"] && a["to"] == b["to"];
        let twice: Vec<String> = m
            .iter()
            .filter(|(id, item)| at(&b, id).is_none() && at(&t, id).is_some_and(|place| !same(item, t[place].1)))
            .map(|(id, _)| (*id).to_owned())
            .collect();
        let mut taken: Vec<String> = [&b, &m, &t].into_iter().flatten().map(|(id, _)| (*id).to_owned()).collect();
        let mut renamed = HashMap::new();
        for id in twice {
            let letters: String = id.chars().take_while(char::is_ascii_alphabetic).collect();
            let new = fresh_id(if letters.is_empty() { "x" } else { &letters }, taken.iter().map(String::as_str));
            taken.push(new.clone());
            renamed.insert(id, new);
        }
        if !renamed.is_empty() {
            rename(&mut mine, list, &renamed);
        }
    }
    mine
}

/// Renames things of a list, and wherever they are spoken of.
fn rename(site: &mut Map<String, Value>, list: &str, renamed: &HashMap<String, String>) {
    let swap = |value: Option<&mut Value>| {
        if let Some(value) = value
            && let Some(new) = value.as_str().and_then(|id| renamed.get(id))
        {
            *value = Value::String(new.clone());
        }
    };
    let each = |site: &mut Map<String, Value>, list: &str, change: &dyn Fn(&mut Value)| {
        site.get_mut(list).and_then(Value::as_array_mut).into_iter().flatten().for_each(change);
    };
    each(site, list, &|item| swap(item.get_mut("id")));
    match list {
        "spots" | "targets" => {
            each(site, "readings", &|reading| {
                swap(reading.get_mut("from"));
                swap(reading.get_mut("to"));
            });
            if list == "spots" {
                each(site, "cameras", &|camera| swap(camera.get_mut("spot")));
                each(site, "targets", &|target| {
                    let from = target.get_mut("distance").and_then(|distance| distance.get_mut("from"));
                    from.and_then(Value::as_array_mut)
                        .into_iter()
                        .flatten()
                        .for_each(|known| swap(known.get_mut("spot")));
                });
            }
        }
        "nodes" | "cameras" => each(site, "cables", &|cable| {
            swap(cable.get_mut("from"));
            swap(cable.get_mut("to"));
        }),
        "obstacles" => each(site, "cameras", &|camera| swap(camera.get_mut("mounted_on"))),
        _ => {}
    }
}
