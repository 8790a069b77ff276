//! Forms as a browser would send them.

/// What every form of a page that is sent to an address would send.
#[must_use]
pub fn fields_of_forms(page: &str, post_to: &str) -> Vec<Vec<(String, String)>> {
    page.split(&format!(" action=\"{post_to}\"")).skip(1).map(fields).collect()
}

fn fields(from: &str) -> Vec<(String, String)> {
    let body = from.split("</form>").next().unwrap();
    let mut fields = Vec::new();
    for tag in body.split('<').skip(1) {
        let attribute =
            |name: &str| tag.split_once(&format!("{name}=\"")).map(|(_, v)| plain(v.split('"').next().unwrap()));
        match tag.split([' ', '>']).next().unwrap() {
            "input" => {
                let ticks = matches!(attribute("type").as_deref(), Some("checkbox" | "radio"));
                if let Some(name) = attribute("name")
                    && (!ticks || tag.contains(" checked"))
                {
                    fields.push((name, attribute("value").unwrap_or_default()));
                }
            }
            // One without a name is not sent.
            "select" => fields.extend(attribute("name").map(|name| (name, String::new()))),
            "option" if tag.contains(" selected") => fields.last_mut().unwrap().1 = attribute("value").unwrap(),
            _ => {}
        }
    }
    fields
}

/// A value as it was before it was written into a page.
#[must_use]
pub fn plain(value: &str) -> String {
    ["&#34; \"", "&#39; '", "&#60; <", "&#62; >", "&#38; &"].iter().fold(value.to_owned(), |text, pair| {
        let (written, meant) = pair.split_once(' ').unwrap();
        text.replace(written, meant)
    })
}
