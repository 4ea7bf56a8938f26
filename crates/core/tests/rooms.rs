//! The rooms of the core: the order in which they may import from each other, as the architecture page has it, and that no files import
//! each other in a circle.

use std::collections::{BTreeMap, BTreeSet};
use std::fs;
use std::path::{Path, PathBuf};
use syn::visit::Visit;

/// From the room that knows nobody to the one that may know all.
fn order() -> Vec<String> {
    let page = include_str!("../../../docs/architecture.md");
    let rooms = page.split("## The rooms of the core").nth(1).expect("the page has a list of rooms");
    let rows = rooms.split("\n## ").next().unwrap_or_default().lines();
    rows.filter_map(|row| row.strip_prefix("| `")?.split('`').next()).map(str::to_owned).collect()
}

fn files(folder: &Path, found: &mut Vec<PathBuf>) {
    for entry in fs::read_dir(folder).unwrap() {
        let path = entry.unwrap().path();
        if path.is_dir() {
            files(&path, found);
        } else if path.extension().is_some_and(|ending| ending == "rs") {
            found.push(path);
        }
    }
}

/// A module by the names on the way to it.
type Name = Vec<String>;

/// What a file speaks of, by whole paths from the root, and what it passes on to others under its own name.
#[derive(Default)]
struct Module {
    name: Name,
    speaks_of: Vec<Name>,
    passes_on: BTreeMap<String, Name>,
}

impl Module {
    fn read(name: Name, text: &str) -> Module {
        let mut module = Module { name, ..Module::default() };
        module.visit_file(&syn::parse_file(text).expect("the core compiles"));
        module
    }

    /// A path from the root; one that begins with something else is a child's, or another crate's.
    fn whole_path(&self, path: &[String]) -> Name {
        let mut at = self.name.clone();
        for (place, step) in path.iter().enumerate() {
            match step.as_str() {
                "crate" => at.clear(),
                "self" if place == 0 => {}
                "super" => drop(at.pop()),
                _ => return [at, path[place..].to_vec()].concat(),
            }
        }
        at
    }

    fn take_use(&mut self, tree: &syn::UseTree, mut path: Name, public: bool) {
        match tree {
            syn::UseTree::Path(one) => {
                path.push(one.ident.to_string());
                self.take_use(&one.tree, path, public);
            }
            syn::UseTree::Group(group) => {
                group.items.iter().for_each(|tree| self.take_use(tree, path.clone(), public));
            }
            syn::UseTree::Name(name) if name.ident == "self" => self.speaks_of.push(self.whole_path(&path)),
            syn::UseTree::Name(name) => self.take_name(path, &name.ident, &name.ident, public),
            syn::UseTree::Rename(name) => self.take_name(path, &name.ident, &name.rename, public),
            syn::UseTree::Glob(_) => self.speaks_of.push(self.whole_path(&path)),
        }
    }

    fn take_name(&mut self, mut path: Name, ident: &syn::Ident, called: &syn::Ident, public: bool) {
        path.push(ident.to_string());
        let whole = self.whole_path(&path);
        if public {
            self.passes_on.insert(called.to_string(), whole);
        } else {
            self.speaks_of.push(whole);
        }
    }
}

fn is_test(attributes: &[syn::Attribute]) -> bool {
    attributes
        .iter()
        .any(|held| held.path().is_ident("cfg") && held.parse_args::<syn::Ident>().is_ok_and(|of| of == "test"))
}

impl Visit<'_> for Module {
    fn visit_item_mod(&mut self, item: &syn::ItemMod) {
        if !is_test(&item.attrs) {
            syn::visit::visit_item_mod(self, item);
        }
    }

    fn visit_item_use(&mut self, item: &syn::ItemUse) {
        self.take_use(&item.tree, vec![], !matches!(item.vis, syn::Visibility::Inherited));
    }

    /// Who may see something is no import.
    fn visit_visibility(&mut self, _: &syn::Visibility) {}

    fn visit_path(&mut self, path: &syn::Path) {
        let steps: Name = path.segments.iter().map(|step| step.ident.to_string()).collect();
        if matches!(steps[0].as_str(), "crate" | "super") {
            let whole = self.whole_path(&steps);
            self.speaks_of.push(whole);
        }
        syn::visit::visit_path(self, path);
    }
}

/// The modules by their names.
struct Core(BTreeMap<Name, Module>);

