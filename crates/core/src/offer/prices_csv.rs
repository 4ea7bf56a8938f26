//! A price list as a table: what it is, what one of it costs, in which money.

use super::bill::{LineKind, bill};
use crate::file::{Amount, Fault, ItemPrice, Prices, SiteFile, price_faults};
use crate::words::sheet_text::guarded;
use std::collections::HashMap;

/// The names of the list's own fields in the table.
const FIELDS: [&str; 5] = ["hour of work", "visit", "lift day", "margin per cent", "tax per cent"];

/// The prices of a site, and what still has none, as CSV.
///
/// # Errors
/// As [`bill`].
pub fn write(site: &SiteFile) -> Result<String, Fault> {
    let unknown = Prices::default();
    let prices = site.prices.as_ref().unwrap_or(&unknown);
    let currency = prices.currency.clone().unwrap_or_default();
    let mut out = csv::Writer::from_writer(Vec::new());
    // Writing to memory cannot fail.
    let _ = out.write_record(["what", "each", "currency"]);
    let mut row = |what: &str, each: &str| drop(out.write_record([&guarded(what), each, &currency]));
    for line in bill(site)?.lines.iter().filter(|line| line.kind == LineKind::Goods) {
        if let Some(what) = &line.priced_as {
            row(what, line.each.as_deref().unwrap_or(""));
        }
    }
    for (name, amount) in FIELDS.iter().zip(fields(prices)) {
        row(name, amount.map_or("", |amount| amount.0.as_str()));
    }
    Ok(String::from_utf8(out.into_inner().unwrap_or_default()).unwrap_or_default())
}

fn fields(prices: &Prices) -> [Option<&Amount>; 5] {
    [&prices.hour, &prices.visit, &prices.lift_day, &prices.margin_percent, &prices.tax_percent].map(Option::as_ref)
}

/// The prices with those of a table in them. An empty price leaves what is there.
///
/// # Errors
/// Every fault with its line: a price that is none or negative, a thing twice, two currencies.
///
/// ```
/// use bright_angle_core::{file::Prices, offer::prices_csv::read_into};
/// let read = read_into(&Prices::default(), "what,each,currency\nLanyard,2.50,EUR\nhour of work,58,EUR\n").unwrap();
/// assert_eq!((read.items[0].each.0.as_str(), read.hour.unwrap().0.as_str()), ("2.50", "58"));
/// ```
pub fn read_into(prices: &Prices, text: &str) -> Result<Prices, Vec<Fault>> {
    let mut read = prices.clone();
    let mut faults: Vec<Fault> = Vec::new();
    let mut seen: HashMap<String, usize> = HashMap::new();
    let mut lines = csv::ReaderBuilder::new()
        .flexible(true)
        .trim(csv::Trim::All)
        .from_reader(text.trim_start_matches('\u{feff}').as_bytes());
    let heads =
        lines.headers().map(|heads| heads.iter().map(str::to_lowercase).collect::<Vec<_>>()).unwrap_or_default();
    let column = |name: &str| heads.iter().position(|head| head == name);
    let (Some(what), Some(each)) = (column("what"), column("each")) else {
        return Err(vec![Fault::new("line 1", "names its columns: what, each, currency")]);
    };
    let mut currency = prices.currency.clone();
    for (place, line) in lines.records().enumerate() {
        let at = format!("line {}", place + 2);
        let line = match line {
            Ok(line) => line,
            Err(error) => {
                faults.push(Fault::new(at, error.to_string()));
                continue;
            }
        };
        let of = |column: usize| line.get(column).unwrap_or("");
        // A quote before a sign keeps a spreadsheet from taking it for a formula.
        let name = of(what).strip_prefix('\'').unwrap_or(of(what));
        if name.is_empty() || of(each).is_empty() {
            continue;
        }
        let money = column("currency").map_or("", of);
        match &currency {
            _ if money.is_empty() => {}
            Some(one) if one != money => {
                faults.push(Fault::new(
                    &at,
                    format!("is in {money}, and what is before it in {one}: one money at a time"),
                ));
            }
            Some(_) => {}
            None => currency = Some(money.to_owned()),
        }
        if let Some(first) = seen.insert(name.to_lowercase(), place + 2) {
            faults.push(Fault::new(&at, format!("\"{name}\" stands in line {first} too")));
            continue;
        }
        let amount = Amount(of(each).to_owned());
        if let Some(fault) = amount.fault() {
            faults.push(Fault::new(&at, fault));
            continue;
        }
        put(&mut read, name, amount);
    }
    read.currency = currency;
    faults.extend(if faults.is_empty() { price_faults("prices", &read) } else { vec![] });
    if faults.is_empty() { Ok(read) } else { Err(faults) }
}

fn put(prices: &mut Prices, name: &str, amount: Amount) {
    let own = [
        &mut prices.hour,
        &mut prices.visit,
        &mut prices.lift_day,
        &mut prices.margin_percent,
        &mut prices.tax_percent,
    ];
    if let Some((_, field)) = FIELDS.iter().zip(own).find(|(field, _)| **field == name) {
        *field = Some(amount);
    } else if let Some(held) = prices.items.iter_mut().find(|item| item.what == name) {
        held.each = amount;
    } else {
        prices.items.push(ItemPrice { what: name.to_owned(), each: amount });
    }
}
