use std::io::{Read, Write};
use std::net::{TcpListener, TcpStream};
use std::process::{Child, Command, Stdio};
use std::sync::atomic::{AtomicU32, Ordering};
use std::time::Duration;

use fantoccini::elements::Element;
use fantoccini::wd::WebDriverCompatibleCommand;
use fantoccini::{Client, ClientBuilder, Locator};
use hyper_util::client::legacy::connect::HttpConnector;
use serde_json::{Value, json};

use crate::server::{PASSWORD, Server};

/// A desk's window.
pub const DESK: (u32, u32) = (1280, 800);
/// A phone's window.
pub const PHONE: (u32, u32) = (390, 844);

/// Light or dark.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Scheme {
    /// Light.
    Light,
    /// Dark.
    Dark,
}

/// A headless browser with its driver; both end with the value.
pub struct Browser {
    driver: Child,
    driver_port: u16,
    session: String,
    client: Client,
    base: String,
    filled: AtomicU32,
    pressed: AtomicU32,
}

const AXE: &str = include_str!("../assets/axe.min.js");

/// A command of the browser's own protocol, by way of the driver.
#[derive(Debug)]
struct DevTools(Value);

impl WebDriverCompatibleCommand for DevTools {
    fn endpoint(&self, base: &url::Url, session: Option<&str>) -> Result<url::Url, url::ParseError> {
        base.join(&format!("session/{}/goog/cdp/execute", session.unwrap_or("")))
    }

    fn method_and_body(&self, _: &url::Url) -> (http::Method, Option<String>) {
        (http::Method::POST, Some(self.0.to_string()))
    }
}

/// Notes what a page complains about, policy included, before anything else runs on it.
const LISTEN: &str = "window.__complaints = []; \
    document.addEventListener('securitypolicyviolation', (e) => window.__complaints.push('policy: ' + e.violatedDirective + ' ' + e.blockedURI)); \
    window.addEventListener('error', (e) => window.__complaints.push('error: ' + e.message)); \
    for (const kind of ['error', 'warn']) { const old = console[kind]; console[kind] = (...a) => { window.__complaints.push(kind + ': ' + a.join(' ')); old(...a); }; }";

impl Browser {
    /// Opens a browser on a server.
    pub async fn open(server: &Server, (width, height): (u32, u32), scheme: Scheme) -> Self {
        let port = TcpListener::bind("127.0.0.1:0").unwrap().local_addr().unwrap().port();
        let driver = Command::new("chromedriver")
            .arg(format!("--port={port}"))
            .stdout(Stdio::null())
            .stderr(Stdio::null())
            .spawn()
            .expect("chromedriver: use ./run test");
        let binary = std::env::var("UPLAND_BROWSER").expect("UPLAND_BROWSER: use ./run test");
        let mut args = vec![
            "--headless".to_owned(),
            "--no-sandbox".into(),
            "--disable-gpu".into(),
            "--disable-dev-shm-usage".into(),
            "--disable-background-networking".into(),
            "--disable-component-update".into(),
            "--disable-sync".into(),
            "--no-first-run".into(),
            format!("--window-size={width},{height}"),
        ];
        if scheme == Scheme::Dark {
            args.push("--blink-settings=preferredColorScheme=0".into());
        }
        let capabilities = json!({ "goog:chromeOptions": { "binary": binary, "args": args } });
        let capabilities = capabilities.as_object().unwrap().clone();
        let mut tries = 0;
        let client = loop {
            let mut builder = ClientBuilder::new(HttpConnector::new());
            builder.capabilities(capabilities.clone());
            match builder.connect(&format!("http://127.0.0.1:{port}")).await {
                Ok(client) => break client,
                Err(error) if tries < 50 => {
                    tries += 1;
                    let _ = error;
                    tokio::time::sleep(Duration::from_millis(100)).await;
                }
                Err(error) => panic!("the browser does not start: {error}"),
            }
        };
        let session = client.session_id().await.unwrap().unwrap_or_default();
        let (base, none) = (server.address.clone(), AtomicU32::default);
        let browser = Self { driver, driver_port: port, session, client, base, filled: none(), pressed: none() };
        // From the first moment of every page on.
        let command = json!({ "cmd": "Page.addScriptToEvaluateOnNewDocument", "params": { "source": LISTEN } });
        browser.chrome(command).await;
        browser
    }

    /// A command of the browser's own protocol.
    async fn chrome(&self, command: Value) {
        self.client.issue_cmd(DevTools(command)).await.expect("a command to the browser");
    }

