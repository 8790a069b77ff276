//! A small client that keeps cookies and reads forms.

use std::collections::BTreeMap;
use std::path::Path;

use upland_journeys::{PASSWORD, Server, fields_of_forms, plain};

pub(crate) fn binary() -> &'static Path {
    Path::new(env!("CARGO_BIN_EXE_upland"))
}

/// A site file of the documentation.
pub(crate) fn site_example(name: &str) -> Vec<u8> {
    let path = format!("{}/../../docs/examples/{name}.json", env!("CARGO_MANIFEST_DIR"));
    std::fs::read(path).expect(name)
}

pub(crate) struct Client {
    agent: ureq::Agent,
    base: String,
}

#[derive(Debug)]
pub(crate) struct Answer {
    pub(crate) status: u16,
    pub(crate) headers: BTreeMap<String, String>,
    pub(crate) body: String,
}

impl Answer {
    pub(crate) fn header(&self, name: &str) -> &str {
        self.headers.get(name).map_or("", String::as_str)
    }

    pub(crate) fn location(&self) -> &str {
        self.header("location")
    }

    /// What stands in the page's main part, for a failed check.
    pub(crate) fn brief(&self) -> &str {
        let main = self.body.find("<main").map_or(self.body.as_str(), |at| &self.body[at..]);
        main.char_indices().nth(3000).map_or(main, |(end, _)| &main[..end])
    }

    /// The value of the first field with this name.
    pub(crate) fn field(&self, name: &str) -> String {
        let start = self
            .body
            .find(&format!("name=\"{name}\""))
            .unwrap_or_else(|| panic!("no field {name} in {}", self.brief()));
        let rest = &self.body[start..];
        let value = rest.split_once("value=\"").map(|(_, v)| v).unwrap_or_else(|| panic!("no value of {name}"));
        plain(value.split('"').next().unwrap())
    }

    /// All fields of the form that posts to an address, choices and ticks included.
    pub(crate) fn form(&self, post_to: &str) -> Vec<(String, String)> {
        let mut forms = self.forms(post_to);
        assert!(!forms.is_empty(), "no form to {post_to} in {}", self.brief());
        forms.swap_remove(0)
    }

    /// All forms that post to an address, in the order of the page.
    pub(crate) fn forms(&self, post_to: &str) -> Vec<Vec<(String, String)>> {
        fields_of_forms(&self.body, post_to)
    }

    /// The first link or address in the page that begins like this.
    pub(crate) fn link(&self, beginning: &str, ending: &str) -> String {
        self.body
            .split(['"', '\''])
            .find(|part| {
                part.starts_with(beginning) && part.ends_with(ending) && part.len() > beginning.len() + ending.len()
            })
            .unwrap_or_else(|| panic!("no {beginning}…{ending} in {}", self.brief()))
            .to_owned()
    }
}

impl Client {
    pub(crate) fn new(server: &Server) -> Self {
        let config = ureq::Agent::config_builder().http_status_as_error(false).max_redirects(0).build();
        Self { agent: config.into(), base: server.address.clone() }
    }

    pub(crate) fn signed_in(server: &Server, email: &str) -> Self {
        let client = Self::new(server);
        let answer = client.sign_in(email, PASSWORD);
        assert_eq!(answer.status, 303, "{}", answer.brief());
        client
    }

    pub(crate) fn sign_in(&self, email: &str, password: &str) -> Answer {
        self.post("/sign-in", &[("email", email), ("password", password)])
    }

    /// The same client, its cookies kept, at another address.
    pub(crate) fn at(self, base: &str) -> Self {
        Self { base: base.to_owned(), ..self }
    }

    /// A page. Whatever page it is, each of its forms that changes a version has an action of its own.
    pub(crate) fn get(&self, path: &str) -> Answer {
        let answer = self.get_with(path, &[]);
        for form in answer.body.split("<form ").skip(1).filter_map(|form| form.split("</form>").next()) {
            let changes = form.contains("method=\"post\"") && form.contains("name=\"version\"");
            assert!(!changes || form.contains("name=\"action\""), "{path}: a form that could be done twice: {form}");
        }
        answer
    }

    pub(crate) fn get_with(&self, path: &str, headers: &[(&str, &str)]) -> Answer {
        let mut request = self.agent.get(format!("{}{path}", self.base));
        for (name, value) in headers {
            request = request.header(*name, *value);
        }
        read(request.call().unwrap())
    }

    pub(crate) fn post(&self, path: &str, fields: &[(&str, &str)]) -> Answer {
        self.post_with(path, &[], fields)
    }

    pub(crate) fn post_with(&self, path: &str, headers: &[(&str, &str)], fields: &[(&str, &str)]) -> Answer {
        let mut request = self.agent.post(format!("{}{path}", self.base));
        for (name, value) in headers {
            request = request.header(*name, *value);
        }
        read(request.send_form(fields.iter().copied()).unwrap())
    }

