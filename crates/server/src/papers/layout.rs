//! Pages: what is put on them one below the other, broken where a page ends, with its tags in the order in which it is read.

use super::type_set::{Face, SetText, TypeSetter};
use krilla::Document;
use krilla::color::luma;
use krilla::geom::{PathBuilder, Point, Rect, Size, Transform};
use krilla::image::Image;
use krilla::metadata::Metadata;
use krilla::num::NormalizedF32;
use krilla::page::PageSettings;
use krilla::paint::{Fill, Stroke};
use krilla::surface::Surface;
use krilla::tagging::{
    ArtifactType, ContentTag, ListNumbering, Node, SpanTag, TableHeaderScope, Tag, TagGroup, TagKind, TagTree,
};
use krilla::text::{Font, GlyphId, KrillaGlyph};
use krilla_svg::{SurfaceExt, SvgSettings};
use std::collections::HashMap;
use std::num::NonZeroU16;
use std::rc::Rc;

/// Room at the edges of a page, pt.
const MARGIN: f32 = 46.0;
/// Room between columns of a table, pt.
const GUTTER: f32 = 8.0;
/// A heading stands at the foot of a page only with so much below it, pt.
const WITH_HEADING: f32 = 70.0;

/// A place in the tree of tags.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub struct Place(usize);

struct Branch {
    tag: Option<TagKind>,
    children: Vec<Child>,
}

enum Child {
    Branch(usize),
    Leaf(krilla::tagging::Identifier),
}

enum Mark {
    Line {
        text: Rc<SetText>,
        line: usize,
        at: [f32; 2],
        of: Place,
    },
    Rule {
        from: [f32; 2],
        to: [f32; 2],
        width: f32,
    },
    Picture {
        image: Image,
        at: [f32; 2],
        size: [f32; 2],
        of: Place,
    },
    Drawing {
        tree: Rc<usvg::Tree>,
        at: [f32; 2],
        size: [f32; 2],
        of: Place,
    },
    /// Open corners around something, light under dark.
    Corners {
        at: [f32; 2],
        size: [f32; 2],
    },
    /// A name on a light ground.
    Name {
        text: Rc<SetText>,
        at: [f32; 2],
        size: [f32; 2],
        of: Place,
    },
    /// Lines of a hand.
    Strokes {
        strokes: Vec<Vec<[f32; 2]>>,
        of: Place,
    },
}

/// What is laid on pages.
pub struct Pages {
    setter: TypeSetter,
    /// The size of a page, and of the page in hand.
    upright: [f32; 2],
    size: [f32; 2],
    pages: Vec<([f32; 2], Vec<Mark>)>,
    y: f32,
    tree: Vec<Branch>,
    open: Vec<usize>,
    foot: String,
}

impl Pages {
    /// Empty pages of a size, pt, with a line at the foot of each.
    pub fn new(size: [f32; 2], foot: &str) -> Pages {
        let root = Branch { tag: None, children: vec![] };
        Pages {
            setter: TypeSetter::new(),
            upright: size,
            size,
            pages: vec![(size, vec![])],
            y: MARGIN,
            tree: vec![root],
            open: vec![0],
            foot: foot.to_owned(),
        }
    }

    /// The width between the margins, pt.
    pub fn width(&self) -> f32 {
        self.size[0] - 2.0 * MARGIN
    }

    fn bottom(&self) -> f32 {
        self.size[1] - MARGIN - 14.0
    }

    /// What is left of the page, pt.
    pub fn left(&self) -> f32 {
        self.bottom() - self.y
    }

    fn branch(&mut self, tag: impl Into<TagKind>) -> Place {
        let place = self.tree.len();
        self.tree.push(Branch { tag: Some(tag.into()), children: vec![] });
        let within = self.open.last().copied().unwrap_or(0);
        self.tree[within].children.push(Child::Branch(place));
        Place(place)
    }

    fn within<T>(&mut self, tag: impl Into<TagKind>, lay: impl FnOnce(&mut Self, Place) -> T) -> T {
        let place = self.branch(tag);
        self.open.push(place.0);
        let laid = lay(self, place);
        self.open.pop();
        laid
    }

    fn put(&mut self, mark: Mark) {
        if let Some((_, marks)) = self.pages.last_mut() {
            marks.push(mark);
        }
    }

    /// Goes on on a new page, unless this one is empty.
    pub fn new_page(&mut self) {
        if self.y > MARGIN + 0.1 {
            self.begin(self.upright);
        }
    }

