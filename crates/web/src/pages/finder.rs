//! A long list: what is searched in it, and which part of it is shown.

use crate::form::Form;
use crate::words::Words;

/// What somebody asked of a list: part of a name, and a page of what is found.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(crate) struct Search {
    pub(crate) text: String,
    /// From 1.
    pub(crate) page: usize,
}

/// Longest text that is searched for: longer than any name.
const MOST_TEXT: usize = 60;

impl Search {
    /// From the fields `q` and another one for the page; what makes no sense is the first page of everything.
    pub(crate) fn of(query: &Form, page: &str) -> Self {
        let text = query.get("q").chars().filter(|c| !c.is_control()).take(MOST_TEXT).collect();
        Self { text, page: query.get(page).parse().ok().filter(|n| (1..100_000).contains(n)).unwrap_or(1) }
    }

    /// How many come before the page.
    pub(crate) fn skip(&self, size: usize) -> i64 {
        i64::try_from((self.page - 1) * size).unwrap_or(0)
    }
}

/// The line over a long list.
#[derive(Debug, Clone)]
pub(crate) struct Finder {
    /// Where the list stands.
    pub(crate) path: &'static str,
    pub(crate) text: String,
    /// Which of them are shown, in words; empty when all are.
    pub(crate) shown: String,
    pub(crate) before: String,
    pub(crate) after: String,
    /// The list is short and nothing was searched: there is no line over it.
    pub(crate) is_plain: bool,
}

impl Finder {
    /// The line for a list of `total`, of which `size` stand on a page; `kept` are other fields of the address.
    pub(crate) fn of(
        path: &'static str,
        asked: &Search,
        [total, size]: [usize; 2],
        page: &str,
        kept: &[(&str, &str)],
    ) -> Self {
        let pages = total.div_ceil(size).max(1);
        let link = |to: usize| {
            let to = to.to_string();
            address(path, kept.iter().copied().chain([("q", asked.text.as_str()), (page, &to)]))
        };
        let (first, last) = ((asked.page - 1) * size + 1, (asked.page * size).min(total));
        Self {
            path,
            text: asked.text.clone(),
            shown: if pages == 1 || first > total {
                String::new()
            } else {
                let [first, last, total] = [first, last, total].map(|n| n.to_string());
                Words.with("finder-shown", &[("first", &first), ("last", &last), ("total", &total)])
            },
            before: if asked.page > 1 { link(asked.page.min(pages + 1) - 1) } else { String::new() },
            after: if asked.page < pages { link(asked.page + 1) } else { String::new() },
            is_plain: pages == 1 && asked.page == 1 && asked.text.is_empty(),
        }
    }
}

/// An address with fields; empty ones are left out.
pub(crate) fn address<'a>(path: &str, fields: impl IntoIterator<Item = (&'a str, &'a str)>) -> String {
    let stated = fields.into_iter().filter(|(_, value)| !value.is_empty());
    format!("{path}?{}", url::form_urlencoded::Serializer::new(String::new()).extend_pairs(stated).finish())
}

#[cfg(test)]
mod tests {
    use super::*;

    fn asked(pairs: &[(&str, &str)]) -> Search {
        Search::of(&Form::from_pairs(pairs.iter().map(|(k, v)| ((*k).to_owned(), (*v).to_owned()))), "page")
    }

    #[test]
    fn what_makes_no_sense_is_the_first_page_of_everything() {
        let first = Search { text: String::new(), page: 1 };
        for page in ["0", "-1", "many", "99999999999999999999", ""] {
            assert_eq!(asked(&[("page", page)]), first);
        }
        assert_eq!(asked(&[("q", &"x".repeat(500))]).text.len(), 60);
    }

    #[test]
    fn the_line_leads_forth_and_back_and_keeps_what_was_asked() {
        let asked = Search { text: "hill & dale".into(), page: 2 };
        let line = Finder::of("/places", &asked, [120, 50], "page", &[("kind", "battery"), ("other", "")]);
        assert_eq!(line.before, "/places?kind=battery&q=hill+%26+dale&page=1");
        assert_eq!(line.after, "/places?kind=battery&q=hill+%26+dale&page=3");
        assert_eq!(line.shown, "51 to 100 of 120");
        let beyond = Finder::of("/places", &Search { page: 9, ..asked.clone() }, [120, 50], "page", &[]);
        assert_eq!((beyond.before.as_str(), beyond.after.as_str()), ("/places?q=hill+%26+dale&page=3", ""));
        assert!(Finder::of("/places", &Search { text: String::new(), page: 1 }, [50, 50], "page", &[]).is_plain);
        assert!(Finder::of("/places", &Search { text: String::new(), page: 1 }, [0, 50], "page", &[]).is_plain);
    }
}
