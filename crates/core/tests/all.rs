//! Every test of the core's behaviour, as one program: linked once, and one file's long test runs beside another's.
//! One file alone: `cargo test -p bright-angle-core-tests ways::`.

mod support;

mod adjustment;
mod by_night;
mod catalogue;
mod centred;
mod check_values;
mod door;
mod edge_match;
mod fewest;
mod finished_lines;
mod first_way;
mod fisheye;
mod fitting;
mod geojson;
mod ground;
mod kept_in_the_box;
mod light;
mod light_outside;
mod link;
mod look_back;
mod merging;
mod mounts;
mod network_merging;
mod nothing_false;
mod occlusion;
mod photo_view;
mod picture;
mod picture_positions;
mod picture_rays;
mod plates;
mod plates_needs;
mod pose;
mod prices;
mod private_places;
mod projections;
mod properties;
mod proving;
mod reasons;
mod relief;
mod rooms;
mod route;
mod route_outside;
mod seen;
mod session;
mod sheets;
mod site_file;
mod spot_for;
mod stock;
mod subjects;
mod sun;
mod survey;
mod tours;
mod trade_facts;
mod trainer;
mod verdicts;
mod ways;
mod wire;
mod wire_ways;

#[test]
fn every_file_of_tests_is_listed_here() {
    let here = std::path::Path::new(env!("CARGO_MANIFEST_DIR"));
    let listed = std::fs::read_to_string(here.join("all.rs")).unwrap();
    for entry in std::fs::read_dir(here).unwrap() {
        let path = entry.unwrap().path();
        let name = path.file_stem().unwrap().to_str().unwrap();
        if path.extension().is_some_and(|kind| kind == "rs") && name != "all" {
            assert!(
                listed.contains(&format!("\nmod {name};\n")),
                "tests/{name}.rs is not run: list it in tests/all.rs"
            );
        }
    }
}
