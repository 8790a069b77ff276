//! The arrows between the modules of a crate: a file may name what stands below it, and no chain of
//! names leads back. Re-exports (`pub use`) are the face of a folder and count as its files.

use std::collections::{BTreeMap, BTreeSet};
use std::path::{Path, PathBuf};

const CRATES: [&str; 5] = ["core", "formats", "store", "web", "upland"];

/// Parts of the web crate, lowest first: none may name a later one.
const WEB_FLOORS: [&[&str]; 7] = [
    &["words", "show", "form", "clock", "assets", "headers", "typed_position", "remembered"],
    &["context", "charts", "error", "state"],
    &["pages", "guard", "intake", "loading", "apart"],
    &["jobs", "searches"],
    &["handlers"],
    &["routes", "server", "golden"],
    &["untouched", "refused", "drawn"],
];

type Modules = BTreeMap<Vec<String>, String>;

fn files(folder: &Path, out: &mut Vec<PathBuf>) {
    for entry in std::fs::read_dir(folder).unwrap() {
        let path = entry.unwrap().path();
        if path.is_dir() {
            files(&path, out);
        } else if path.extension().is_some_and(|e| e == "rs") {
            out.push(path);
        }
    }
}

/// Module paths and their code, tests and comments left out.
fn modules(name: &str) -> Modules {
    let src = Path::new(env!("CARGO_MANIFEST_DIR")).join(format!("../{name}/src"));
    let mut found = Vec::new();
    files(&src, &mut found);
    let module = |path: PathBuf| {
        let inside = path.strip_prefix(&src).unwrap().with_extension("");
        let mut parts: Vec<String> = inside.iter().map(|p| p.to_str().unwrap().to_owned()).collect();
        if parts.last().is_some_and(|last| ["mod", "lib", "main"].contains(&last.as_str())) {
            parts.pop();
        }
        let text = std::fs::read_to_string(&path).unwrap();
        let code = text.split("#[cfg(test)]\nmod tests").next().unwrap();
        let lines = code.lines().filter(|l| !l.trim_start().starts_with("//"));
        (parts, lines.collect::<Vec<_>>().join("\n"))
    };
    found.into_iter().map(module).collect()
}

/// Every path that a file names from the crate's root or from its parent, as segments from the root.
fn named(own: &[String], code: &str) -> Vec<Vec<String>> {
    let mut out = Vec::new();
    for statement in code.split(';') {
        // Only what follows the last line end that begins the statement.
        let Some(at) = statement.find("use ") else { continue };
        let before = statement[..at].trim_end();
        let face = before.ends_with("pub") || before.ends_with("pub(crate)") || before.ends_with("pub(super)");
        if !face {
            expand(statement[at + 4..].trim(), &mut Vec::new(), &mut |path| out.extend(resolve(own, path)));
        }
    }
    for prefix in ["crate::", "super::"] {
        for (at, _) in code.match_indices(prefix) {
            let end = code[at..]
                .find(|c: char| !(c.is_alphanumeric() || c == '_' || c == ':'))
                .map_or(code.len(), |e| at + e);
            let path: Vec<String> = code[at..end].split("::").filter(|s| !s.is_empty()).map(str::to_owned).collect();
            out.extend(resolve(own, &path));
        }
    }
    out
}

/// Walks the tree of a `use` statement.
fn expand(tree: &str, prefix: &mut Vec<String>, found: &mut dyn FnMut(&[String])) {
    let (head, braces) = match tree.find('{') {
        Some(at) => (&tree[..at], tree[at + 1..].rfind('}').map(|end| &tree[at + 1..at + 1 + end])),
        None => (tree, None),
    };
    let depth = prefix.len();
    let head = head.split(" as ").next().unwrap();
    prefix.extend(head.split("::").map(str::trim).filter(|s| !s.is_empty()).map(str::to_owned));
    match braces {
        None => found(prefix),
        Some(inside) => {
            let (mut level, mut from) = (0, 0);
            for (at, c) in inside.char_indices().chain([(inside.len(), ',')]) {
                match c {
                    '{' => level += 1,
                    '}' => level -= 1,
                    ',' if level == 0 => {
                        if !inside[from..at].trim().is_empty() {
                            expand(inside[from..at].trim(), prefix, found);
                        }
                        from = at + 1;
                    }
                    _ => {}
                }
            }
        }
    }
    prefix.truncate(depth);
}

