//! What stands on the papers, part by part.

use super::layout::Pages;
use super::type_set::Face;
use super::views::view;
use crate::coverage::coverage;
use bright_angle_core::Fault;
use bright_angle_core::exchange::plan::Plan;
use bright_angle_core::exchange::svg;
use bright_angle_core::judge::Session;
use bright_angle_core::offer::bill::Bill;
use bright_angle_core::offer::paper::{Paper, PaperCamera, PaperHead, paper};
use bright_angle_core::words::units::Units;
use bright_angle_core::work::Patience;
use krilla::image::Image;
use serde::{Deserialize, Serialize};
use std::collections::HashMap;
use std::sync::Arc;
use utoipa::ToSchema;

/// A part of the papers.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema, clap::ValueEnum)]
#[serde(rename_all = "snake_case")]
#[value(rename_all = "snake_case")]
pub enum PaperPart {
    /// What is promised, and what it costs.
    Quote,
    /// Options with their prices.
    Options,
    /// What it is, for whom, by whom.
    Cover,
    /// The plan with what is covered.
    Plan,
    /// The cameras with their aims.
    Schedule,
    /// A page a view.
    Views,
    /// Promises with what they rest on.
    Promises,
    /// Runs, addresses and the store.
    Network,
    /// Settings of each head.
    Settings,
    /// What it does not do, privacy, upkeep, cautions.
    Notes,
    /// What was agreed, or where to sign.
    Sign,
}

/// The size of a page.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema, clap::ValueEnum)]
#[serde(rename_all = "snake_case")]
pub enum PaperSize {
    /// ISO 216 A4, 210 × 297 mm.
    #[default]
    A4,
    /// 8.5 × 11 inches.
    Letter,
}

impl PaperSize {
    fn points(self) -> [f32; 2] {
        match self {
            PaperSize::A4 => [595.28, 841.89],
            PaperSize::Letter => [612.0, 792.0],
        }
    }
}

/// Which papers, and how.
#[derive(Clone, Debug)]
pub struct PaperWish {
    /// The parts, in their order.
    pub parts: Vec<PaperPart>,
    /// The size of a page.
    pub size: PaperSize,
    /// Units of lengths.
    pub units: Units,
}

/// The papers of a site as a PDF. `photos` are pictures of the store by their names, as PNG or JPEG.
///
/// # Errors
/// When nobody waits any more; what stands against options or prices.
pub fn pdf(
    session: &Session,
    photos: &HashMap<String, Vec<u8>>,
    wish: &PaperWish,
    patience: &Patience,
) -> Result<Vec<u8>, Fault> {
    let paper = paper(session, wish.units, patience)?;
    let mut pages = Pages::new(wish.size.points(), &format!("{} · made with Bright Angle", paper.site));
    let mut composer = Composer { session, paper: &paper, photos, wish, patience, pages: &mut pages };
    if !wish.parts.contains(&PaperPart::Cover) {
        composer.title(if wish.parts.contains(&PaperPart::Quote) { "Quote" } else { "Papers" });
    }
    for part in &wish.parts {
        composer.part(*part)?;
    }
    pages.written(&paper.site).map_err(|error| Fault::new("", format!("the PDF cannot be written: {error}")))
}

struct Composer<'a> {
    session: &'a Session,
    paper: &'a Paper,
    photos: &'a HashMap<String, Vec<u8>>,
    wish: &'a PaperWish,
    patience: &'a Patience<'a>,
    pages: &'a mut Pages,
}

/// What something costs, with its money. What is unknown is never nothing.
fn costs(bill: &Bill) -> String {
    if bill.nothing_known {
        return "not priced yet".to_owned();
    }
    let money = bill.currency.as_ref().map_or(String::new(), |money| format!("{money} "));
    let rest = if bill.unknown.is_empty() { "" } else { " and what is not priced yet" };
    format!("{money}{}{rest}", bill.total)
}

