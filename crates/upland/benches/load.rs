//! Twenty people on Week, Year and Replay: the pages and a drag on them; on Today; and on Stations, where one of them
//! saves; over HTTP, with the demo data.
//!
//! Not a criterion benchmark: what matters is the slowest of a hundred, under load. Starts the release
//! binary on a database of its own, on loopback, sends a fixed number of requests and ends by itself.
//! Takes `UPLAND_TEST_SERVER`; see docs/performance.md.
#![allow(missing_docs, clippy::unwrap_used, clippy::expect_used, clippy::panic, clippy::print_stdout)]

use std::cell::RefCell;
use std::io::{BufRead, BufReader, Read, Write};
use std::net::TcpStream;
use std::path::Path;
use std::sync::{Barrier, Mutex};
use std::thread;
use std::time::{Duration, Instant};

use upland_journeys::{Server, fields_of_forms};

const PEOPLE: usize = 20;
/// Requests a person sends of each kind. At work, people pause; these do not.
const REQUESTS: usize = 50;
/// A person who drags sends about ten questions a second.
const DRAGGING: Duration = Duration::from_millis(100);
/// A person who reads takes a page every half second at the very most.
const READING: Duration = Duration::from_millis(500);

/// How long somebody drags beside others.
const ALONGSIDE: Duration = Duration::from_secs(25);

struct Session {
    agent: ureq::Agent,
    base: String,
    line: RefCell<Line>,
}

/// A connection that stays open, and what is asked over it. The askers share the machine with the server: a client
/// that knows all of HTTP takes a third of it.
struct Line {
    stream: BufReader<TcpStream>,
    head: String,
    read: String,
}

impl Line {
    fn open(base: &str, cookie: &str) -> Self {
        let host = base.trim_start_matches("http://");
        Self {
            stream: BufReader::with_capacity(1 << 17, TcpStream::connect(host).unwrap()),
            head: format!(" HTTP/1.1\r\nhost: {host}\r\ncookie: {cookie}\r\n\r\n"),
            read: String::new(),
        }
    }

    /// The body of a page, which the server sends with its length.
    fn get(&mut self, path: &str) -> &str {
        let Self { stream, head, read } = self;
        stream.get_ref().write_all(format!("GET {path}{head}").as_bytes()).unwrap();
        let mut length = 0;
        let mut heading = String::new();
        loop {
            heading.clear();
            stream.read_line(&mut heading).unwrap();
            if let Some(bytes) = heading.strip_prefix("content-length: ") {
                length = bytes.trim_end().parse().unwrap();
            } else if heading == "\r\n" {
                break;
            }
        }
        read.clear();
        stream.take(length).read_to_string(read).unwrap();
        read
    }
}

impl Session {
    fn get(&self, path: &str) -> String {
        self.agent.get(format!("{}{path}", self.base)).call().unwrap().body_mut().read_to_string().unwrap()
    }

    /// Takes a page that holds a text.
    fn take(&self, path: &str, holds: &str) {
        assert!(self.line.borrow_mut().get(path).contains(holds), "{path}");
    }

    fn post(&self, path: &str, fields: &[(&str, &str)]) -> String {
        self.agent
            .post(format!("{}{path}", self.base))
            .send_form(fields.iter().copied())
            .unwrap()
            .body_mut()
            .read_to_string()
            .unwrap()
    }

    /// One after another: an account answers one password at a time.
    fn signed_in(base: &str) -> Self {
        static TURN: Mutex<()> = Mutex::new(());
        let _turn = TURN.lock().unwrap();
        let config = ureq::Agent::config_builder().max_idle_connections_per_host(1).build();
        let agent: ureq::Agent = config.into();
        let post = agent.post(format!("{base}/sign-in"));
        post.send_form([("email", "oda@averstane.example"), ("password", "upland-demo")]).unwrap();
        let cookie: Vec<String> =
            agent.cookie_jar_lock().iter().map(|c| format!("{}={}", c.name(), c.value())).collect();
        let line = RefCell::new(Line::open(base, &cookie.join("; ")));
        Self { agent, base: base.to_owned(), line }
    }
}

fn field(page: &str, name: &str) -> String {
    let rest = page.split(&format!("name=\"{name}\" value=\"")).nth(1).unwrap();
    rest.split('"').next().unwrap().to_owned()
}