impl Core {
    fn read() -> Core {
        let root = Path::new(env!("CARGO_MANIFEST_DIR")).join("../src");
        let mut all = Vec::new();
        files(&root, &mut all);
        let module = |path: &PathBuf| {
            let inside = path.strip_prefix(&root).unwrap().with_extension("");
            let mut name: Name = inside.iter().map(|step| step.to_str().unwrap().to_owned()).collect();
            if matches!(name.last().map(String::as_str), Some("mod" | "lib")) {
                name.pop();
            }
            (name.clone(), Module::read(name, &fs::read_to_string(path).unwrap()))
        };
        Core(all.iter().map(module).collect())
    }

    /// The file that a path leads to, through whoever only passes it on.
    fn file_of(&self, path: &[String]) -> Option<&Name> {
        let length = (0..=path.len()).rev().find(|length| self.0.contains_key(&path[..*length]))?;
        let (name, module) = self.0.get_key_value(&path[..length])?;
        match path.get(length).and_then(|next| module.passes_on.get(next)) {
            Some(further) if further != path => self.file_of(further),
            _ => (length > 0).then_some(name),
        }
    }

    fn imports(&self) -> BTreeMap<&Name, BTreeSet<&Name>> {
        let of = |module: &'_ Module| -> BTreeSet<&Name> {
            module
                .speaks_of
                .iter()
                .filter_map(|path| self.file_of(path))
                .filter(|other| **other != module.name)
                .collect()
        };
        self.0.iter().map(|(name, module)| (name, of(module))).collect()
    }
}

/// Files that import each other, in the order of the circle.
fn circle<'a>(imports: &BTreeMap<&'a Name, BTreeSet<&'a Name>>) -> Option<Vec<&'a Name>> {
    let mut open = imports.clone();
    // Whoever imports nobody that is left is in no circle.
    while let Some(free) =
        open.iter().find(|(_, to)| to.iter().all(|other| !open.contains_key(*other))).map(|(name, _)| *name)
    {
        open.remove(free);
    }
    let mut way = vec![*open.keys().next()?];
    loop {
        let next = *open[way.last()?].iter().find(|other| open.contains_key(**other))?;
        if let Some(place) = way.iter().position(|held| *held == next) {
            return Some(way.split_off(place));
        }
        way.push(next);
    }
}

#[test]
fn rooms_import_only_from_those_before_them() {
    let (core, order) = (Core::read(), order());
    assert!(core.0.len() > 50 && order.len() > 10, "the rooms are where they are looked for");
    let place = |name: &Name| order.iter().position(|room| *room == name[0]);
    let mut faults = Vec::new();
    for (name, to) in core.imports() {
        if name.is_empty() {
            continue;
        }
        let own = place(name).unwrap_or_else(|| panic!("{} lies in no room of the architecture page", name.join("::")));
        faults.extend(
            to.into_iter()
                .filter(|other| place(other).is_none_or(|other| other > own))
                .map(|other| (name.clone(), other.clone())),
        );
    }
    assert_eq!(faults, vec![]);
}

#[test]
fn no_files_import_each_other_in_a_circle() {
    let core = Core::read();
    assert_eq!(circle(&core.imports()), None);
}

#[test]
fn imports_are_found_wherever_they_stand() {
    let name = |path: &str| -> Name { path.split("::").map(str::to_owned).collect() };
    let text = "use crate::judge::{Session, rules::{self, clear}};\nuse super::edges as e;\nfn f() { crate::math::angle(); }\n#[cfg(test)]\nmod tests { use crate::answer::Ask; }";
    let module = Module::read(name("show::section"), text);
    let found = ["judge::Session", "judge::rules", "judge::rules::clear", "show::edges", "math::angle"].map(name);
    assert_eq!(module.speaks_of, found);
}

#[test]
fn a_circle_is_found() {
    let [a, b, c, d] = ["a", "b", "c", "d"].map(|name| vec![name.to_owned()]);
    let imports = |pairs: &[(&'static Name, &'static Name)]| {
        let mut found: BTreeMap<&Name, BTreeSet<&Name>> = BTreeMap::new();
        for (from, to) in pairs {
            found.entry(from).or_default().insert(to);
            found.entry(to).or_default();
        }
        circle(&found).map(|way| way.len())
    };
    let [a, b, c, d]: [&'static Name; 4] = [a, b, c, d].map(|name| &*Box::leak(Box::new(name)));
    assert_eq!(imports(&[(a, b), (b, c), (d, a)]), None);
    assert_eq!(imports(&[(a, b), (b, c), (c, b), (d, a)]), Some(2));
}
