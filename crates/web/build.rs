//! Makes what the browser gets: Bulma's Sass and our styles in one sheet, our scripts in one file,
//! fonts and Alpine as they are; each compressed beforehand.

use std::error::Error;
use std::fs;
use std::io::Write;
use std::path::{Path, PathBuf};

/// Files of others that are served as they are.
const SERVED: [&str; 4] = ["alpine-csp.min.js", "atkinson-next.woff2", "besley.woff2", "besley-italic.woff2"];

fn main() -> Result<(), Box<dyn Error>> {
    let assets = PathBuf::from(std::env::var("CARGO_MANIFEST_DIR")?).join("assets");
    let out = PathBuf::from(std::env::var("OUT_DIR")?).join("assets");
    println!("cargo:rerun-if-changed={}", assets.display());
    if out.exists() {
        fs::remove_dir_all(&out)?;
    }
    fs::create_dir_all(&out)?;

    let bulma = grass::from_path(assets.join("sass/bulma.scss"), &grass::Options::default())?;
    write(&out, "almanac.css", (bulma + &joined(&assets.join("css"), "css")?).as_bytes())?;
    write(&out, "almanac.js", joined(&assets.join("scripts"), "js")?.as_bytes())?;
    let vendor = assets.join("vendor");
    for name in SERVED {
        write(&out, name, &fs::read(vendor.join(name))?)?;
    }
    for entry in fs::read_dir(&vendor)? {
        let path = entry?.path();
        let name = path.file_name().and_then(|n| n.to_str()).unwrap_or_default();
        if path.extension().is_some_and(|e| e == "txt") {
            write(&out, name, &fs::read(&path)?)?;
        }
    }
    write(&out, "bulma-LICENSE.txt", &fs::read(vendor.join("bulma/LICENSE.txt"))?)?;
    Ok(())
}

/// The files of a folder, one after another in the order of their names.
fn joined(folder: &Path, ending: &str) -> Result<String, Box<dyn Error>> {
    let mut paths = Vec::new();
    for entry in fs::read_dir(folder)? {
        let path = entry?.path();
        if path.extension().is_some_and(|e| e == ending) {
            paths.push(path);
        }
    }
    paths.sort();
    let mut text = String::new();
    for path in paths {
        text.push_str(&fs::read_to_string(path)?);
    }
    Ok(text)
}

/// Writes a file, and beside it as gzip and brotli where that makes it smaller.
fn write(out: &Path, name: &str, content: &[u8]) -> Result<(), Box<dyn Error>> {
    fs::write(out.join(name), content)?;
    // Fonts are compressed already.
    if name.ends_with(".woff2") {
        return Ok(());
    }
    let mut gzip = flate2::write::GzEncoder::new(Vec::new(), flate2::Compression::best());
    gzip.write_all(content)?;
    fs::write(out.join(format!("{name}.gz")), gzip.finish()?)?;
    let mut packed = Vec::new();
    // The best quality takes long in an unoptimised build and saves a few per cent.
    let quality = if std::env::var("PROFILE")? == "release" { 11 } else { 5 };
    let parameters = brotli::enc::BrotliEncoderParams { quality, ..Default::default() };
    brotli::BrotliCompress(&mut &*content, &mut packed, &parameters)?;
    fs::write(out.join(format!("{name}.br")), packed)?;
    Ok(())
}
