//! Prices: sums against a spreadsheet (outside/prices: openpyxl and formulas) and by hand; lists as CSV; agreements and what is otherwise since.

use crate::support::{CameraAt, DEMOS, parse, site};
use bright_angle_core::file::{AgreedBy, Prices, SiteFile};
use bright_angle_core::judge::Session;
use bright_angle_core::offer::agreed::{Signed, against, agree};
use bright_angle_core::offer::bill::{Bill, LineKind, bill};
use bright_angle_core::offer::prices_csv::{read_into, write};
use bright_angle_core::verdict::Verdict;
use bright_angle_core::words::units::Units;
use serde_json::{Value, json};

fn billed(file: &Value) -> Bill {
    bill(parse(file).file()).unwrap()
}

fn extras(lines: &[[&str; 2]]) -> Value {
    let of = |(place, [count, each]): (usize, &[&str; 2])| json!({"name": format!("Line {place}"), "count": count, "each": each});
    json!(lines.iter().enumerate().map(of).collect::<Vec<_>>())
}

#[test]
fn sums_are_those_of_a_spreadsheet() {
    let cases: Vec<Value> = serde_json::from_str(include_str!("../../../outside/prices/bills.json")).unwrap();
    assert_eq!(cases.len(), 60);
    for (number, case) in cases.iter().enumerate() {
        let lines: Vec<[&str; 2]> = case["lines"]
            .as_array()
            .unwrap()
            .iter()
            .map(|line| [line[0].as_str().unwrap(), line[1].as_str().unwrap()])
            .collect();
        let mut file = site(vec![], vec![], vec![]);
        file["prices"] =
            json!({"currency": case["currency"], "tax_percent": case["tax_percent"], "extras": extras(&lines)});
        let found = billed(&file);
        assert_eq!(
            [&found.net, &found.tax, &found.total],
            [&case["net"], &case["tax"], &case["total"]],
            "bill {number}"
        );
    }
}

#[test]
fn halves_of_the_least_coin_are_rounded_away_from_nothing_by_hand() {
    // 1 × 1.005 = 1.005 → 1.01; 3 × 0.335 = 1.005 → 1.01; 2.5 × 0.01 = 0.025 → 0.03: 2.05; 7 % of it 0.1435 → 0.14.
    let mut file = site(vec![], vec![], vec![]);
    file["prices"] = json!({"currency": "EUR", "tax_percent": "7",
        "extras": extras(&[["1", "1.005"], ["3", "0.335"], ["2.5", "0.01"]])});
    let found = billed(&file);
    let totals: Vec<&str> = found.lines.iter().map(|line| line.total.as_deref().unwrap()).collect();
    assert_eq!(totals, ["1.01", "1.01", "0.03"]);
    assert_eq!([found.net.as_str(), &found.tax, &found.total], ["2.05", "0.14", "2.19"]);
    // A yen has no smaller coin: 1.005 → 1, 1.005 → 1, 0.025 → 0.
    file["prices"]["currency"] = json!("JPY");
    assert_eq!(billed(&file).net, "2");
    // A tenth and two tenths are three tenths.
    file["prices"] = json!({"extras": extras(&[["1", "0.1"], ["1", "0.2"]])});
    assert_eq!(billed(&file).total, "0.30");
}

#[test]
fn a_camera_with_its_margin_and_hours_by_hand() {
    let mut camera = CameraAt::default().json();
    camera["model"]["price"] = json!(199.9);
    let mut file = site(vec![camera], vec![], vec![]);
    file["prices"] = json!({"currency": "EUR", "hour": "60", "margin_percent": "25", "tax_percent": "20", "visit": "40",
        "work": [{"work": "bench", "hours": "0.5"}, {"work": "ladder", "hours": "3", "hour": "72.50"}, {"work": "night", "hours": "0"}]});
    let found = billed(&file);
    let line =
        |what: &str| found.lines.iter().find(|line| line.what == what).unwrap_or_else(|| panic!("{what}: {found:?}"));
    assert_eq!(line("Test").total.as_deref(), Some("199.90"));
    assert_eq!(line("Cameras set up on the bench").total.as_deref(), Some("30.00"));
    assert_eq!(line("Cameras hung and aimed from a ladder, two people").total.as_deref(), Some("217.50"));
    assert!(!found.lines.iter().any(|line| line.what.starts_with("Looked at again")), "no hours, no line");
    // Goods 199.90, a quarter on top 49.975 → 49.98; work 247.50; ways as often as somebody comes.
    let ways: f64 = line("The way there and back, each visit").total.as_ref().unwrap().parse().unwrap();
    let net = 199.90 + 49.98 + 247.50 + ways;
    assert_eq!([found.goods.as_str(), &found.margin, &found.net], ["199.90", "49.98", &format!("{net:.2}")]);
    // Small parts have no price yet, and are named.
    assert!(found.unknown.iter().any(|what| what == "Lanyard"), "{:?}", found.unknown);
    assert!(found.lines.iter().filter(|line| line.total.is_none()).count() == found.unknown.len());
    // What the list says goes before what the model carries.
    file["prices"]["items"] = json!([{"what": "Test", "each": "150"}]);
    assert_eq!(billed(&file).goods, "150.00");
}

#[test]
fn gear_that_is_there_costs_nothing() {
    let mut camera = CameraAt::default().json();
    (camera["model"]["price"], camera["existing"]) = (json!(199.9), json!("stays"));
    let found = billed(&site(vec![camera], vec![], vec![]));
    assert!(!found.lines.iter().any(|line| line.kind == LineKind::Goods && line.what == "Test"), "{found:?}");
}

