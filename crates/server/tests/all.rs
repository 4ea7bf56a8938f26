//! Every test of the server's behaviour, as one program: linked once, and one file's long test runs beside another's.
//! One file alone: `cargo test -p bright-angle --test all ways::`.

mod support;

mod backups;
mod bounded;
mod command_line;
mod comparing;
mod computations;
mod corpus;
mod drawings_apart;
mod exchange;
mod fitting;
mod kept_sites;
mod list_of_sites;
mod nobody_in;
mod papers;
mod plan_out;
mod proving;
mod shared_door;
mod sheets;
mod sign_link;
mod slow_and_many;
mod surveying;
mod wiring;

#[test]
fn every_file_of_tests_is_listed_here() {
    let here = std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("tests");
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