    /// Goes to a path.
    pub async fn go(&self, path: &str) {
        self.client.goto(&format!("{}{path}", self.base)).await.unwrap();
    }

    /// The path of the page.
    pub async fn path(&self) -> String {
        let url = self.client.current_url().await.unwrap();
        url.as_str().strip_prefix(&self.base).unwrap_or(url.as_str()).to_owned()
    }

    /// Signs in as a user of the tests, or with the demo's own words.
    pub async fn sign_in(&self, email: &str) {
        let password = if email.ends_with("averstane.example") { "upland-demo" } else { PASSWORD };
        self.go("/sign-in").await;
        self.fill("#email", email).await;
        self.fill("#password", password).await;
        self.press_button("Sign in").await;
        self.wait_for("nav .views").await;
    }

    /// The element of a selector, once it is there.
    pub async fn find(&self, css: &str) -> Element {
        self.client
            .wait()
            .at_most(Duration::from_secs(10))
            .for_element(Locator::Css(css))
            .await
            .unwrap_or_else(|e| panic!("{css} is not there: {e}"))
    }

    /// Waits until something is there.
    pub async fn wait_for(&self, css: &str) {
        self.find(css).await;
    }

    /// Waits until an element's text holds something.
    pub async fn wait_for_text(&self, css: &str, text: &str) {
        for _ in 0..100 {
            if let Ok(element) = self.client.find(Locator::Css(css)).await
                && element.text().await.is_ok_and(|t| t.contains(text))
            {
                return;
            }
            tokio::time::sleep(Duration::from_millis(50)).await;
        }
        panic!("{css} never says {text:?}; it says {:?}", self.text(css).await);
    }

    /// The visible text of an element.
    ///
    /// A piece that the page swaps between being found and being read is found again.
    pub async fn text(&self, css: &str) -> String {
        for _ in 0..20 {
            if let Ok(text) = self.find(css).await.text().await {
                return text;
            }
            tokio::time::sleep(Duration::from_millis(50)).await;
        }
        panic!("{css} cannot be read");
    }

    /// Fields filled or chosen, and buttons and links pressed, since the browser was opened.
    pub fn effort(&self) -> [u32; 2] {
        [&self.filled, &self.pressed].map(|count| count.load(Ordering::Relaxed))
    }

    /// Types over a field.
    pub async fn fill(&self, css: &str, value: &str) {
        self.filled.fetch_add(1, Ordering::Relaxed);
        let field = self.find(css).await;
        field.clear().await.unwrap();
        if field.attr("type").await.unwrap().as_deref() == Some("date") {
            // A date field takes keys in the order of the browser's language: its value is set instead.
            let script = "arguments[0].value = arguments[1]; \
                arguments[0].dispatchEvent(new Event('input', { bubbles: true })); \
                arguments[0].dispatchEvent(new Event('change', { bubbles: true }))";
            self.script(script, vec![serde_json::to_value(&field).unwrap(), value.into()]).await;
            return;
        }
        field.send_keys(value).await.unwrap();
    }

    /// Chooses an option by its value.
    pub async fn choose(&self, css: &str, value: &str) {
        self.filled.fetch_add(1, Ordering::Relaxed);
        self.find(css).await.select_by_value(value).await.unwrap();
    }

    /// Presses the button, or follows the link, with exactly this text.
    pub async fn press_button(&self, text: &str) {
        self.pressed.fetch_add(1, Ordering::Relaxed);
        let xpath = format!(
            "//main//button[normalize-space()='{text}'] | //main//a[normalize-space()='{text}'] | //header//button[normalize-space()='{text}']"
        );
        let button = self.client.wait().at_most(Duration::from_secs(10)).for_element(Locator::XPath(&xpath)).await;
        button.unwrap_or_else(|e| panic!("no button {text:?}: {e}")).click().await.unwrap();
    }

    /// Clicks an element.
    pub async fn click(&self, css: &str) {
        self.pressed.fetch_add(1, Ordering::Relaxed);
        for _ in 0..20 {
            if self.find(css).await.click().await.is_ok() {
                return;
            }
            tokio::time::sleep(Duration::from_millis(50)).await;
        }
        panic!("{css} cannot be pressed");
    }

    /// Sends keys to whatever has the focus.
    pub async fn keys(&self, keys: &str) {
        self.client.active_element().await.unwrap().send_keys(keys).await.unwrap();
    }