#[test]
fn amounts_that_are_none_are_refused_with_their_place() {
    for (prices, path, message) in [
        (json!({"hour": "-1"}), "prices.hour", "\"-1\" is negative"),
        (json!({"hour": "1e3"}), "prices.hour", "\"1e3\" is no amount such as 12.50"),
        (json!({"visit": "NaN"}), "prices.visit", "\"NaN\" is no amount such as 12.50"),
        (json!({"currency": "eur"}), "prices.currency", "takes three capital letters, as in EUR"),
        (json!({"valid_until": "2026-02-30"}), "prices.valid_until", "is no day such as 2026-12-31"),
        (
            json!({"items": [{"what": "A", "each": "1"}, {"what": "A", "each": "2"}]}),
            "prices.items[1].what",
            "is there twice",
        ),
    ] {
        let mut file = site(vec![], vec![], vec![]);
        file["prices"] = prices;
        let faults = bright_angle_core::Site::parse(&file.to_string()).unwrap_err();
        assert_eq!((faults[0].path.as_str(), faults[0].message.as_str()), (path, message));
    }
}

#[test]
fn a_list_goes_out_and_comes_in_as_it_was() {
    let mut file: Value = serde_json::from_str(DEMOS[1]).unwrap();
    file["prices"] = json!({"currency": "EUR", "hour": "58", "items": [{"what": "Lanyard", "each": "2.50"}]});
    let written = write(parse(&file).file()).unwrap();
    assert!(written.lines().any(|line| line == "Lanyard,2.50,EUR"), "{written}");
    let held: Prices = serde_json::from_value(file["prices"].clone()).unwrap();
    let read = read_into(&held, &written).unwrap();
    assert_eq!((read.currency.as_deref(), read.hour.as_ref()), (Some("EUR"), held.hour.as_ref()));
    assert!(read.items.iter().any(|item| item.what == "Lanyard" && item.each.0 == "2.50"));
    for (csv, says) in [
        ("what,each,currency\nA,1,USD\n", "is in USD, and what is before it in EUR: one money at a time"),
        ("what,each,currency\nA,-1,EUR\n", "\"-1\" is negative"),
        ("what,each,currency\nA,1,EUR\na,2,EUR\n", "\"a\" stands in line 2 too"),
        ("name,cost\nA,1\n", "names its columns: what, each, currency"),
    ] {
        let faults = read_into(&held, csv).unwrap_err();
        assert_eq!(faults[0].message, says);
    }
}

fn applied(file: &SiteFile, patch: impl serde::Serialize) -> SiteFile {
    let mut value = json!(file);
    json_patch::patch(&mut value, &serde_json::from_value::<json_patch::Patch>(json!(patch)).unwrap()).unwrap();
    parse(&value).file().clone()
}

fn signed() -> Signed {
    Signed {
        name: "A. Client".into(),
        date: "2026-11-30".into(),
        by: AgreedBy::Tablet,
        signature: vec![vec![[0.2, 0.5], [0.4, 0.6]]],
    }
}

#[test]
fn what_was_agreed_is_held_against_what_stands_now() {
    let file: SiteFile = serde_json::from_str(DEMOS[0]).unwrap();
    let file = SiteFile { readings: vec![], ..file };
    let session = Session::open(file.clone()).unwrap();
    let file = applied(&file, agree(&session, signed()).unwrap());
    assert_eq!(file.agreements.len(), 1);
    let now = |file: SiteFile| {
        let session = Session::open(file).unwrap();
        against(&session, &session.site().file().agreements[0], Units::Metres).unwrap()
    };
    let same = now(file.clone());
    assert!(same.promises.is_empty() && same.changes.is_empty(), "{same:?}");
    // A camera that kept something is turned away: its promise stands otherwise, and what was changed is named.
    let kept = session.results().iter().find(|result| result.verdict == Verdict::Kept).unwrap();
    let best = kept.best.clone().unwrap();
    let mut turned = file.clone();
    let camera = turned.cameras.iter_mut().find(|camera| camera.id == best.camera).unwrap();
    camera.heads.iter_mut().for_each(|head| head.pan_deg = (head.pan_deg + 180.0) % 360.0);
    let since = now(turned);
    let promise = since.promises.iter().find(|promise| promise.target == kept.target).unwrap();
    assert_eq!((promise.agreed, promise.now), (Some(Verdict::Kept), Some(Verdict::Broken)));
    assert!(promise.says.ends_with("kept when it was agreed, broken now"), "{}", promise.says);
    assert!(since.changes.iter().any(|change| change.id == best.camera), "{:?}", since.changes);
    // A promise that is taken out, and one that is new.
    let mut fewer = file.clone();
    let gone = fewer.targets.remove(0);
    let mut new = gone.clone();
    new.id = "new".into();
    fewer.targets.push(new);
    let since = now(fewer);
    let of = |id: &str| since.promises.iter().find(|promise| promise.target == id).unwrap();
    assert_eq!((of(&gone.id).now, of("new").agreed), (None, None));
    // A second agreement stands beside the first, which stays as it was.
    let again = applied(&file, agree(&Session::open(file.clone()).unwrap(), signed()).unwrap());
    assert_eq!((again.agreements.len(), &again.agreements[0]), (2, &file.agreements[0]));
}

#[test]
fn an_agreement_of_nobody_or_outside_its_field_is_refused() {
    let session = Session::open(serde_json::from_str(DEMOS[0]).unwrap()).unwrap();
    let of = |change: &dyn Fn(&mut Signed)| {
        let mut signed = signed();
        change(&mut signed);
        agree(&session, signed).unwrap_err()[0].clone()
    };
    assert_eq!(of(&|signed| signed.name = String::new()).path, "agreements[0].name");
    assert_eq!(of(&|signed| signed.date = "soon".into()).path, "agreements[0].date");
    assert_eq!(of(&|signed| signed.signature[0][0] = [2.0, 0.5]).message, "leaves its field");
}
