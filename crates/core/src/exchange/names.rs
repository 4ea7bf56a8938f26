//! What a drawing's texts name: the point that they stand at, else the outline that they stand in.

use super::drawn::{Drawn, DrawnPoint, DrawnText, LeftOut, box_of};
use crate::file::Point2;
use geo::{Contains, Point, Polygon};

/// A text names the point that is no farther from it than this, m.
const AT_M: f64 = 1.0;
/// So many texts are looked at.
const MOST_TEXTS: usize = 5_000;

/// Names points and closed outlines that have no name, each text once; answers the texts that name nothing.
pub(super) fn given(drawn: &mut [Drawn], points: &mut [DrawnPoint], texts: Vec<DrawnText>) -> Vec<LeftOut> {
    let (mut texts, rest): (Vec<_>, Vec<_>) = texts.into_iter().enumerate().partition(|(place, _)| *place < MOST_TEXTS);
    for point in points.iter_mut().filter(|point| point.name.is_none()) {
        let apart = |text: &DrawnText| (text.at[0] - point.at[0]).hypot(text.at[1] - point.at[1]);
        let nearest = texts.iter().enumerate().min_by(|(_, (_, a)), (_, (_, b))| apart(a).total_cmp(&apart(b)));
        if let Some(place) = nearest.filter(|(_, (_, text))| apart(text) <= AT_M).map(|(place, _)| place) {
            point.name = Some(texts.swap_remove(place).1.says);
        }
    }
    // The smallest outline around a text is what it names: a room, not the house.
    let mut unnamed: Vec<(f64, [Point2; 2], &mut Drawn)> = drawn
        .iter_mut()
        .filter(|one| one.closed && one.name.is_none() && one.points.len() > 2)
        .map(|one| {
            let [low, high] = box_of(one.points.iter());
            ((high[0] - low[0]) * (high[1] - low[1]), [low, high], one)
        })
        .collect();
    unnamed.sort_by(|a, b| a.0.total_cmp(&b.0));
    texts.retain(|(_, text)| {
        let [x, y] = text.at;
        let around = unnamed.iter_mut().find(|(_, [low, high], one)| {
            let in_box = (low[0]..=high[0]).contains(&x) && (low[1]..=high[1]).contains(&y);
            in_box && one.name.is_none() && {
                let ring = one.points.iter().map(|at| (at[0], at[1])).collect();
                Polygon::new(ring, vec![]).contains(&Point::new(x, y))
            }
        });
        around.is_none_or(|(_, _, one)| {
            one.name = Some(text.says.clone());
            false
        })
    });
    let left = texts.into_iter().chain(rest).map(|(_, DrawnText { source, layer, says, .. })| {
        let shown: String = says.chars().take(40).collect();
        LeftOut { source, layer, why: format!("names nothing that is taken: \"{shown}\"") }
    });
    left.collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    fn text(says: &str, at: Point2) -> DrawnText {
        DrawnText { source: "text 1".to_owned(), layer: "L".to_owned(), says: says.to_owned(), at }
    }

    fn square(size: f64) -> Drawn {
        let points = vec![[0.0, 0.0], [size, 0.0], [size, size], [0.0, size]];
        Drawn { points, closed: true, ..Drawn::default() }
    }

    #[test]
    fn a_text_names_the_point_at_it_before_the_smallest_outline_around_it() {
        let mut drawn = [square(20.0), square(5.0)];
        let at = |at| DrawnPoint { source: String::new(), layer: String::new(), name: None, at, height_m: 0.0 };
        let mut points = [at([30.0, 0.0]), at([40.0, 0.0])];
        let texts =
            vec![text("Shed", [2.0, 2.0]), text("Yard", [10.0, 10.0]), text("P7", [30.4, 0.3]), text("N", [50.0, 0.0])];
        let left = given(&mut drawn, &mut points, texts);
        assert_eq!([&drawn[0].name, &drawn[1].name].map(|n| n.as_deref()), [Some("Yard"), Some("Shed")]);
        assert_eq!([&points[0].name, &points[1].name].map(|n| n.as_deref()), [Some("P7"), None]);
        assert_eq!(left.len(), 1);
        assert!(left[0].why.ends_with("\"N\""), "{left:?}");
    }
}