    /// What a script gives.
    pub async fn script(&self, script: &str, args: Vec<Value>) -> Value {
        self.client.execute(script, args).await.unwrap()
    }

    /// Drags an element by pixels, and lets go.
    pub async fn drag(&self, css: &str, by: (i64, i64)) {
        self.hold(css, by).await;
        self.let_go().await;
    }

    /// Drags an element by pixels, and thinks better of it.
    pub async fn drag_and_escape(&self, css: &str, by: (i64, i64)) {
        use fantoccini::actions::{InputSource, KeyAction, KeyActions};
        self.hold(css, by).await;
        // The element is drawn anew all the time, so the key goes to whatever has the focus.
        let escape = KeyActions::new("keys".into())
            .then(KeyAction::Down { value: '\u{e00c}' })
            .then(KeyAction::Up { value: '\u{e00c}' });
        self.client.perform_actions(escape).await.unwrap();
        self.let_go().await;
    }

    async fn hold(&self, css: &str, (by_x, by_y): (i64, i64)) {
        use fantoccini::actions::{InputSource, MOUSE_BUTTON_LEFT, MouseActions, PointerAction};
        let element = self.find(css).await;
        let steps = 6;
        let mut mouse = MouseActions::new("mouse".into())
            .then(PointerAction::MoveToElement { element, duration: None, x: 0.0, y: 0.0 })
            .then(PointerAction::Down { button: MOUSE_BUTTON_LEFT });
        for _ in 0..steps {
            mouse = mouse.then(PointerAction::MoveBy {
                duration: Some(Duration::from_millis(30)),
                x: by_x as f64 / f64::from(steps),
                y: by_y as f64 / f64::from(steps),
            });
        }
        self.client.perform_actions(mouse).await.unwrap();
    }

    async fn let_go(&self) {
        use fantoccini::actions::{InputSource, MOUSE_BUTTON_LEFT, MouseActions, PointerAction};
        let mouse = MouseActions::new("mouse".into()).then(PointerAction::Up { button: MOUSE_BUTTON_LEFT });
        self.client.perform_actions(mouse).await.unwrap();
    }

    /// What the page complained about since it was loaded; an allowed resource of none.
    pub async fn complaints(&self) -> Vec<String> {
        let found = self.script("return window.__complaints || [];", Vec::new()).await;
        found.as_array().unwrap().iter().map(|v| v.as_str().unwrap_or("").to_owned()).collect()
    }

    /// Runs axe over the page: WCAG 2.0 to 2.2, A and AA; gives what breaks a rule, with its place.
    pub async fn axe(&self) -> Vec<String> {
        self.script(AXE, Vec::new()).await;
        let run = "const done = arguments[arguments.length - 1]; \
            axe.run({ runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] }) \
            .then((r) => done(r.violations.flatMap((v) => v.nodes.map((n) => v.id + ' at ' + n.target.join(' ') + ': ' + n.failureSummary))));";
        let found = self.client.execute_async(run, Vec::new()).await.unwrap();
        found.as_array().unwrap().iter().map(|v| v.as_str().unwrap_or("").to_owned()).collect()
    }

    /// Asserts what holds for every page: nothing complains, axe finds nothing, no key of a word
    /// shows, and the page is no wider than its window.
    pub async fn check_page(&self) {
        let path = self.path().await;
        assert_eq!(self.complaints().await, Vec::<String>::new(), "{path}");
        assert_eq!(self.axe().await, Vec::<String>::new(), "{path}");
        let width = self.script("return [document.documentElement.scrollWidth, window.innerWidth];", Vec::new()).await;
        assert!(width[0].as_i64() <= width[1].as_i64(), "{path} is wider than its window: {width}");
    }

    /// Closes the browser.
    pub async fn close(self) {
        let _ = self.client.clone().close().await;
    }
}

impl Drop for Browser {
    fn drop(&mut self) {
        // A driver that is killed leaves its browser behind: the session is ended first, also when a
        // check has failed and nothing can be awaited any more.
        if let Ok(mut driver) = TcpStream::connect(("127.0.0.1", self.driver_port)) {
            let request =
                format!("DELETE /session/{} HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: close\r\n\r\n", self.session);
            let _ = driver.set_read_timeout(Some(Duration::from_secs(5)));
            if driver.write_all(request.as_bytes()).is_ok() {
                let _ = driver.read(&mut [0; 64]);
            }
        }
        let _ = self.driver.kill();
        let _ = self.driver.wait();
    }
}
