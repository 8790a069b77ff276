//! Headers that every answer carries.

use actix_web::middleware::DefaultHeaders;

/// Nothing from elsewhere, nothing inline, no frames; forms and requests to ourselves alone.
pub(crate) const CONTENT_SECURITY_POLICY: &str = "default-src 'none'; script-src 'self'; style-src 'self'; \
     img-src 'self'; font-src 'self'; connect-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'";

pub(crate) fn secure_headers(https: bool) -> DefaultHeaders {
    let headers = DefaultHeaders::new()
        .add(("content-security-policy", CONTENT_SECURITY_POLICY))
        .add(("x-content-type-options", "nosniff"))
        .add(("referrer-policy", "same-origin"))
        .add(("permissions-policy", "geolocation=(self), camera=(), microphone=()"))
        .add(("cross-origin-opener-policy", "same-origin"))
        .add(("cross-origin-resource-policy", "same-origin"));
    if https { headers.add(("strict-transport-security", "max-age=31536000")) } else { headers }
}
