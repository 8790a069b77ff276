//! Styles, scripts and fonts: inside the binary, compressed beforehand, cached for ever under a
//! path that changes with their content.

use std::sync::LazyLock;

use actix_web::http::header::{ACCEPT_ENCODING, CACHE_CONTROL, CONTENT_ENCODING, HeaderValue, VARY};
use actix_web::{HttpRequest, HttpResponse, web};
use rust_embed::RustEmbed;
use sha2::{Digest, Sha256};

#[derive(RustEmbed)]
#[folder = "$OUT_DIR/assets"]
struct Files;

/// A hash over all files: part of every path.
static HASH: LazyLock<String> = LazyLock::new(|| {
    let mut names: Vec<_> = Files::iter().filter(|n| !n.ends_with(".br") && !n.ends_with(".gz")).collect();
    names.sort_unstable();
    let mut hash = Sha256::new();
    for name in names {
        hash.update(name.as_bytes());
        if let Some(file) = Files::get(&name) {
            hash.update(&file.data);
        }
    }
    hash.finalize().iter().take(8).map(|b| format!("{b:02x}")).collect()
});

/// The path under which an asset is served.
pub(crate) fn path(name: &str) -> String {
    format!("/assets/{}/{name}", *HASH)
}

/// The style sheet of every page.
pub(crate) fn stylesheet() -> String {
    path("almanac.css")
}

/// The scripts of every page, in their order.
pub(crate) fn scripts() -> [String; 2] {
    [path("almanac.js"), path("alpine-csp.min.js")]
}

/// Serves an asset; another hash than the present one is still answered, but not kept.
pub(crate) async fn serve(request: HttpRequest, names: web::Path<(String, String)>) -> HttpResponse {
    let (hash, name) = names.into_inner();
    let accepted = request.headers().get(ACCEPT_ENCODING).and_then(|v| v.to_str().ok()).unwrap_or("");
    let takes = |coding: &str| accepted.split(',').any(|a| a.trim().split(';').next() == Some(coding));
    let (ending, coding) = match (takes("br"), takes("gzip")) {
        (true, _) => (".br", Some("br")),
        (false, true) => (".gz", Some("gzip")),
        _ => ("", None),
    };
    let compressed = coding.and_then(|c| Files::get(&format!("{name}{ending}")).map(|f| (f, Some(c))));
    let Some((file, coding)) = compressed.or_else(|| Files::get(&name).map(|f| (f, None))) else {
        return HttpResponse::NotFound().finish();
    };
    let mut response = HttpResponse::Ok();
    response.content_type(content_type(&name));
    let keep = if hash == *HASH { "public, max-age=31536000, immutable" } else { "no-cache" };
    response.insert_header((CACHE_CONTROL, keep)).insert_header((VARY, HeaderValue::from_static("accept-encoding")));
    if let Some(coding) = coding {
        response.insert_header((CONTENT_ENCODING, coding));
    } else {
        // Fonts are compressed already; keep the middleware from trying again.
        response.insert_header((CONTENT_ENCODING, "identity"));
    }
    match file.data {
        std::borrow::Cow::Borrowed(bytes) => response.body(bytes),
        std::borrow::Cow::Owned(bytes) => response.body(bytes),
    }
}

fn content_type(name: &str) -> &'static str {
    match name.rsplit('.').next() {
        Some("css") => "text/css; charset=utf-8",
        Some("js") => "text/javascript; charset=utf-8",
        Some("woff2") => "font/woff2",
        Some("svg") => "image/svg+xml",
        _ => "text/plain; charset=utf-8",
    }
}

#[cfg(test)]
mod tests {
    use std::io::Read;

    use super::*;

    #[test]
    fn the_compressed_files_hold_the_same() {
        let mut compared = 0;
        for name in Files::iter().filter(|n| !n.ends_with(".gz") && !n.ends_with(".br") && !n.ends_with(".woff2")) {
            let plain = Files::get(&name).unwrap().data;
            let (mut from_gzip, mut from_brotli) = (Vec::new(), Vec::new());
            let gzip = Files::get(&format!("{name}.gz")).unwrap().data;
            flate2::read::GzDecoder::new(&*gzip).read_to_end(&mut from_gzip).unwrap();
            let packed = Files::get(&format!("{name}.br")).unwrap().data;
            brotli::BrotliDecompress(&mut &*packed, &mut from_brotli).unwrap();
            assert!(*plain == from_gzip && *plain == from_brotli, "{name}");
            compared += 1;
        }
        assert!(compared >= 4, "only {compared} files");
    }
}
