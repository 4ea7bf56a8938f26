//! A model's fields by dotted names, as in `lens.focal_min_mm`.

use serde_json::{Map, Value, json};

/// Puts a value under a dotted name.
pub(super) fn put(model: &mut Map<String, Value>, field: &str, value: Value) {
    match field.split_once('.') {
        None => drop(model.insert(field.to_owned(), value)),
        Some((outer, inner)) => {
            if let Some(held) = model.entry(outer).or_insert_with(|| json!({})).as_object_mut() {
                held.insert(inner.to_owned(), value);
            }
        }
    }
}

/// The value under a dotted name.
pub(super) fn at<'a>(model: &'a Value, field: &str) -> Option<&'a Value> {
    field.split('.').try_fold(model, |held, name| held.get(name))
}
