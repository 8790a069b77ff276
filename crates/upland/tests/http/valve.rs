//! A valve between the application and its database: shut, it lets nothing through, and nobody is told. So
//! looks a database that hangs.

use std::io::{Read, Write};
use std::net::{TcpListener, TcpStream};
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};
use std::thread;
use std::time::Duration;

pub(crate) struct Valve {
    shut: Arc<AtomicBool>,
    /// Address of the database through the valve.
    pub(crate) database_url: String,
}

impl Valve {
    /// An open valve before a database on loopback.
    pub(crate) fn before(database_url: &str) -> Self {
        let (user, rest) = database_url.rsplit_once('@').expect("an address with a user");
        let (database, name) = rest.split_once('/').expect("an address with a name");
        let listener = TcpListener::bind("127.0.0.1:0").unwrap();
        let through = format!("{user}@{}/{name}", listener.local_addr().unwrap());
        let (shut, database) = (Arc::new(AtomicBool::new(false)), database.to_owned());
        let valve = Self { shut: shut.clone(), database_url: through };
        thread::spawn(move || {
            for caller in listener.incoming() {
                let (caller, answerer) = (caller.unwrap(), TcpStream::connect(&database).unwrap());
                let back = (answerer.try_clone().unwrap(), caller.try_clone().unwrap());
                for (from, to) in [(caller, answerer), back] {
                    let shut = shut.clone();
                    thread::spawn(move || pass(from, to, &shut));
                }
            }
        });
        valve
    }

    pub(crate) fn set_shut(&self, shut: bool) {
        self.shut.store(shut, Ordering::SeqCst);
    }
}

/// Passes on what comes until one side ends; nothing while the valve is shut.
fn pass(mut from: TcpStream, mut to: TcpStream, shut: &AtomicBool) {
    let mut bytes = [0; 16 * 1024];
    while let Ok(count @ 1..) = from.read(&mut bytes) {
        while shut.load(Ordering::SeqCst) {
            thread::sleep(Duration::from_millis(20));
        }
        if to.write_all(&bytes[..count]).is_err() {
            break;
        }
    }
    let _ = to.shutdown(std::net::Shutdown::Both);
}
