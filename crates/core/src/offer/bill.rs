//! What a design costs: each line by what is known, in decimals. What nobody has priced is named as unknown, never guessed, and never nothing.

use crate::file::{Amount, CableWay, Fault, Model, Prices, SiteFile, Work};
use crate::fit::day::{Days, Trade, days};
use crate::fit::materials::{MaterialKind, materials};
use crate::wire::wired::wired;
use rust_decimal::{Decimal, RoundingStrategy};
use serde::Serialize;
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// What a line is about.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LineKind {
    /// Cameras, mounts, boxes, small parts.
    Goods,
    /// Cable with its laying.
    Cable,
    /// Hours of work.
    Work,
    /// Ways, lifts.
    Travel,
    /// Whatever else.
    Extra,
}

/// A line of the bill.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct BillLine {
    /// What it is about.
    pub kind: LineKind,
    /// What it is.
    pub what: String,
    /// How much of it, in decimals.
    pub count: String,
    /// `m`, `h`, or empty for pieces.
    pub unit: &'static str,
    /// What one costs, in decimals; null where nobody has said.
    #[schema(required)]
    pub each: Option<String>,
    /// What all of it costs, rounded to the least coin; null where one is unknown.
    #[schema(required)]
    pub total: Option<String>,
    /// The name that its price is entered by; null where it is one of the list's own fields.
    #[schema(required)]
    pub priced_as: Option<String>,
}

/// What all of it costs.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Bill {
    /// The money; null where nobody has said which.
    #[schema(required)]
    pub currency: Option<String>,
    /// The lines.
    pub lines: Vec<BillLine>,
    /// What is bought, before the margin.
    pub goods: String,
    /// The margin on it.
    pub margin: String,
    /// All of it with the margin, before tax: of what is known.
    pub net: String,
    /// Tax on that.
    pub tax: String,
    /// All of it: of what is known.
    pub total: String,
    /// The lines whose price nobody knows. While there are any, the sums are at least so much.
    pub unknown: Vec<String>,
    /// Whether not one line has a price.
    pub nothing_known: bool,
    /// Whether tax is stated.
    pub tax_known: bool,
}

/// What a site costs by its price list.
///
/// # Errors
/// As the day of fitting; a figure that no decimal holds.
///
/// ```
/// use bright_angle_core::{file::SiteFile, offer::bill::bill};
/// assert_eq!(bill(&SiteFile::empty("Yard")).unwrap().total, "0.00");
/// ```
pub fn bill(site: &SiteFile) -> Result<Bill, Fault> {
    let unknown = Prices::default();
    let prices = site.prices.as_ref().unwrap_or(&unknown);
    let mut sums = Sums { lines: vec![], places: places_of(prices.currency.as_deref()) };
    sums.goods(site, prices)?;
    sums.cable(site)?;
    let days = days(site)?;
    sums.work(prices, &days)?;
    sums.travel(prices, &days)?;
    for extra in &prices.extras {
        let each = extra.each.as_ref().map(decimal).transpose()?;
        sums.line(LineKind::Extra, &extra.name, decimal(&extra.count)?, "", each, None);
    }
    sums.told(prices)
}

/// How many digits the least coin of a currency has (ISO 4217, from memory): two for nearly all.
fn places_of(currency: Option<&str>) -> u32 {
    match currency {
        Some(
            "BIF" | "CLP" | "DJF" | "GNF" | "ISK" | "JPY" | "KMF" | "KRW" | "PYG" | "RWF" | "UGX" | "VND" | "XAF"
            | "XOF" | "XPF",
        ) => 0,
        Some("BHD" | "IQD" | "JOD" | "KWD" | "LYD" | "OMR" | "TND") => 3,
        _ => 2,
    }
}

/// An amount that was read as a decimal.
pub(super) fn decimal(amount: &Amount) -> Result<Decimal, Fault> {
    amount.0.parse().map_err(|_| Fault::new("prices", format!("\"{amount}\" is no amount such as 12.50")))
}

/// A figure of the file as the decimal that it is written as.
pub(super) fn as_written(value: f64) -> Result<Decimal, Fault> {
    let text = value.to_string();
    text.parse()
        .or_else(|_| Decimal::from_scientific(&text))
        .map_err(|_| Fault::new("prices", format!("{text} is too large")))
}

/// A quantity that was computed, to hundredths.
fn quantity(value: f64) -> Result<Decimal, Fault> {
    as_written((value * 100.0).round() / 100.0)
}

struct Sums {
    lines: Vec<(BillLine, Option<Decimal>)>,
    places: u32,
}