    /// Begins a page that lies on its side.
    fn broad_page(&mut self) {
        if self.y <= MARGIN + 0.1 {
            self.pages.pop();
        }
        let [wide, tall] = self.upright;
        self.begin([wide.max(tall), wide.min(tall)]);
    }

    fn begin(&mut self, size: [f32; 2]) {
        self.size = size;
        self.pages.push((size, vec![]));
        self.y = MARGIN;
    }

    /// Leaves room, pt.
    pub fn room(&mut self, by: f32) {
        self.y += by;
    }

    /// Begins a new page where so much does not fit any more, pt.
    pub fn need(&mut self, height: f32) {
        if self.left() < height {
            self.new_page();
        }
    }

    /// A heading, 1 for the title of the paper.
    pub fn heading(&mut self, level: u16, text: &str) {
        self.need(WITH_HEADING);
        let face = if level == 1 { Face::TITLE } else { Face::HEADING };
        if level > 1 {
            self.room(10.0);
        }
        let tag = Tag::Hn(NonZeroU16::new(level.max(1)).unwrap_or(NonZeroU16::MIN), Some(text.to_owned()));
        self.within(tag, |pages, of| pages.lines(text, face, of, [MARGIN, pages.width()]));
        let (from, to) = ([MARGIN, self.y + 1.0], [self.size[0] - MARGIN, self.y + 1.0]);
        self.put(Mark::Rule { from, to, width: 0.6 });
        self.room(5.0);
    }

    /// A paragraph.
    pub fn paragraph(&mut self, text: &str, face: Face) {
        self.within(Tag::P, |pages, of| pages.lines(text, face, of, [MARGIN, pages.width()]));
        self.room(3.0);
    }

    fn lines(&mut self, text: &str, face: Face, of: Place, [x, width]: [f32; 2]) {
        let set = Rc::new(self.setter.set(text, face, width));
        for (line, found) in set.layout.lines().enumerate() {
            let tall = found.metrics().line_height;
            self.need(tall);
            let at = [x, self.y - found.metrics().min_coord];
            self.put(Mark::Line { text: set.clone(), line, at, of });
            self.y += tall;
        }
    }

    /// A list.
    pub fn list(&mut self, items: &[String]) {
        self.within(Tag::L(ListNumbering::Disc), |pages, _| {
            for item in items {
                pages.within(Tag::LI, |pages, _| {
                    pages.need(Face::BODY.size * 1.4);
                    let y = pages.y;
                    pages.within(Tag::Lbl, |pages, of| pages.lines("•", Face::BODY, of, [MARGIN + 2.0, 10.0]));
                    pages.y = y.min(pages.y);
                    pages.within(Tag::LBody, |pages, of| {
                        let width = pages.width() - 14.0;
                        pages.lines(item, Face::BODY, of, [MARGIN + 14.0, width]);
                    });
                });
                pages.room(2.0);
            }
        });
        self.room(3.0);
    }

    /// A table: heads, and rows of cells; `shares` say how wide each column is.
    pub fn table(&mut self, heads: &[&str], shares: &[f32], rows: &[Vec<String>]) {
        self.need(44.0);
        let all: f32 = shares.iter().sum();
        let room = self.width() - GUTTER * (shares.len().saturating_sub(1)) as f32;
        let mut x = MARGIN;
        let columns: Vec<[f32; 2]> = shares
            .iter()
            .map(|share| {
                let column = [x, room * share / all];
                x += column[1] + GUTTER;
                column
            })
            .collect();
        self.within(Tag::Table, |pages, _| {
            let heads: Vec<String> = heads.iter().map(|head| (*head).to_owned()).collect();
            pages.within(Tag::THead, |pages, _| pages.row(&heads, &columns, true));
            pages.within(Tag::TBody, |pages, _| {
                for row in rows {
                    pages.row(row, &columns, false);
                }
            });
        });
        self.room(6.0);
    }

