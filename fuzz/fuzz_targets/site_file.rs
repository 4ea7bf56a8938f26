#![no_main]

// Not the whole server: what it is built of would have to be made ready for the fuzzer, too.
#[path = "../../crates/server/src/picture.rs"]
#[allow(dead_code)]
mod picture;

#[path = "../../crates/server/src/dxf/mod.rs"]
#[allow(dead_code)]
mod dxf;

#[path = "../src/checks.rs"]
#[allow(dead_code)]
mod checks;

libfuzzer_sys::fuzz_target!(|bytes: &[u8]| checks::site_file(bytes));