impl Sums {
    fn rounded(&self, value: Decimal) -> Decimal {
        value.round_dp_with_strategy(self.places, RoundingStrategy::MidpointAwayFromZero)
    }

    fn written(&self, value: Decimal) -> String {
        let mut rounded = self.rounded(value);
        rounded.rescale(self.places);
        rounded.to_string()
    }

    fn line(
        &mut self,
        kind: LineKind,
        what: &str,
        count: Decimal,
        unit: &'static str,
        each: Option<Decimal>,
        priced_as: Option<&str>,
    ) {
        let total = each.and_then(|each| each.checked_mul(count)).map(|total| self.rounded(total));
        let line = BillLine {
            kind,
            what: what.to_owned(),
            count: count.normalize().to_string(),
            unit,
            each: each.map(|each| if each.scale() < self.places { self.written(each) } else { each.to_string() }),
            total: total.map(|total| self.written(total)),
            priced_as: priced_as.map(str::to_owned),
        };
        self.lines.push((line, total));
    }

    /// What is bought. Cable is charged by the metre as it is laid.
    fn goods(&mut self, site: &SiteFile, prices: &Prices) -> Result<(), Fault> {
        for one in materials(site).bought {
            if one.kind == MaterialKind::Cable {
                continue;
            }
            let listed = prices.items.iter().find(|item| item.what == one.what);
            let each = match (listed, one.price) {
                (Some(item), _) => Some(decimal(&item.each)?),
                (None, Some(price)) => Some(as_written(price)?),
                (None, None) => box_price(site, &one.what, one.kind).map(as_written).transpose()?,
            };
            let count = quantity(one.needed + one.spare)?;
            self.line(LineKind::Goods, &one.what, count, one.unit, each, Some(&one.what));
        }
        Ok(())
    }

    /// Metres by how they are laid, cable and labour together.
    fn cable(&mut self, site: &SiteFile) -> Result<(), Fault> {
        let Some(network) = &site.network else { return Ok(()) };
        let told = wired(site);
        let mut metres: BTreeMap<&'static str, (f64, CableWay)> = BTreeMap::new();
        let mut trench = 0.0;
        for cable in network.cables.iter().filter(|cable| cable.existing.is_none() && cable.kind.takes_a_port()) {
            let Some(run) = told.cables.iter().find(|run| run.id == cable.id) else { continue };
            let way = cable.way.unwrap_or(CableWay::Wall);
            metres.entry(way_word(way)).or_insert((0.0, way)).0 += run.length_m;
            if way == CableWay::Trench {
                trench += run.length_m;
            }
        }
        for (word, (length, way)) in metres {
            let each = site.rules.wiring.prices.per_m(way).map(as_written).transpose()?;
            self.line(LineKind::Cable, &format!("Cable laid {word}"), quantity(length.ceil())?, "m", each, None);
        }
        if trench > 0.0 {
            let each = site.rules.wiring.prices.dig.map(as_written).transpose()?;
            // Each metre as if alone: cables that share a trench are dug for once, so this is the most it can be.
            self.line(LineKind::Cable, "Trench, at most", quantity(trench.ceil())?, "m", each, None);
        }
        Ok(())
    }

    fn work(&mut self, prices: &Prices, days: &Days) -> Result<(), Fault> {
        for work in Work::ALL {
            let own = prices.work.iter().find(|one| one.work == work);
            let hours = match own.and_then(|one| one.hours.as_ref()) {
                Some(hours) => decimal(hours)?,
                None => quantity(hours_of(work, days))?,
            };
            if hours.is_zero() {
                continue;
            }
            let hour = own.and_then(|one| one.hour.as_ref()).or(prices.hour.as_ref()).map(decimal).transpose()?;
            self.line(LineKind::Work, work_word(work), hours, "h", hour, None);
        }
        Ok(())
    }

    fn travel(&mut self, prices: &Prices, days: &Days) -> Result<(), Fault> {
        let on_site = days.visits.iter().filter(|visit| visit.trade != Trade::Bench).count();
        if on_site > 0 {
            let each = prices.visit.as_ref().map(decimal).transpose()?;
            self.line(LineKind::Travel, "The way there and back, each visit", Decimal::from(on_site), "", each, None);
        }
        let lifts = days.visits.iter().filter(|visit| visit.trade == Trade::Lift).count();
        if lifts > 0 {
            let each = prices.lift_day.as_ref().map(decimal).transpose()?;
            self.line(LineKind::Travel, "Lift, each day", Decimal::from(lifts), "", each, None);
        }
        Ok(())
    }

