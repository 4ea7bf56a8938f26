//! The site file as a JSON Schema (draft 2020-12), made from the types that read it.

use super::SiteFile;
use serde_json::{Value, json};
use utoipa::{PartialSchema, ToSchema};

/// The JSON Schema of the site file.
pub fn site_schema() -> Value {
    let mut parts = Vec::new();
    SiteFile::schemas(&mut parts);
    let definitions: serde_json::Map<String, Value> =
        parts.into_iter().map(|(name, schema)| (name, to_value(&schema))).collect();
    let mut root = to_value(&SiteFile::schema());
    root["$schema"] = json!("https://json-schema.org/draft/2020-12/schema");
    root["title"] = json!("Bright Angle site file, version 1");
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
