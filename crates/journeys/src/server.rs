use std::io::{BufRead, BufReader, Write};
use std::path::{Path, PathBuf};
use std::process::{Child, Command, Stdio};
use std::sync::atomic::{AtomicU32, Ordering};

/// The password of every user that a test makes.
pub const PASSWORD: &str = "a long password";

/// How many were started in this process.
static SERVERS: AtomicU32 = AtomicU32::new(0);

/// The day on which tests see every page.
const TODAY: &str = "2026-06-11";

/// The binary, serving; it ends with the value.
pub struct Server {
    child: Child,
    binary: PathBuf,
    key_file: PathBuf,
    /// Where it answers, as `http://127.0.0.1:41234`.
    pub address: String,
    /// Address of its database.
    pub database_url: String,
    /// Whether its database was made for it alone, and goes with it.
    owns_database: bool,
}

impl Server {
    /// Starts a binary on a fresh database with one user, `oda@example.com` of Averstane Grounds.
    pub async fn start(binary: &Path) -> Self {
        let database_url = upland_store::testing::fresh_database().await.expect("a database");
        let mut server = Self::on(binary, database_url);
        server.owns_database = true;
        server
    }

    /// Starts a binary on a fresh database with the demo data.
    pub async fn with_demo(binary: &Path) -> Self {
        let database_url = upland_store::testing::fresh_database().await.expect("a database");
        let status =
            Command::new(binary).args(["demo", "--today", TODAY, "--database-url", &database_url]).status().unwrap();
        assert!(status.success(), "demo data");
        let mut server = Self::on(binary, database_url);
        server.owns_database = true;
        server
    }

    /// The binary of the workspace's debug build, for tests of other packages.
    pub fn built_binary() -> PathBuf {
        let target = std::env::var_os("CARGO_TARGET_DIR").map(PathBuf::from);
        let target = target.unwrap_or_else(|| Path::new(env!("CARGO_MANIFEST_DIR")).join("../../target"));
        target.join("debug/upland")
    }

    /// Starts a binary on an empty database with that user.
    pub fn on(binary: &Path, database_url: String) -> Self {
        let server = Self::alone(binary, database_url);
        server.add_user("Averstane Grounds", "Oda", "oda@example.com");
        server
    }

    /// Starts a binary on whatever is at an address, nothing included.
    pub fn alone(binary: &Path, database_url: String) -> Self {
        // A file of its own: one that another test writes again could be read while it is empty.
        let number = SERVERS.fetch_add(1, Ordering::Relaxed);
        let key_file = std::env::temp_dir().join(format!("upland-key-{}-{number}", std::process::id()));
        std::fs::write(&key_file, [7u8; 64]).unwrap();
        let (child, address) = spawn(binary, &key_file, &database_url);
        Self { child, binary: binary.to_owned(), key_file, address, database_url, owns_database: false }
    }

    /// Adds a user with [`PASSWORD`] through the command line.
    pub fn add_user(&self, company: &str, name: &str, email: &str) {
        let mut child = Command::new(&self.binary)
            .args([
                "user",
                "--database-url",
                &self.database_url,
                "--company",
                company,
                "--name",
                name,
                "--email",
                email,
            ])
            .stdin(Stdio::piped())
            .stdout(Stdio::null())
            .stderr(Stdio::piped())
            .spawn()
            .unwrap();
        writeln!(child.stdin.take().unwrap(), "{PASSWORD}").unwrap();
        let out = child.wait_with_output().unwrap();
        assert!(out.status.success(), "{email} is not added: {}", String::from_utf8_lossy(&out.stderr));
    }

    /// Stops it as Ctrl-C does, and starts it again on the same database.
    pub fn restart(&mut self) {
        self.stop();
        let (child, address) = spawn(&self.binary, &self.key_file, &self.database_url);
        self.child = child;
        self.address = address;
    }

    /// Stops it as Ctrl-C does and says whether it ended well.
    pub fn stop(&mut self) -> bool {
        let id = self.child.id().to_string();
        let _ = Command::new("kill").args(["-INT", &id]).status();
        self.child.wait().unwrap().success()
    }
}

fn spawn(binary: &Path, key_file: &Path, database_url: &str) -> (Child, String) {
    let mut child = Command::new(binary)
        .args(["serve", "--listen", "127.0.0.1:0", "--today", TODAY, "--workers", "2", "--key-file"])
        .arg(key_file)
        .args(["--database-url", database_url])
        .env("RUST_LOG", "error")
        .stdout(Stdio::piped())
        .spawn()
        .unwrap_or_else(|e| panic!("{} cannot be started: {e}", binary.display()));
    let mut line = String::new();
    BufReader::new(child.stdout.take().unwrap()).read_line(&mut line).unwrap();
    let address =
        line.trim().trim_end_matches('/').rsplit_once(" at ").unwrap_or_else(|| panic!("{line}")).1.to_owned();
    (child, address)
}

impl Drop for Server {
    fn drop(&mut self) {
        let _ = self.child.kill();
        let _ = self.child.wait();
        let _ = std::fs::remove_file(&self.key_file);
        if self.owns_database {
            let url = self.database_url.clone();
            // A thread of its own, as this one may belong to a runtime.
            let _ = std::thread::spawn(move || upland_store::testing::drop_database(&url)).join();
        }
    }
}
