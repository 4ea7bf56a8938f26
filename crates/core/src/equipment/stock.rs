//! The firm's own catalogue: the models that it sells, in one open file.

use crate::file::schema::schema_of;
use crate::file::{Fault, Model, MountPart, Prices, model_faults, mount_part_faults, price_faults, read_json};
use serde::{Deserialize, Serialize};
use std::collections::HashSet;
use utoipa::ToSchema;

/// What stands in the file's `format`.
pub const FORMAT: &str = "bright-angle/catalogue";
/// The version that this program writes.
pub const VERSION: u32 = 1;
/// So many models one holds.
pub const MOST_MODELS: usize = 5_000;
/// So many parts of mounts one holds.
pub const MOST_MOUNTS: usize = 1_000;

/// A catalogue.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Stock {
    /// Always `bright-angle/catalogue`.
    pub format: String,
    /// 1.
    pub version: u32,
    /// The money of its prices, as in `EUR`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub currency: Option<String>,
    /// Its models; no two go by one name.
    pub models: Vec<Model>,
    /// The firm's own parts of mounts; no two go by one name or id.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub mounts: Vec<MountPart>,
    /// What the firm charges, which new sites begin with.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub prices: Option<Prices>,
}

/// The JSON Schema of a catalogue.
pub fn catalogue_schema() -> serde_json::Value {
    schema_of::<Stock>("Bright Angle catalogue, version 1")
}

impl Default for Stock {
    fn default() -> Self {
        Stock {
            format: FORMAT.to_owned(),
            version: VERSION,
            currency: None,
            models: vec![],
            mounts: vec![],
            prices: None,
        }
    }
}

impl Stock {
    /// Reads and checks one.
    ///
    /// # Errors
    /// Every fault with its place.
    pub fn parse(text: &str) -> Result<Stock, Vec<Fault>> {
        read_json::<Stock>(text)?.checked()
    }

    /// This one, if it is in order.
    ///
    /// # Errors
    /// Every fault with its place.
    pub fn checked(self) -> Result<Stock, Vec<Fault>> {
        let mut faults = Vec::new();
        if self.format != FORMAT {
            faults.push(Fault::new("format", format!("expected \"{FORMAT}\"")));
        }
        if self.version != VERSION {
            faults.push(Fault::new("version", format!("expected {VERSION}")));
        }
        if self.models.len() > MOST_MODELS {
            faults.push(Fault::new("models", format!("are more than {MOST_MODELS}")));
        }
        if self.currency.as_ref().is_some_and(|money| money.is_empty() || money.chars().count() > 10) {
            faults.push(Fault::new("currency", "takes 1 to 10 characters"));
        }
        if let Some(prices) = &self.prices {
            faults.extend(price_faults("prices", prices));
            if let (Some(one), Some(other)) = (&self.currency, &prices.currency)
                && one != other
            {
                faults.push(Fault::new(
                    "prices.currency",
                    format!("is {other}, and the catalogue's is {one}: one money at a time"),
                ));
            }
        }
        let mut names = HashSet::new();
        for (place, model) in self.models.iter().enumerate() {
            let at = format!("models[{place}]");
            if !names.insert(model.name.as_str()) {
                faults.push(Fault::new(format!("{at}.name"), format!("\"{}\" is there twice", model.name)));
            }
            faults.extend(model_faults(&at, model));
        }
        faults.extend(self.mount_faults());
        if faults.is_empty() { Ok(self) } else { Err(faults) }
    }

    fn mount_faults(&self) -> Vec<Fault> {
        if self.mounts.len() > MOST_MOUNTS {
            return vec![Fault::new("mounts", format!("are more than {MOST_MOUNTS}"))];
        }
        let (mut names, mut ids) = (HashSet::new(), HashSet::new());
        let mut faults = Vec::new();
        for (place, part) in self.mounts.iter().enumerate() {
            let at = format!("mounts[{place}]");
            if part.id.is_empty() || part.id.chars().count() > 100 {
                faults.push(Fault::new(format!("{at}.id"), "takes 1 to 100 characters"));
            }
            for (field, text, known) in [("name", &part.name, &mut names), ("id", &part.id, &mut ids)] {
                if !known.insert(text.as_str()) {
                    faults.push(Fault::new(format!("{at}.{field}"), format!("\"{text}\" is there twice")));
                }
            }
            faults.extend(mount_part_faults(&at, part));
        }
        faults
    }
}
