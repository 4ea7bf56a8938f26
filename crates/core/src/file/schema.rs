//! Files as JSON Schemas (draft 2020-12), made from the types that read them.

use super::SiteFile;
use serde_json::{Value, json};
use utoipa::ToSchema;

/// The JSON Schema of the site file.
pub fn site_schema() -> Value {
    schema_of::<SiteFile>("Bright Angle site file, version 1")
}

/// The JSON Schema of what is read as a type, with all that it is made of.
pub fn schema_of<T: ToSchema>(title: &str) -> Value {
    let mut parts = Vec::new();
    T::schemas(&mut parts);
    let definitions: serde_json::Map<String, Value> =
        parts.into_iter().map(|(name, schema)| (name, to_value(&schema))).collect();
    let mut root = to_value(&T::schema());
    root["$schema"] = json!("https://json-schema.org/draft/2020-12/schema");
    root["title"] = json!(title);
    root["$defs"] = Value::Object(definitions);
    point_at_definitions(&mut root);
    root
}

fn to_value(schema: &impl serde::Serialize) -> Value {
    serde_json::to_value(schema).unwrap_or(Value::Null)
}

/// Rewrites references from an OpenAPI document's place for schemas to a schema's own.
fn point_at_definitions(value: &mut Value) {
    match value {
        Value::Object(fields) => {
            if let Some(Value::String(target)) = fields.get_mut("$ref") {
                *target = target.replace("#/components/schemas/", "#/$defs/");
            }
            fields.values_mut().for_each(point_at_definitions);
        }
        Value::Array(items) => items.iter_mut().for_each(point_at_definitions),
        _ => {}
    }
}
