//! Faults of prices and agreements.

use super::validate::Check;
use super::{Agreement, Amount, Prices};
use std::collections::HashSet;

const MOST_ITEMS: usize = 2_000;
const MOST_EXTRAS: usize = 200;
const MOST_AGREED: usize = 2_000;
const MOST_STROKES: usize = 400;
const MOST_POINTS: usize = 20_000;

impl Check {
    /// Prices on their own: of a site, or of a firm's catalogue.
    pub(crate) fn prices(&mut self, at: &str, prices: &Prices) {
        self.currency(&format!("{at}.currency"), prices.currency.as_deref());
        for (name, amount) in [
            ("hour", &prices.hour),
            ("visit", &prices.visit),
            ("lift_day", &prices.lift_day),
            ("margin_percent", &prices.margin_percent),
            ("tax_percent", &prices.tax_percent),
        ] {
            self.amount(&format!("{at}.{name}"), amount.as_ref());
        }
        self.few(&format!("{at}.items"), prices.items.len(), MOST_ITEMS);
        let mut names = HashSet::new();
        for (place, item) in prices.items.iter().enumerate().take(MOST_ITEMS) {
            let at = format!("{at}.items[{place}]");
            self.text(&format!("{at}.what"), &item.what, 300);
            self.that(&format!("{at}.what"), names.insert(item.what.as_str()), || "is there twice".to_owned());
            self.amount(&format!("{at}.each"), Some(&item.each));
        }
        self.few(&format!("{at}.work"), prices.work.len(), 16);
        let mut works = HashSet::new();
        for (place, work) in prices.work.iter().enumerate().take(16) {
            let at = format!("{at}.work[{place}]");
            self.that(&format!("{at}.work"), works.insert(work.work), || "is there twice".to_owned());
            self.amount(&format!("{at}.hours"), work.hours.as_ref());
            self.amount(&format!("{at}.hour"), work.hour.as_ref());
        }
        self.few(&format!("{at}.extras"), prices.extras.len(), MOST_EXTRAS);
        for (place, extra) in prices.extras.iter().enumerate().take(MOST_EXTRAS) {
            let at = format!("{at}.extras[{place}]");
            self.text(&format!("{at}.name"), &extra.name, 300);
            self.amount(&format!("{at}.count"), Some(&extra.count));
            self.amount(&format!("{at}.each"), extra.each.as_ref());
        }
        if let Some(day) = &prices.valid_until {
            self.day(&format!("{at}.valid_until"), day);
        }
        for (name, text, most) in [("firm", &prices.firm, 300), ("note", &prices.note, 2_000)] {
            if let Some(text) = text {
                self.text(&format!("{at}.{name}"), text, most);
            }
        }
    }

    fn currency(&mut self, at: &str, currency: Option<&str>) {
        let Some(currency) = currency else { return };
        let holds = currency.len() == 3 && currency.bytes().all(|letter| letter.is_ascii_uppercase());
        self.that(at, holds, || "takes three capital letters, as in EUR".to_owned());
    }

    fn amount(&mut self, at: &str, amount: Option<&Amount>) {
        if let Some(fault) = amount.and_then(Amount::fault) {
            self.that(at, false, || fault);
        }
    }

    fn few(&mut self, at: &str, held: usize, most: usize) {
        self.that(at, held <= most, || format!("are more than {most}"));
    }

    pub(super) fn day(&mut self, at: &str, day: &str) {
        let holds = day.len() == 10 && day.parse::<jiff::civil::Date>().is_ok();
        self.that(at, holds, || "is no day such as 2026-12-31".to_owned());
    }

    pub(super) fn agreement(&mut self, at: &str, agreement: &Agreement) {
        self.text(&format!("{at}.name"), &agreement.name, 300);
        self.day(&format!("{at}.date"), &agreement.date);
        self.currency(&format!("{at}.currency"), agreement.currency.as_deref());
        self.amount(&format!("{at}.total"), agreement.total.as_ref());
        if let Some(option) = &agreement.option {
            self.text(&format!("{at}.option"), option, 200);
        }
        let points: usize = agreement.signature.iter().map(Vec::len).sum();
        let strokes = agreement.signature.len();
        self.that(&format!("{at}.signature"), strokes <= MOST_STROKES && points <= MOST_POINTS, || {
            format!("has more than {MOST_STROKES} strokes or {MOST_POINTS} points")
        });
        let inside = |point: &[f64; 2]| point.iter().all(|axis| (0.0..=1.0).contains(axis));
        self.that(&format!("{at}.signature"), agreement.signature.iter().flatten().all(inside), || {
            "leaves its field".to_owned()
        });
        self.few(&format!("{at}.promises"), agreement.promises.len(), MOST_AGREED);
        for (place, promise) in agreement.promises.iter().enumerate().take(MOST_AGREED) {
            self.text(&format!("{at}.promises[{place}].says"), &promise.says, 1_000);
        }
        self.list(&format!("{at}.targets"), &agreement.targets, MOST_AGREED, |_| true, Check::target);
        self.list(&format!("{at}.cameras"), &agreement.cameras, MOST_AGREED, |_| true, Check::camera);
    }
}

/// The faults of a price list.
pub fn price_faults(at: &str, prices: &Prices) -> Vec<super::Fault> {
    let mut check = Check::default();
    check.prices(at, prices);
    check.faults
}