/// Times of one kind of request by everybody at once, sorted. Everybody has signed in, and holds a
/// token, before the first one asks: passwords are slow on purpose, and a drag begins on an open page.
fn measure(
    base: &str,
    page: &str,
    pause: Duration,
    ask: impl Fn(&Session, &str, usize) + Send + Sync,
) -> Vec<Duration> {
    let (ask, everybody) = (&ask, &Barrier::new(PEOPLE));
    let mut times: Vec<Duration> = thread::scope(|scope| {
        let people: Vec<_> = (0..PEOPLE)
            .map(|person| {
                scope.spawn(move || {
                    let session = Session::signed_in(base);
                    let token = field(&session.get(page), "token");
                    everybody.wait();
                    thread::sleep(pause / PEOPLE as u32 * person as u32);
                    (0..REQUESTS)
                        .map(|n| {
                            let started = Instant::now();
                            ask(&session, &token, n);
                            let spent = started.elapsed();
                            thread::sleep(pause.saturating_sub(spent));
                            spent
                        })
                        .collect::<Vec<_>>()
                })
            })
            .collect();
        people.into_iter().flat_map(|p| p.join().unwrap()).collect()
    });
    times.sort_unstable();
    times
}

/// Prints some times and gives the 99th percentile, ms.
fn report(what: &str, times: &[Duration]) -> f64 {
    let at = |share: f64| times[((times.len() - 1) as f64 * share) as usize].as_secs_f64() * 1000.0;
    println!("{what}: {} requests, p50 {:.1} ms, p95 {:.1} ms, p99 {:.1} ms", times.len(), at(0.5), at(0.95), at(0.99));
    at(0.99)
}

/// How many a second everybody got together who asked without a pause.
fn a_second(times: &[Duration]) -> f64 {
    times.len() as f64 * PEOPLE as f64 / times.iter().sum::<Duration>().as_secs_f64()
}