fn resolve(own: &[String], path: &[String]) -> Option<Vec<String>> {
    let supers = path.iter().take_while(|s| *s == "super").count();
    match path.first()?.as_str() {
        "crate" => Some(path[1..].to_vec()),
        "super" => {
            let parent = own.len().checked_sub(supers)?;
            Some(own[..parent].iter().chain(&path[supers..]).cloned().collect())
        }
        _ => None,
    }
}

/// The module that a path leads into: the longest beginning of it that is one.
fn target(modules: &Modules, path: &[String]) -> Option<Vec<String>> {
    (1..=path.len()).rev().map(|n| path[..n].to_vec()).find(|p| modules.contains_key(p))
}

fn arrows(modules: &Modules) -> BTreeMap<Vec<String>, BTreeSet<Vec<String>>> {
    let of = |(own, code): (&Vec<String>, &String)| {
        let targets = named(own, code).iter().filter_map(|p| target(modules, p)).filter(|t| t != own).collect();
        (own.clone(), targets)
    };
    modules.iter().map(of).collect()
}

#[test]
fn no_chain_of_names_leads_back_to_its_file() {
    for name in CRATES {
        let modules = modules(name);
        let mut arrows = arrows(&modules);
        // Files that name nothing that is left are dropped, again and again: what stays goes round.
        loop {
            let lowest: Vec<_> = arrows.iter().filter(|(_, to)| to.is_empty()).map(|(m, _)| m.clone()).collect();
            if lowest.is_empty() {
                break;
            }
            arrows.retain(|m, _| !lowest.contains(m));
            for to in arrows.values_mut() {
                to.retain(|t| !lowest.contains(t));
            }
        }
        // What only leads into a circle is not part of it.
        loop {
            let named: BTreeSet<_> = arrows.values().flatten().cloned().collect();
            let before = arrows.len();
            arrows.retain(|m, _| named.contains(m));
            if arrows.len() == before {
                break;
            }
        }
        let circle: Vec<String> = arrows.iter().map(|(m, to)| format!("{} -> {to:?}", m.join("::"))).collect();
        assert!(circle.is_empty(), "{name}: a circle of\n{}", circle.join("\n"));
    }
}

#[test]
fn the_web_crate_stands_on_its_floors() {
    let modules = modules("web");
    let floor = |module: &[String]| {
        let first = module.first()?;
        WEB_FLOORS.iter().position(|floor| floor.contains(&first.as_str()))
    };
    for (own, targets) in arrows(&modules) {
        let Some(mine) = floor(&own) else {
            assert!(own.is_empty(), "{own:?} has no floor");
            continue;
        };
        for to in targets {
            let theirs = floor(&to).unwrap_or(0);
            assert!(theirs <= mine, "{} names {}, which stands above it", own.join("::"), to.join("::"));
        }
    }
}

#[test]
fn view_models_know_no_store_and_no_handler() {
    for (own, code) in modules("web") {
        let pure = own.first().is_some_and(|f| ["pages", "charts", "show", "form", "words"].contains(&f.as_str()));
        assert!(!pure || !code.contains("upland_store"), "{} names the store", own.join("::"));
        assert!(!pure || !code.contains(" async "), "{} waits for something", own.join("::"));
    }
}

#[test]
fn the_test_sees_what_it_looks_for() {
    let own = ["pages".to_owned(), "week".to_owned(), "form".to_owned()];
    let found = named(&own, "use super::super::{a, b::{C, D}};\nfn x() { crate::show::clock() }\npub(crate) use x::Y;");
    let text: Vec<String> = found.iter().map(|p| p.join("::")).collect();
    assert!(text.contains(&"pages::a".to_owned()) && text.contains(&"pages::b::D".to_owned()), "{text:?}");
    assert!(text.contains(&"show::clock".to_owned()), "{text:?}");
}