    /// A row; what does not fit on the page goes on on the next.
    fn row(&mut self, cells: &[String], columns: &[[f32; 2]], head: bool) {
        let face = if head { Face { bold: true, ..Face::FINE } } else { Face::BODY };
        let set: Vec<Rc<SetText>> =
            cells.iter().zip(columns).map(|(cell, column)| Rc::new(self.setter.set(cell, face, column[1]))).collect();
        let height = |set: &Rc<SetText>| set.layout.height();
        let tallest = set.iter().map(height).fold(0.0, f32::max);
        if tallest < self.bottom() - MARGIN {
            self.need(tallest + 3.0);
        }
        self.within(Tag::TR, |pages, _| {
            let places: Vec<Place> = cells
                .iter()
                .map(|_| if head { pages.branch(Tag::TH(TableHeaderScope::Column)) } else { pages.branch(Tag::TD) })
                .collect();
            let mut next = vec![0; set.len()];
            loop {
                let top = pages.y;
                let mut lowest = top;
                for (cell, text) in set.iter().enumerate() {
                    let mut y = top;
                    while let Some(line) = text.layout.get(next[cell]) {
                        let tall = line.metrics().line_height;
                        if y + tall > pages.bottom() {
                            break;
                        }
                        // Lines count from the top of their text.
                        let at = [columns[cell][0], y - line.metrics().min_coord];
                        pages.put(Mark::Line { text: text.clone(), line: next[cell], at, of: places[cell] });
                        y += tall;
                        next[cell] += 1;
                    }
                    lowest = lowest.max(y);
                }
                pages.y = lowest;
                if set.iter().zip(&next).all(|(text, next)| *next >= text.layout.len()) {
                    break;
                }
                pages.new_page();
            }
        });
        let (from, to) = ([MARGIN, self.y + 1.5], [self.size[0] - MARGIN, self.y + 1.5]);
        self.put(Mark::Rule { from, to, width: if head { 0.6 } else { 0.25 } });
        self.room(4.0);
    }

    /// A picture as wide as the page, or as tall as `most_tall` allows, with brackets and their names over it: in shares of the picture,
    /// left, top, right, bottom.
    pub fn picture(&mut self, image: Image, alt: &str, most_tall: f32, named: &[([f32; 4], String)]) {
        let (width, height) = image.size();
        let (width, height) = (width as f32, height as f32);
        let scale = (self.width() / width).min(most_tall / height);
        let size = [width * scale, height * scale];
        self.need(size[1]);
        let at = [MARGIN, self.y];
        self.within(Tag::Figure(Some(alt.to_owned())), |pages, of| {
            pages.put(Mark::Picture { image, at, size, of });
        });
        for ([left, top, right, bottom], name) in named {
            let corner = [at[0] + left * size[0], at[1] + top * size[1]];
            let of_size = [(right - left) * size[0], (bottom - top) * size[1]];
            self.put(Mark::Corners { at: corner, size: of_size });
            self.within(Tag::P, |pages, of| {
                let text = Rc::new(pages.setter.set(name, Face { bold: true, ..Face::FINE }, size[0] - 8.0));
                let wide = text.layout.width();
                let x = corner[0].clamp(at[0] + 3.0, (at[0] + size[0] - wide - 3.0).max(at[0] + 3.0));
                let below = corner[1] + of_size[1] + 3.0;
                let y = if below + 12.0 < at[1] + size[1] { below } else { (corner[1] - 15.0).max(at[1] + 2.0) };
                let tall = text.layout.height();
                pages.put(Mark::Name { text, at: [x, y], size: [wide, tall], of });
            });
        }
        self.room(size[1] + 5.0);
    }

    /// A drawing of lines on a page of its own, which lies on its side.
    pub fn drawing(&mut self, title: &str, tree: usvg::Tree, alt: &str) {
        self.broad_page();
        self.heading(2, title);
        let (width, height) = (tree.size().width(), tree.size().height());
        let scale = (self.width() / width).min(self.left() / height);
        let size = [width * scale, height * scale];
        let at = [MARGIN, self.y];
        self.within(Tag::Figure(Some(alt.to_owned())), |pages, of| {
            pages.put(Mark::Drawing { tree: Rc::new(tree), at, size, of });
        });
        self.begin(self.upright);
    }

    /// A signature in its field, both axes 0 to 1.
    pub fn signature(&mut self, strokes: &[Vec<[f64; 2]>], alt: &str) {
        let size = [180.0, 60.0];
        self.need(size[1]);
        let at = [MARGIN, self.y];
        let place = |point: &[f64; 2]| [at[0] + point[0] as f32 * size[0], at[1] + point[1] as f32 * size[1]];
        let strokes = strokes.iter().map(|stroke| stroke.iter().map(place).collect()).collect();
        self.within(Tag::Figure(Some(alt.to_owned())), |pages, of| pages.put(Mark::Strokes { strokes, of }));
        self.room(size[1] + 3.0);
    }