/// A page and what is asked while something on it is dragged.
struct Dragged {
    name: &'static str,
    page: String,
    /// What stands in the page, and in the answer to a drag.
    shows: [&'static str; 2],
    /// The fields of a question but the token, for the n-th place.
    fields: fn(usize) -> Vec<(&'static str, String)>,
}

fn month_in_hand(n: usize) -> Vec<(&'static str, String)> {
    vec![("program", "A".into()), ("month", "5".into()), ("percent", (20 + n % 90).to_string())]
}

fn percents_in_hand(n: usize) -> Vec<(&'static str, String)> {
    let scale = (50 + n % 90).to_string();
    vec![("program", "A".into()), ("period", "2025".into()), ("scale", scale)]
}

fn start_in_hand(n: usize) -> Vec<(&'static str, String)> {
    let minutes = (300 + 7 * (n % 60)).to_string();
    vec![("do", "move".into()), ("program", "A".into()), ("from", "04:30".into()), ("to", minutes)]
}

impl Dragged {
    fn measure(&self, base: &str) {
        // A replay that tries nothing has nothing to save, and no version.
        let page = Session::signed_in(base).get(&self.page);
        let version = if page.contains("name=\"version\"") { field(&page, "version") } else { String::new() };
        for (kind, reading, dragging) in
            [("at work", READING, DRAGGING), ("without a pause", Duration::ZERO, Duration::ZERO)]
        {
            let pages = measure(base, &self.page, reading, |s, _, _| s.take(&self.page, self.shows[0]));
            let page = report(&format!("{} page, {PEOPLE} people {kind}", self.name), &pages);
            if reading.is_zero() {
                println!("{:.0} pages a second", a_second(&pages));
            }
            let drag = report(
                &format!("a drag on it, {PEOPLE} people {kind}"),
                &measure(base, &self.page, dragging, |s, token, n| self.ask(s, token, n, &version)),
            );
            // The least that the same server and database can do for as many people at the pace of a drag.
            let bare = report(
                &format!("a bare select, {PEOPLE} people {kind}"),
                &measure(base, &self.page, dragging, |s, _, _| s.take("/readyz", "ready")),
            );
            println!("99th percentile to that of a bare select: page {:.1}, drag {:.1}", page / bare, drag / bare);
        }
    }

    /// One person drags while the others take pages, as it is on a working day.
    fn beside_others(&self, base: &str) {
        let page = Session::signed_in(base).get(&self.page);
        let version = if page.contains("name=\"version\"") { field(&page, "version") } else { String::new() };
        let mut times = Vec::new();
        let everybody = &Barrier::new(PEOPLE);
        thread::scope(|scope| {
            for person in 1..PEOPLE {
                scope.spawn(move || {
                    let session = Session::signed_in(base);
                    everybody.wait();
                    thread::sleep(READING / PEOPLE as u32 * person as u32);
                    for _ in 0..ALONGSIDE.as_millis() / READING.as_millis() {
                        let started = Instant::now();
                        session.take(&self.page, self.shows[0]);
                        thread::sleep(READING.saturating_sub(started.elapsed()));
                    }
                });
            }
            let session = Session::signed_in(base);
            let token = field(&session.get(&self.page), "token");
            everybody.wait();
            for n in 0..(ALONGSIDE.as_millis() / DRAGGING.as_millis()) as usize {
                let started = Instant::now();
                self.ask(&session, &token, n, &version);
                times.push(started.elapsed());
                thread::sleep(DRAGGING.saturating_sub(started.elapsed()));
            }
        });
        times.sort_unstable();
        report(&format!("a drag on {}, {} others at work on its page", self.name, PEOPLE - 1), &times);
    }

    fn ask(&self, session: &Session, token: &str, n: usize, version: &str) {
        let own = (self.fields)(n);
        let mut fields = vec![("token", token), ("version", version)];
        fields.extend(own.iter().map(|(name, value)| (*name, value.as_str())));
        assert!(session.post(&format!("{}/preview", self.page), &fields).contains(self.shows[1]));
    }
}

/// One person changes a station again and again, and sees all results of the new figure; the others take the page.
fn save_stations(base: &str, page: &str) {
    let mut times = Vec::new();
    let everybody = &Barrier::new(PEOPLE);
    thread::scope(|scope| {
        for person in 1..PEOPLE {
            scope.spawn(move || {
                let session = Session::signed_in(base);
                everybody.wait();
                thread::sleep(READING / PEOPLE as u32 * person as u32);
                for _ in 0..ALONGSIDE.as_millis() / READING.as_millis() {
                    let started = Instant::now();
                    session.take(page, "s1_name");
                    thread::sleep(READING.saturating_sub(started.elapsed()));
                }
            });
        }
        let session = Session::signed_in(base);
        let mut shown = session.get(page);
        everybody.wait();
        for n in 0..(ALONGSIDE.as_millis() / READING.as_millis()) as usize {
            let area = (200 + n).to_string();
            let mut fields = fields_of_forms(&shown, page).remove(0);
            fields.iter_mut().filter(|(name, _)| name == "s1_area_m2").for_each(|(_, value)| value.clone_from(&area));
            let fields: Vec<(&str, &str)> =
                fields.iter().map(|(name, value)| (name.as_str(), value.as_str())).collect();
            let started = Instant::now();
            // The answer leads to the page with the new figures, which is part of the time.
            shown = session.post(page, &fields);
            times.push(started.elapsed());
            assert!(fields_of_forms(&shown, page)[0].contains(&("s1_area_m2".to_owned(), area)));
            thread::sleep(READING.saturating_sub(started.elapsed()));
        }
    });
    times.sort_unstable();
    report(&format!("a station saved and its results shown, {} others at work on Stations", PEOPLE - 1), &times);
}

fn main() {
    let runtime = tokio::runtime::Builder::new_multi_thread().worker_threads(2).enable_all().build().unwrap();
    let server = runtime.block_on(Server::with_demo(Path::new(env!("CARGO_BIN_EXE_upland"))));
    let home = Session::signed_in(&server.address).get("/");
    let year = home.split('"').find(|p| p.starts_with("/controllers/") && p.contains("/year")).unwrap();
    let year = year.split('?').next().unwrap().to_owned();
    let week = year.replace("/year", "/week");
    let (replay, stations) = (year.replace("/year", "/replay"), year.replace("/year", "/stations"));
    let dragged = [
        Dragged { name: "Week", page: week, shows: ["weekplate", "weekplate"], fields: start_in_hand },
        Dragged { name: "Year", page: year, shows: ["yearplate", "live-side"], fields: month_in_hand },
        Dragged { name: "Replay", page: replay, shows: ["seasonw", "seasonw"], fields: percents_in_hand },
    ];
    // `cargo bench … -- Replay` measures that page alone.
    let only = std::env::args().skip(1).find(|a| !a.starts_with('-'));
    let wanted = |name: &str| only.as_deref().is_none_or(|only| only == name);
    for one in dragged.iter().filter(|one| wanted(one.name)) {
        one.beside_others(&server.address);
        one.measure(&server.address);
    }
    if wanted("Stations") {
        save_stations(&server.address, &stations);
    }
    if !wanted("Today") {
        return;
    }
    report(
        &format!("Today, {PEOPLE} people at work"),
        &measure(&server.address, "/", READING, |s, _, _| s.take("/", "pcts")),
    );
}
