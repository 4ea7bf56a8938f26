//! The catalogue that ships: complete, in order, and generic.

use crate::support::*;
use bright_angle_core::equipment::catalogue::models;
use bright_angle_core::equipment::lens::FittedLens;
use bright_angle_core::file::Form;
use serde_json::json;
use std::collections::HashSet;

#[test]
fn every_model_can_stand_in_a_site() {
    let models = models().unwrap();
    let cameras = models.iter().enumerate().map(|(i, model)| {
        let heads: Vec<_> = (0..model.head_count.unwrap_or(1))
            .map(|h| json!({"id": format!("h{h}"), "pan_deg": 0, "tilt_deg": 10, "focal_mm": model.lens.focal_min_mm}))
            .collect();
        json!({"id": format!("c{i}"), "name": "C", "position": [0, 0], "height_m": 3, "model": model, "heads": heads})
    });
    parse(&site(cameras.collect(), vec![], vec![]));
}

#[test]
fn the_catalogue_has_what_it_should() {
    let models = models().unwrap();
    let names: HashSet<&str> = models.iter().map(|model| model.name.as_str()).collect();
    assert_eq!(names.len(), models.len(), "a name stands twice");
    assert!((20..=32).contains(&models.len()));
    let forms: HashSet<Form> = models.iter().map(|model| model.form).collect();
    assert_eq!(forms.len(), 9, "a build is missing");
    let megapixels: HashSet<u32> = models.iter().map(|model| model.sensor.megapixels().round() as u32).collect();
    assert!([2, 4, 5, 8].iter().all(|mp| megapixels.contains(mp)), "{megapixels:?}");
    for (shortest, longest) in
        [(2.8, 2.8), (4.0, 4.0), (6.0, 6.0), (8.0, 8.0), (2.8, 12.0), (5.0, 50.0), (7.0, 22.0), (8.0, 32.0)]
    {
        let has = |lens: &bright_angle_core::file::Lens| lens.focal_min_mm == shortest && lens.focal_max_mm == longest;
        assert!(models.iter().any(|model| has(&model.lens)), "{shortest}–{longest} mm");
    }
    for model in &models {
        assert!(model.name.contains(&format!("{} MP", model.sensor.megapixels().round())), "{}", model.name);
        assert!(model.lens.hfov_at_min_deg.is_some() && model.lens.hfov_at_max_deg.is_some(), "{}", model.name);
        assert!(model.power_class.is_some() && model.weight_kg.is_some(), "{}", model.name);
        // A published field that no projection of the family gives would be a slip of the pen.
        let fitted = FittedLens::new(model.lens, model.sensor);
        let off = fitted.effective_focal_mm(model.lens.focal_min_mm) / model.lens.focal_min_mm;
        assert!((off - 1.0).abs() < 0.03, "{}: {off}", model.name);
    }
}
