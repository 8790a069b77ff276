//! What an address asks for after its `?`.

use std::future::{Ready, ready};

use actix_web::dev::Payload;
use actix_web::{Error, FromRequest, HttpRequest, web};

use super::pairs::Pairs;
use crate::form::Form;

/// The query of an address, read like a form: a name that is not there is an empty value, and of a name that is there
/// twice the last counts.
#[derive(Debug)]
pub(crate) struct Query(pub(crate) Form);

impl FromRequest for Query {
    type Error = Error;
    type Future = Ready<Result<Self, Error>>;

    fn from_request(request: &HttpRequest, _: &mut Payload) -> Self::Future {
        let pairs = web::Query::<Pairs>::from_query(request.query_string());
        ready(pairs.map(|pairs| Self(Form::from_pairs(pairs.into_inner()))).map_err(Error::from))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use actix_web::test::TestRequest;

    fn query(uri: &str) -> Result<Form, Error> {
        Query::from_request(&TestRequest::with_uri(uri).to_http_request(), &mut Payload::None).into_inner().map(|q| q.0)
    }

    #[test]
    fn the_last_of_a_name_counts_and_a_missing_one_is_empty() {
        let form = query("/year?program=A&month=6&program=B").unwrap();
        assert_eq!([form.get("program"), form.get("month"), form.get("figure")], ["B", "6", ""]);
        assert_eq!(query("/year").unwrap().get("program"), "");
    }

    #[test]
    fn values_are_unescaped_and_what_is_no_text_is_told_by_its_mark() {
        assert_eq!(query("/places?q=Court%20%C3%A9+b").unwrap().get("q"), "Court é b");
        assert_eq!(query("/places?q=%FF").unwrap().get("q"), "\u{fffd}");
    }
}