impl Composer<'_> {
    fn part(&mut self, part: PaperPart) -> Result<(), Fault> {
        match part {
            PaperPart::Cover => self.cover(),
            PaperPart::Quote => self.quote(),
            PaperPart::Options => self.options(),
            PaperPart::Plan => self.plan()?,
            PaperPart::Schedule => self.schedule(),
            PaperPart::Views => self.views()?,
            PaperPart::Promises => self.promises(),
            PaperPart::Network => self.network(),
            PaperPart::Settings => self.settings(),
            PaperPart::Notes => self.notes(),
            PaperPart::Sign => self.sign(),
        }
        Ok(())
    }

    fn title(&mut self, what: &str) {
        if let Some(firm) = &self.paper.firm {
            self.pages.paragraph(firm, Face::STRONG);
        }
        self.pages.heading(1, &self.paper.site);
        let mut says = what.to_owned();
        for (before, text) in [(" for ", &self.paper.client), (", ", &self.paper.address)] {
            if let Some(text) = text {
                says.push_str(before);
                says.push_str(text);
            }
        }
        if let Some(day) = self.paper.valid_until.as_ref().filter(|_| what == "Quote") {
            says.push_str(&format!(" · holds until {day}"));
        }
        self.pages.paragraph(&says, Face::BODY);
        if let Some(note) = &self.paper.note {
            self.pages.paragraph(note, Face::BODY);
        }
    }

    fn cover(&mut self) {
        self.pages.room(120.0);
        self.title("Hand-over");
        self.pages.room(20.0);
        let kept = self.paper.promises.iter().filter(|one| one.verdict.word() == "kept").count();
        let says = format!(
            "{} cameras; {kept} of {} promises kept, {}.",
            self.paper.cameras.len(),
            self.paper.promises.len(),
            self.paper.conditions
        );
        self.pages.paragraph(&says, Face::BODY);
        self.pages.new_page();
    }

    fn quote(&mut self) {
        let paper = self.paper;
        self.pages.heading(2, &format!("What is promised, {}", paper.conditions));
        let rows = paper.promises.iter().map(|one| {
            let camera = one.camera.clone().unwrap_or_else(|| "—".to_owned());
            let because = one.because.as_ref().map_or(String::new(), |because| format!(": {because}"));
            vec![one.name.clone(), one.says.clone(), camera, format!("{}{because}", one.verdict.word())]
        });
        self.pages.table(&["Promise", "What for", "By", "It is"], &[3.0, 4.2, 1.2, 2.6], &rows.collect::<Vec<_>>());
        self.pages.heading(2, "What it costs");
        self.pages.paragraph(&costs(&paper.bill), Face { size: 15.0, ..Face::STRONG });
        self.bill(&paper.bill);
    }

    fn bill(&mut self, bill: &Bill) {
        // What has no price is named below, and makes no line of its own.
        let priced = bill.lines.iter().filter_map(|line| Some((line, line.total.clone()?)));
        let mut rows: Vec<Vec<String>> = priced
            .map(|(line, total)| vec![line.what.clone(), format!("{} {}", line.count, line.unit), total])
            .collect();
        if rows.is_empty() {
            return;
        }
        let mut sum = |what: &str, amount: &str| rows.push(vec![what.to_owned(), String::new(), amount.to_owned()]);
        if bill.margin.chars().any(|digit| ('1'..='9').contains(&digit)) {
            sum("Handling of what is bought", &bill.margin);
        }
        sum("Before tax", &bill.net);
        sum(if bill.tax_known { "Tax" } else { "Tax is not stated" }, &bill.tax);
        sum("Together", &bill.total);
        self.pages.table(&["What", "How much", "Costs"], &[5.0, 1.5, 1.5], &rows);
        if !bill.unknown.is_empty() {
            let says = format!("Not priced: {}. All of it costs at least what stands here.", bill.unknown.join(", "));
            self.pages.paragraph(&says, Face::FINE);
        }
    }

    fn options(&mut self) {
        if self.paper.options.is_empty() {
            return;
        }
        self.pages.heading(2, "Options");
        let rows = self.paper.options.iter().map(|priced| {
            let option = &priced.option;
            let falls: Vec<&str> = option.falls_away.iter().map(|falls| falls.says.as_str()).collect();
            let falls = if falls.is_empty() { "nothing".to_owned() } else { falls.join("; ") };
            vec![option.name.clone(), option.cameras.len().to_string(), falls, costs(&priced.bill)]
        });
        let heads = ["Option", "Cameras", "What falls away", "Price"];
        self.pages.table(&heads, &[2.0, 1.0, 4.5, 2.0], &rows.collect::<Vec<_>>());
    }

    fn plan(&mut self) -> Result<(), Fault> {
        let mut plan = Plan::judged(self.session);
        plan.coverage = coverage(self.session.site(), self.patience).unwrap_or_default();
        let drawn = svg::write(&plan);
        let mut options = usvg::Options { font_family: "Barlow".to_owned(), ..usvg::Options::default() };
        let fonts = Arc::make_mut(&mut options.fontdb);
        for font in super::type_set::FONTS {
            fonts.load_font_data(font.to_vec());
        }
        fonts.set_sans_serif_family("Barlow");
        let tree = usvg::Tree::from_str(&drawn, &options).map_err(|error| Fault::new("", error.to_string()))?;
        let alt = format!("Plan of {} with what the cameras cover, north up, to scale", self.paper.site);
        self.pages.drawing("Plan", tree, &alt);
        Ok(())
    }

    fn schedule(&mut self) {
        self.pages.heading(2, "Cameras");
        let rows = self.paper.cameras.iter().map(|camera| {
            let aims = camera.heads.iter().map(|head| match &head.as_built {
                Some(built) => format!("{}; as built: {built}", head.aim),
                None => head.aim.clone(),
            });
            let before = if camera.there_before { ", was there before" } else { "" };
            vec![
                camera.name.clone(),
                format!("{}{before}", camera.model),
                format!("{}, {} up", camera.spot, camera.height),
                aims.collect::<Vec<_>>().join("; "),
            ]
        });
        let heads = ["Camera", "Model", "Where", "Aim by design, and as built"];
        self.pages.table(&heads, &[1.3, 2.6, 2.8, 4.2], &rows.collect::<Vec<_>>());
    }

    fn views(&mut self) -> Result<(), Fault> {
        let heads: Vec<(&PaperCamera, &PaperHead)> =
            self.paper.cameras.iter().flat_map(|camera| camera.heads.iter().map(move |head| (camera, head))).collect();
        for (camera, PaperHead { head, in_photo, .. }) in &heads {
            self.patience
                .check(|| "its papers take longer than is allowed here".to_owned())
                .map_err(|over| Fault::new("", over.to_string()))?;
            let photo = in_photo.as_ref();
            let photo = photo.and_then(|laid| Some((laid, self.photos.get(&laid.picture)?.as_slice())));
            let Some(shown) = view(self.session, head, heads.len(), photo, self.patience)? else { continue };
            self.pages.new_page();
            self.pages.heading(2, &camera.name);
            self.pages.paragraph(&format!("{}. {}.", camera.model, camera.what_for), Face::BODY);
            let name = |id: &String| {
                let promise = self.paper.promises.iter().find(|promise| &promise.target == id);
                promise.map_or_else(|| id.clone(), |promise| promise.name.clone())
            };
            let named: Vec<([f32; 4], String)> = shown.marks.iter().map(|(at, id)| (*at, name(id))).collect();
            let how = if shown.in_photo { "in a photo from its spot" } else { "computed" };
            self.pages.picture(shown.image, &format!("What {} will see, {how}", camera.name), 420.0, &named);
            let masked: Vec<&str> = camera
                .heads
                .iter()
                .filter(|of| of.head == *head)
                .flat_map(|of| &of.masked)
                .map(String::as_str)
                .collect();
            let masked = if masked.is_empty() { String::new() } else { format!(" Masked: {}.", masked.join(", ")) };
            let says = if shown.in_photo {
                format!("A photo from its spot, turned to what the camera will see.{masked}")
            } else {
                format!("Computed picture: what is not drawn on the plan is not in it.{masked}")
            };
            self.pages.paragraph(&says, Face::FINE);
            self.photos_of(camera);
        }
        Ok(())
    }

    /// What was photographed: as it was fitted, else from where it is to hang.
    fn photos_of(&mut self, camera: &PaperCamera) {
        let (taken, says) = match camera.photos.first() {
            Some(photo) => (Some(photo), "as fitted"),
            None => (camera.from_spot.first(), "from its spot"),
        };
        let Some(bytes) = taken.and_then(|name| self.photos.get(name)) else { return };
        let image =
            Image::from_jpeg(bytes.clone().into(), true).or_else(|_| Image::from_png(bytes.clone().into(), true));
        if let Ok(image) = image {
            self.pages.paragraph(&format!("Photographed {says}:"), Face::FINE);
            self.pages.picture(image, &format!("Photo of {}, {says}", camera.name), 230.0, &[]);
        }
    }

    fn promises(&mut self) {
        let paper = self.paper;
        self.pages.heading(2, &format!("Promises, {}", paper.conditions));
        let rows = paper.promises.iter().map(|one| {
            let because = one.because.as_ref().map_or(String::new(), |because| format!(": {because}"));
            let stands = match one.designed {
                Some(designed) => format!("{} by design, {} as built{because}", designed.word(), one.verdict.word()),
                None => format!("{}{because}", one.verdict.word()),
            };
            let rests = format!(
                "needs {:.0}, gets {:.0} px/m; {}. {}",
                one.needs_px_per_m, one.px_per_m, one.basis, one.leaves_out
            );
            vec![one.name.clone(), one.says.clone(), stands, rests]
        });
        let heads = ["Promise", "What for", "It is", "What that rests on"];
        self.pages.table(&heads, &[2.4, 2.8, 2.2, 4.0], &rows.collect::<Vec<_>>());
        self.proved();
    }

    /// What walk tests showed, and which pictures are kept.
    fn proved(&mut self) {
        let paper = self.paper;
        let rows: Vec<Vec<String>> = paper
            .proved
            .iter()
            .map(|one| vec![one.name.clone(), one.day_says.clone(), one.night_says.clone()])
            .collect();
        if !rows.is_empty() {
            self.pages.heading(2, "As proved");
            self.pages.table(&["Promise", "By day", "By night"], &[2.4, 3.4, 3.4], &rows);
        }
        if !paper.evidence.is_empty() {
            self.pages.heading(2, "Pictures kept");
            let lines = paper.evidence.iter().map(|one| format!("{} (SHA-256 {}…)", one.says, &one.picture[..16]));
            self.pages.list(&lines.collect::<Vec<_>>());
        }
    }

    fn network(&mut self) {
        let Paper { network, wiring, store, .. } = self.paper;
        self.pages.heading(2, "Runs, network and store");
        let label = |id: &str| {
            let found = network.labels.iter().find(|label| label.cable == id);
            found.map_or_else(|| id.to_owned(), |label| label.here.clone())
        };
        let rows = wiring.cables.iter().map(|cable| {
            let length = self.wish.units.reach(cable.length_m);
            vec![label(&cable.id), length, cable.verdict.word().to_owned()]
        });
        let rows: Vec<Vec<String>> = rows.collect();
        if !rows.is_empty() {
            self.pages.table(&["Cable", "Length", "It is"], &[4.0, 1.5, 2.0], &rows);
        }
        let rows = network.rows.iter().map(|row| {
            let port = row.port.map_or(String::new(), |port| format!(", port {port}"));
            let on = row.on.as_ref().map_or("—".to_owned(), |on| format!("{on}{port}"));
            let address = row.address.clone().unwrap_or_else(|| "—".to_owned());
            let password = if row.password_changed { "yes" } else { "not yet" };
            vec![row.name.clone(), address, on, password.to_owned()]
        });
        let rows: Vec<Vec<String>> = rows.collect();
        if !rows.is_empty() {
            self.pages.table(&["Device", "Address", "On", "Password changed"], &[2.0, 2.0, 3.0, 1.6], &rows);
        }
        let mut says = format!("The store takes {:.0} GB a day", store.gb_per_day);
        if let Some(days) = store.days {
            says.push_str(&format!("; {days} days are promised"));
        }
        if let Some(days) = store.holds_days {
            says.push_str(&format!("; it holds {days:.0}"));
        }
        self.pages.paragraph(&format!("{says}."), Face::BODY);
    }

    fn settings(&mut self) {
        self.pages.heading(2, "Settings");
        for card in &self.paper.settings {
            self.pages.need(60.0);
            self.pages.paragraph(&format!("{} ({})", card.name, card.model), Face::STRONG);
            let rows = card.lines.iter().map(|line| vec![line.name.to_owned(), line.day.clone(), line.night.clone()]);
            self.pages.table(&["Setting", "By day", "By night"], &[2.0, 3.0, 3.0], &rows.collect::<Vec<_>>());
        }
    }

    fn notes(&mut self) {
        let paper = self.paper;
        let handed_over = !self.wish.parts.contains(&PaperPart::Quote);
        for (title, lines) in [
            ("What it does not do", &paper.does_not),
            ("Privacy and sound", &paper.privacy),
            ("Upkeep", &paper.upkeep),
            ("Mind", &paper.cautions),
        ] {
            if title != "Upkeep" || handed_over {
                self.pages.heading(2, title);
                self.pages.list(lines);
            }
        }
    }

    fn sign(&mut self) {
        self.pages.need(150.0);
        self.pages.heading(2, "Agreed");
        let Some(agreed) = &self.paper.agreed else {
            let says = "The promises, what each camera is for and what it does not do are agreed.";
            self.pages.paragraph(says, Face::BODY);
            self.pages.blanks(&["Name", "Day", "Signature"]);
            return;
        };
        let since = if agreed.promises.is_empty() { "." } else { "; since then:" };
        self.pages.paragraph(&format!("By {} on {}{since}", agreed.name, agreed.date), Face::BODY);
        let since: Vec<String> = agreed.promises.iter().map(|promise| promise.says.clone()).collect();
        if !since.is_empty() {
            self.pages.list(&since);
        }
        self.pages.signature(&agreed.signature, &format!("Signature of {}", agreed.name));
    }
}