    fn told(self, prices: &Prices) -> Result<Bill, Fault> {
        let too_large = || Fault::new("prices", "the sum is too large");
        let sum = |holds: &dyn Fn(LineKind) -> bool| {
            let of = self.lines.iter().filter(|(line, _)| holds(line.kind)).filter_map(|(_, total)| *total);
            of.into_iter().try_fold(Decimal::ZERO, Decimal::checked_add).ok_or_else(too_large)
        };
        let goods = sum(&|kind| kind == LineKind::Goods)?;
        let others = sum(&|kind| kind != LineKind::Goods)?;
        let share = |of: Decimal, per_cent: &Option<Amount>| -> Result<Decimal, Fault> {
            let Some(per_cent) = per_cent else { return Ok(Decimal::ZERO) };
            let share = decimal(per_cent)?.checked_mul(of).ok_or_else(too_large)?;
            Ok(self.rounded(share / Decimal::ONE_HUNDRED))
        };
        let margin = share(goods, &prices.margin_percent)?;
        let net = goods.checked_add(margin).and_then(|sum| sum.checked_add(others)).ok_or_else(too_large)?;
        let tax = share(net, &prices.tax_percent)?;
        let total = net.checked_add(tax).ok_or_else(too_large)?;
        let unknown = self.lines.iter().filter(|(line, _)| line.total.is_none()).map(|(line, _)| line.what.clone());
        Ok(Bill {
            currency: prices.currency.clone(),
            goods: self.written(goods),
            margin: self.written(margin),
            net: self.written(net),
            tax: self.written(tax),
            total: self.written(total),
            nothing_known: !self.lines.is_empty() && self.lines.iter().all(|(line, _)| line.total.is_none()),
            unknown: unknown.collect(),
            tax_known: prices.tax_percent.is_some(),
            lines: self.lines.iter().map(|(line, _)| line.clone()).collect(),
        })
    }
}

/// What a box of the network costs by the prices of wiring.
fn box_price(site: &SiteFile, what: &str, kind: MaterialKind) -> Option<f64> {
    use crate::file::NodeKind;
    let nodes = site.network.iter().flat_map(|network| &network.nodes);
    let node = nodes.into_iter().find(|node| node.name == what).filter(|_| kind == MaterialKind::Box)?;
    let prices = &site.rules.wiring.prices;
    match node.kind {
        NodeKind::Switch if node.ports.is_some_and(|ports| ports <= 8) => prices.switch_8,
        NodeKind::Switch if node.ports.is_some_and(|ports| ports <= 16) => prices.switch_16,
        NodeKind::Injector | NodeKind::Repeater | NodeKind::Extender => prices.small_box,
        _ => None,
    }
}

fn way_word(way: CableWay) -> &'static str {
    match way {
        CableWay::Wall => "along walls",
        CableWay::Ceiling => "above ceilings",
        CableWay::Conduit => "in conduit",
        CableWay::Trench => "in a trench",
        CableWay::Air => "through the air",
    }
}

fn work_word(work: Work) -> &'static str {
    match work {
        Work::Bench => "Cameras set up on the bench",
        Work::Boxes => "Boxes of the network put up, two people",
        Work::Ladder => "Cameras hung and aimed from a ladder, two people",
        Work::Lift => "Cameras hung and aimed from a lift, two people",
        Work::Night => "Looked at again by night",
    }
}

/// Hours of one person, as the day of fitting reckons them (common practice, no source).
fn hours_of(work: Work, days: &Days) -> f64 {
    let of = |trade: Trade| days.visits.iter().filter(move |visit| visit.trade == trade);
    match work {
        Work::Bench => of(Trade::Bench).map(|visit| visit.hours).sum(),
        Work::Night => of(Trade::Night).map(|visit| visit.hours).sum(),
        Work::Ladder => of(Trade::Ladder).map(|visit| 2.0 * visit.hours).sum(),
        Work::Lift => of(Trade::Lift).map(|visit| 2.0 * visit.hours).sum(),
        // Runs are stops too, and paid for by the metre.
        Work::Boxes => {
            let stops = of(Trade::Cable).flat_map(|visit| &visit.stops);
            stops.filter(|stop| stop.is_box).map(|stop| 2.0 * stop.hours).sum()
        }
    }
}

/// The price that a model is sold at: what the price list says goes before what the model carries.
pub(super) fn model_price(prices: Option<&Prices>, model: &Model) -> Result<Option<Decimal>, Fault> {
    let listed = prices.and_then(|prices| prices.items.iter().find(|item| item.what == model.name));
    match listed {
        Some(item) => decimal(&item.each).map(Some),
        None => model.price.map(as_written).transpose(),
    }
}
