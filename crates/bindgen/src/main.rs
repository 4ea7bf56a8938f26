//! `bright-angle-bindgen MODULE.wasm NAME FOLDER`: writes the module and the JavaScript that loads it into a folder, under a name.

use std::process::ExitCode;
use wasm_bindgen_cli_support::Bindgen;

fn main() -> ExitCode {
    let arguments: Vec<String> = std::env::args().collect();
    let [_, module, name, folder] = arguments.as_slice() else {
        eprintln!("usage: bright-angle-bindgen MODULE.wasm NAME FOLDER");
        return ExitCode::from(2);
    };
    let mut bindgen = Bindgen::new();
    let made = bindgen
        .input_path(module)
        .out_name(name)
        .typescript(true)
        .remove_name_section(true)
        .remove_producers_section(true)
        .omit_default_module_path(true)
        .web(true)
        .and_then(|bindgen| bindgen.generate(folder));
    match made {
        Ok(()) => ExitCode::SUCCESS,
        Err(error) => {
            eprintln!("{error:?}");
            ExitCode::FAILURE
        }
    }
}
