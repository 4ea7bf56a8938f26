//! One thing that both sides changed, put together field by field.

use super::side::Side;
use serde_json::{Map, Value};

/// What becomes of a thing as it was, as mine is and as theirs is: each field as the side has it that changed it. Where both
/// changed a field, each in another way, it is `side`'s, and the answer's second part says that there was such a one.
///
/// Fields of fields go the same way, and so do lists of things with ids (heads, presets); any other list is one value. A camera
/// whose model one side changed and whose heads the other did cannot be taken apart: a lens belongs to its focal length.
pub fn by_field([base, mine, theirs]: [&Value; 3], side: Side) -> (Value, bool) {
    let of = [base, mine, theirs].map(Some);
    let (taken, clash) = value(of, side);
    let changed = |by: &Value, field: &str| by.get(field) != base.get(field);
    let apart = |a: &Value, b: &Value| changed(a, "model") && changed(b, "heads") && a != b;
    if apart(mine, theirs) || apart(theirs, mine) {
        return (chosen(of, side).cloned().unwrap_or_default(), true);
    }
    (taken.unwrap_or_default(), clash)
}

fn chosen([_, mine, theirs]: [Option<&Value>; 3], side: Side) -> Option<&Value> {
    match side {
        Side::Mine => mine,
        Side::Theirs => theirs,
    }
}

/// A field: what is taken, and whether both changed it.
fn value(of: [Option<&Value>; 3], side: Side) -> (Option<Value>, bool) {
    // A field that is left out and one that is null say the same.
    let [base, mine, theirs] = of.map(|value| value.filter(|value| !value.is_null()));
    if mine == theirs || mine == base {
        return (theirs.cloned(), false);
    }
    if theirs == base {
        return (mine.cloned(), false);
    }
    match [base, mine, theirs] {
        [Some(Value::Object(b)), Some(Value::Object(m)), Some(Value::Object(t))] => {
            let (put, clash) = object([b, m, t], side);
            (Some(Value::Object(put)), clash)
        }
        [Some(b), Some(m), Some(t)] if [b, m, t].into_iter().all(|list| things(list).is_some()) => {
            list([b, m, t], side)
        }
        of => (chosen(of, side).cloned(), true),
    }
}

fn object(of: [&Map<String, Value>; 3], side: Side) -> (Map<String, Value>, bool) {
    let [_, mine, theirs] = of;
    let mut put = Map::new();
    let mut clash = false;
    let beside = mine.keys().filter(|key| !theirs.contains_key(*key));
    for key in theirs.keys().chain(beside) {
        let (taken, both) = value(of.map(|map| map.get(key)), side);
        clash |= both;
        put.extend(taken.map(|taken| (key.clone(), taken)));
    }
    (put, clash)
}

/// Theirs in their order, then what mine has beside them.
fn list([base, mine, theirs]: [&Value; 3], side: Side) -> (Option<Value>, bool) {
    let [b, m, t] = [base, mine, theirs].map(|list| things(list).unwrap_or_default());
    let find = |list: &[(&str, &'_ Value)], id: &str| {
        list.iter().find(|(held, _)| *held == id).map(|(_, value)| (*value).clone())
    };
    let beside = m.iter().filter(|(id, _)| find(&t, id).is_none());
    let mut clash = false;
    let mut put = vec![];
    for (id, _) in t.iter().chain(beside) {
        let of = [find(&b, id), find(&m, id), find(&t, id)];
        let (taken, both) = value(of.each_ref().map(Option::as_ref), side);
        clash |= both;
        put.extend(taken);
    }
    (Some(Value::Array(put)), clash)
}

/// The things of a list, by their ids; none if it is no such list.
fn things(list: &Value) -> Option<Vec<(&str, &Value)>> {
    list.as_array()?.iter().map(|item| Some((item.get("id")?.as_str()?, item))).collect()
}
