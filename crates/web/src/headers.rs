//! Headers that every answer carries.

use actix_web::middleware::DefaultHeaders;

/// Nothing from elsewhere, nothing inline, no frames; forms and requests to ourselves alone.
const CONTENT_SECURITY_POLICY: &str = "default-src 'none'; script-src 'self'; style-src 'self'; \
     img-src 'self'; font-src 'self'; connect-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'";

/// The headers, by name.
pub(crate) const SECURE_HEADERS: [(&str, &str); 6] = [
    ("content-security-policy", CONTENT_SECURITY_POLICY),
    ("x-content-type-options", "nosniff"),
    ("referrer-policy", "same-origin"),
    ("permissions-policy", "geolocation=(self), camera=(), microphone=()"),
    ("cross-origin-opener-policy", "same-origin"),
    ("cross-origin-resource-policy", "same-origin"),
];

pub(crate) fn secure_headers(https: bool) -> DefaultHeaders {
    let headers = SECURE_HEADERS.into_iter().fold(DefaultHeaders::new(), DefaultHeaders::add);
    if https { headers.add(("strict-transport-security", "max-age=31536000")) } else { headers }
}