    /// Lines to write on, each with the word under it.
    pub fn blanks(&mut self, words: &[&str]) {
        self.need(60.0);
        self.room(34.0);
        let width = (self.width() - GUTTER * 2.0 * (words.len() - 1) as f32) / words.len() as f32;
        let y = self.y;
        for (place, word) in words.iter().enumerate() {
            let x = MARGIN + place as f32 * (width + GUTTER * 2.0);
            self.put(Mark::Rule { from: [x, y], to: [x + width, y], width: 0.5 });
            self.y = y + 2.0;
            self.within(Tag::P, |pages, of| pages.lines(word, Face::FINE, of, [x, width]));
        }
        self.room(6.0);
    }

    /// The file.
    ///
    /// # Errors
    /// What the writer says.
    pub fn written(mut self, title: &str) -> Result<Vec<u8>, String> {
        let mut document = Document::new();
        let mut fonts: HashMap<u64, Font> = HashMap::new();
        let pages = std::mem::take(&mut self.pages);
        // A page that nothing came on is none.
        let pages: Vec<_> = pages.into_iter().filter(|(_, marks)| !marks.is_empty()).collect();
        let count = pages.len();
        for (number, ([wide, tall], marks)) in pages.into_iter().enumerate() {
            let settings = PageSettings::from_wh(wide, tall).ok_or("a page has no size")?;
            let mut page = document.start_page_with(settings);
            let mut surface = page.surface();
            for mark in marks {
                draw(&mut surface, &mut fonts, &mut self.tree, mark)?;
            }
            let foot = format!("{} · {} of {count}", self.foot, number + 1);
            let foot = self.setter.set(&foot, Face::FINE, wide - 2.0 * MARGIN);
            surface.start_tagged(ContentTag::Artifact(ArtifactType::Footer));
            line(&mut surface, &mut fonts, &foot, 0, [MARGIN, tall - MARGIN]);
            surface.end_tagged();
            surface.finish();
            page.finish();
        }
        let mut tree = TagTree::new();
        for child in std::mem::take(&mut self.tree[0].children) {
            tree.push(grown(&mut self.tree, child));
        }
        document.set_tag_tree(tree);
        let about =
            Metadata::new().title(title.to_owned()).language("en".to_owned()).creator("Bright Angle".to_owned());
        document.set_metadata(about);
        document.finish().map_err(|error| format!("{error:?}"))
    }
}

/// A branch of the tree of tags with all that is on it.
fn grown(tree: &mut Vec<Branch>, child: Child) -> Node {
    match child {
        Child::Leaf(leaf) => Node::Leaf(leaf),
        Child::Branch(place) => {
            let children = std::mem::take(&mut tree[place].children);
            let tag = tree[place].tag.take().unwrap_or_else(|| Tag::Div.into());
            let mut group = TagGroup::new(tag);
            for child in children {
                group.push(grown(tree, child));
            }
            Node::Group(group)
        }
    }
}

fn grey(of: u8) -> Fill {
    Fill { paint: luma::Color::new(of).into(), opacity: NormalizedF32::ONE, rule: Default::default() }
}

fn pen(of: u8, width: f32) -> Stroke {
    Stroke { paint: luma::Color::new(of).into(), width, ..Stroke::default() }
}

/// Draws a mark, under the tag that it has in the tree.
fn draw(surface: &mut Surface, fonts: &mut HashMap<u64, Font>, tree: &mut [Branch], mark: Mark) -> Result<(), String> {
    match mark {
        Mark::Line { text, line: number, at, of } => {
            let leaf = surface.start_tagged(ContentTag::Span(SpanTag::empty()));
            line(surface, fonts, &text, number, at);
            surface.end_tagged();
            tree[of.0].children.push(Child::Leaf(leaf));
        }
        Mark::Rule { from, to, width } => {
            surface.start_tagged(ContentTag::Artifact(ArtifactType::Other));
            stroked(surface, &[from, to], pen(24, width));
            surface.end_tagged();
        }
        Mark::Picture { image, at, size, of } => {
            let leaf = surface.start_tagged(ContentTag::Other);
            surface.push_transform(&Transform::from_translate(at[0], at[1]));
            surface.draw_image(image, Size::from_wh(size[0], size[1]).ok_or("a picture has no size")?);
            surface.pop();
            surface.end_tagged();
            tree[of.0].children.push(Child::Leaf(leaf));
        }
        Mark::Drawing { tree: drawing, at, size, of } => {
            let leaf = surface.start_tagged(ContentTag::Other);
            surface.push_transform(&Transform::from_translate(at[0], at[1]));
            let size = Size::from_wh(size[0], size[1]).ok_or("a drawing has no size")?;
            surface.draw_svg(&drawing, size, SvgSettings::default()).ok_or("a drawing cannot be drawn")?;
            surface.pop();
            surface.end_tagged();
            tree[of.0].children.push(Child::Leaf(leaf));
        }
        Mark::Corners { at, size } => {
            surface.start_tagged(ContentTag::Artifact(ArtifactType::Other));
            corners(surface, at, size);
            surface.end_tagged();
        }
        Mark::Name { text, at, size, of } => {
            surface.start_tagged(ContentTag::Artifact(ArtifactType::Other));
            let ground = Rect::from_xywh(at[0] - 2.0, at[1], size[0] + 4.0, size[1]);
            if let Some(ground) = ground {
                let mut path = PathBuilder::new();
                path.push_rect(ground);
                if let Some(path) = path.finish() {
                    surface.set_stroke(None);
                    surface.set_fill(Some(grey(250)));
                    surface.draw_path(&path);
                }
            }
            surface.end_tagged();
            for number in 0..text.layout.len() {
                let leaf = surface.start_tagged(ContentTag::Span(SpanTag::empty()));
                line(surface, fonts, &text, number, at);
                surface.end_tagged();
                tree[of.0].children.push(Child::Leaf(leaf));
            }
        }
        Mark::Strokes { strokes, of } => {
            let leaf = surface.start_tagged(ContentTag::Other);
            for stroke in &strokes {
                stroked(surface, stroke, pen(24, 1.1));
            }
            surface.end_tagged();
            tree[of.0].children.push(Child::Leaf(leaf));
        }
    }
    Ok(())
}