    /// Posts a form with some fields replaced.
    pub(crate) fn submit(&self, path: &str, mut fields: Vec<(String, String)>, changes: &[(&str, &str)]) -> Answer {
        for (name, value) in changes {
            fields.retain(|(n, _)| n != name);
            fields.push(((*name).to_owned(), (*value).to_owned()));
        }
        let fields: Vec<(&str, &str)> = fields.iter().map(|(n, v)| (n.as_str(), v.as_str())).collect();
        self.post(path, &fields)
    }

    /// Sends a file as a browser does.
    pub(crate) fn send_file(&self, path: &str, token: &str, name: &str, bytes: &[u8]) -> Answer {
        self.send_file_with(path, &[], token, name, bytes)
    }

    pub(crate) fn send_file_with(
        &self,
        path: &str,
        headers: &[(&str, &str)],
        token: &str,
        name: &str,
        bytes: &[u8],
    ) -> Answer {
        let boundary = "upland-boundary-7d1f";
        let mut body = Vec::new();
        body.extend_from_slice(
            format!("--{boundary}\r\ncontent-disposition: form-data; name=\"token\"\r\n\r\n{token}\r\n").as_bytes(),
        );
        body.extend_from_slice(format!("--{boundary}\r\ncontent-disposition: form-data; name=\"file\"; filename=\"{name}\"\r\ncontent-type: text/csv\r\n\r\n").as_bytes());
        body.extend_from_slice(bytes);
        body.extend_from_slice(format!("\r\n--{boundary}--\r\n").as_bytes());
        let mut request = self.agent.post(format!("{}{path}", self.base));
        for (name, value) in headers {
            request = request.header(*name, *value);
        }
        read(request.content_type(format!("multipart/form-data; boundary={boundary}")).send(&body).unwrap())
    }

    /// Sends a weather file for a place and gives the page of its preview, with its address.
    pub(crate) fn look_at_weather(&self, place: &str, name: &str, bytes: &[u8]) -> (String, Answer) {
        let token = self.get(&format!("{place}/weather")).field("token");
        let sent = self.send_file(&format!("{place}/weather/files"), &token, name, bytes);
        assert_eq!(sent.status, 303, "{}", sent.brief());
        let address = sent.location().to_owned();
        let page = self.get(&address);
        (address, page)
    }

    /// Takes back what the masthead offers.
    pub(crate) fn undo(&self, back: &str) -> Answer {
        let form = self.get("/places").form("/undo");
        self.submit("/undo", form, &[("back", back)])
    }

    /// A place by name; gives its address.
    pub(crate) fn make_place(&self, name: &str) -> String {
        let form = self.get("/places/new").form("/places");
        let answer = self.submit(
            "/places",
            form,
            &[
                ("name", name),
                ("latitude", "47.5"),
                ("longitude", "-122.2"),
                ("elevation", "210"),
                ("time_zone", "America/Los_Angeles"),
            ],
        );
        assert_eq!(answer.status, 303, "{}", answer.brief());
        answer.location().trim_end_matches("/controllers/new").to_owned()
    }

    /// Takes an example of the documentation in; gives the address of its place and of its first
    /// controller.
    pub(crate) fn import_site(&self, example: &str) -> (String, String) {
        let bytes = site_example(example);
        let token = self.get("/places/import").field("token");
        let sent = self.send_file("/places/import", &token, &format!("{example}.json"), &bytes);
        assert_eq!(sent.status, 303, "{}", sent.brief());
        let preview = sent.location().to_owned();
        let form = self.get(&preview).form(&preview);
        let taken = self.submit(&preview, form, &[]);
        assert_eq!(taken.status, 303, "{}", taken.brief());
        let place = taken.location().to_owned();
        let controller = self.get("/places").link("/controllers/", "/year");
        (place, controller.trim_end_matches("/year").to_owned())
    }

    /// A controller at a place; gives its address.
    pub(crate) fn make_controller(&self, place: &str, name: &str) -> String {
        let post_to = format!("{place}/controllers");
        let form = self.get(&format!("{place}/controllers/new?preset=plain")).form(&post_to);
        let answer = self.submit(&post_to, form, &[("name", name)]);
        assert_eq!(answer.status, 303, "{}", answer.brief());
        answer.location().trim_end_matches("/stations").to_owned()
    }
}

fn read(mut response: ureq::http::Response<ureq::Body>) -> Answer {
    let headers =
        response.headers().iter().map(|(n, v)| (n.to_string(), v.to_str().unwrap_or("").to_owned())).collect();
    let status = response.status().as_u16();
    let body = response.body_mut().with_config().limit(20_000_000).read_to_vec().unwrap_or_default();
    let answer = Answer { status, headers, body: String::from_utf8_lossy(&body).into_owned() };
    if !answer.header("content-type").starts_with("text/html") {
        return answer;
    }
    Answer { body: joined_lines(&answer.body), ..answer }
}

/// A page without the line breaks of its templates: what a test looks for stands in one piece, however it is laid out.
fn joined_lines(page: &str) -> String {
    let mut joined = String::with_capacity(page.len());
    for line in page.lines().map(str::trim).filter(|line| !line.is_empty()) {
        if !joined.is_empty() && !joined.ends_with('>') && !line.starts_with(['<', '>']) {
            joined.push(' ');
        }
        joined.push_str(line);
    }
    joined
}
