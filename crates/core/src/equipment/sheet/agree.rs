//! Whether what a sheet says of a lens can be one lens: focal length, sensor and field (handbook, section 3, projection family).

use crate::equipment::dotted::at;
use serde_json::Value;

/// Published figures are rounded: so much more than the family of lenses allows is a contradiction.
const ROUNDED: f64 = 0.1;
/// The ends of the family: no distortion, and equisolid.
const EQUISOLID_MOST_DEG: f64 = 180.0;

/// What does not go together, in words.
pub fn disagreements(models: &[Value]) -> Vec<String> {
    let mut said = Vec::new();
    for model in models {
        let number = |field: &str| at(model, field).and_then(Value::as_f64);
        let ends = [("lens.focal_min_mm", "lens.hfov_at_min_deg"), ("lens.focal_max_mm", "lens.hfov_at_max_deg")];
        for (focal, field) in ends {
            let (Some(focal), Some(field), Some(width)) = (number(focal), number(field), number("sensor.width_mm"))
            else {
                continue;
            };
            // Half of the sensor in focal lengths: between 2 sin(θ/2) and tan θ for a half field θ.
            let half_width = width / 2.0 / focal;
            let least = 2.0 * half_width.atan().to_degrees();
            let most = if half_width >= std::f64::consts::SQRT_2 {
                EQUISOLID_MOST_DEG
            } else {
                4.0 * (half_width / 2.0).asin().to_degrees()
            };
            let fits = (least * (1.0 - ROUNDED)..=most * (1.0 + ROUNDED)).contains(&field);
            let told = format!(
                "{focal} mm on a sensor {width} mm wide shows {least:.0} to {most:.0}° across, the sheet says {field}°"
            );
            if !fits && !said.contains(&told) {
                said.push(told);
            }
        }
        let (shortest, longest) = (number("lens.hfov_at_min_deg"), number("lens.hfov_at_max_deg"));
        if let (Some(wide), Some(narrow)) = (shortest, longest)
            && narrow > wide
        {
            said.push(format!("the longer focal length is said to show more, {narrow}° after {wide}°"));
        }
    }
    said
}
