#![no_main]

#[path = "../src/checks.rs"]
#[allow(dead_code)]
mod checks;

libfuzzer_sys::fuzz_target!(|bytes: &[u8]| checks::site_file(bytes));
