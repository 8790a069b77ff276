//! Who may use an address, and from where it is asked.

use actix_web::HttpRequest;
use actix_web::http::Method;
use actix_web::http::header::ORIGIN;
use upland_store::Role;

/// Whom an address is for.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Access {
    /// Everybody, signed in or not.
    Anyone,
    /// Everybody who is signed in: it changes nothing, or only what is the user's own.
    Own,
    /// Everybody who is signed in reads it; a technician or a lead changes it.
    Work,
    /// A lead alone.
    Lead,
}

impl Access {
    /// The least role that may use the address with a method; none where nobody has to be signed in.
    #[must_use]
    pub fn needs(self, method: &Method) -> Option<Role> {
        let reads = matches!(*method, Method::GET | Method::HEAD);
        match self {
            Self::Anyone => None,
            Self::Own => Some(Role::Reader),
            Self::Work if reads => Some(Role::Reader),
            Self::Work => Some(Role::Technician),
            Self::Lead => Some(Role::Lead),
        }
    }
}

/// Whether a form was sent from a page of ours. Browsers tell where a request comes from; what tells
/// nothing is no browser that somebody else's page could drive.
pub(crate) fn is_from_us(request: &HttpRequest) -> bool {
    let header = |name: &str| request.headers().get(name).and_then(|v| v.to_str().ok());
    if let Some(site) = header("sec-fetch-site") {
        return matches!(site, "same-origin" | "none");
    }
    let Some(origin) = header(ORIGIN.as_str()) else { return true };
    origin.split_once("://").is_some_and(|(_, host)| host == request.connection_info().host())
}

#[cfg(test)]
mod tests {
    use actix_web::test::TestRequest;

    use super::*;

    #[test]
    fn a_page_of_somebody_else_is_told_from_ours() {
        let ask = |headers: &[(&'static str, &'static str)]| {
            let mut request = TestRequest::post().uri("/sign-in").insert_header(("host", "almanac.example"));
            for header in headers {
                request = request.insert_header(*header);
            }
            is_from_us(&request.to_http_request())
        };
        assert!(ask(&[]), "no browser");
        assert!(ask(&[("sec-fetch-site", "same-origin")]));
        assert!(!ask(&[("sec-fetch-site", "cross-site")]));
        assert!(!ask(&[("sec-fetch-site", "same-site")]), "a neighbour under the same domain");
        assert!(ask(&[("origin", "https://almanac.example")]));
        assert!(!ask(&[("origin", "https://almanac.example.org")]));
        assert!(!ask(&[("origin", "null")]));
    }

    #[test]
    fn reading_takes_less_than_changing() {
        assert_eq!(Access::Work.needs(&Method::GET), Some(Role::Reader));
        assert_eq!(Access::Work.needs(&Method::POST), Some(Role::Technician));
        assert_eq!(Access::Own.needs(&Method::POST), Some(Role::Reader));
        assert_eq!(Access::Lead.needs(&Method::GET), Some(Role::Lead));
        assert_eq!(Access::Anyone.needs(&Method::POST), None);
    }
}