fn stroked(surface: &mut Surface, points: &[[f32; 2]], stroke: Stroke) {
    let mut path = PathBuilder::new();
    for (place, [x, y]) in points.iter().enumerate() {
        if place == 0 { path.move_to(*x, *y) } else { path.line_to(*x, *y) }
    }
    if let Some([x, y]) = points.first().filter(|_| points.len() == 1) {
        path.line_to(x + 0.5, *y);
    }
    if let Some(path) = path.finish() {
        surface.set_fill(None);
        surface.set_stroke(Some(stroke));
        surface.draw_path(&path);
        surface.set_stroke(None);
    }
}

fn corners(surface: &mut Surface, [x, y]: [f32; 2], [width, height]: [f32; 2]) {
    let (l, t, r, b) = (x - 3.0, y - 3.0, x + width + 3.0, y + height + 3.0);
    let arm = 7.0_f32.min((r - l) / 3.0).min((b - t) / 3.0);
    for (shade, wide) in [(250, 2.4), (24, 1.0)] {
        for [x, y, dx, dy] in [[l, t, arm, arm], [r, t, -arm, arm], [l, b, arm, -arm], [r, b, -arm, -arm]] {
            stroked(surface, &[[x + dx, y], [x, y], [x, y + dy]], pen(shade, wide));
        }
    }
}

/// A line of a text: its glyphs at their places, with the text that they stand for. `at` is where the text's own top left lies.
fn line(surface: &mut Surface, fonts: &mut HashMap<u64, Font>, set: &SetText, number: usize, at: [f32; 2]) {
    let Some(line) = set.layout.get(number) else { return };
    let y = at[1] + line.metrics().baseline;
    let mut x = at[0] + line.metrics().offset;
    for run in line.runs() {
        let font = run.font().clone();
        let (data, id) = font.data.into_raw_parts();
        let Some(krilla_font) = fonts.get(&id).cloned().or_else(|| {
            let made = Font::new(data.into(), font.index)?;
            fonts.insert(id, made.clone());
            Some(made)
        }) else {
            continue;
        };
        let size = run.font_size();
        let mut glyphs: Vec<KrillaGlyph> = Vec::new();
        let (from, mut shade) = (x, 24);
        for cluster in run.visual_clusters() {
            if cluster.is_ligature_continuation() {
                if let Some(glyph) = glyphs.last_mut() {
                    glyph.text_range.end = cluster.text_range().end;
                }
                continue;
            }
            for glyph in cluster.glyphs() {
                shade = set.layout.styles()[usize::from(glyph.style_index)].brush;
                glyphs.push(KrillaGlyph::new(
                    GlyphId::new(glyph.id),
                    glyph.advance / size,
                    glyph.x / size,
                    glyph.y / size,
                    0.0,
                    cluster.text_range(),
                    None,
                ));
                x += glyph.advance;
            }
        }
        if !glyphs.is_empty() {
            surface.set_stroke(None);
            surface.set_fill(Some(grey(shade)));
            surface.draw_glyphs(Point::from_xy(from, y), &glyphs, krilla_font, &set.text, size, false);
        }
    }
}
