//! Files that were uploaded and not imported yet.

use chrono::{DateTime, Utc};

use crate::context::WaitingUpload;
use crate::show::{ago, number};
use crate::words::Words;

/// An uploaded file with the way back to its preview.
#[derive(Debug, Clone)]
pub(crate) struct WaitingFile {
    pub(crate) name: String,
    /// Its size, who sent it and when.
    pub(crate) said: String,
    pub(crate) href: String,
}

/// The files that wait for their import, at the addresses below `under`.
pub(crate) fn waiting_files(uploads: &[WaitingUpload], under: &str, now: DateTime<Utc>) -> Vec<WaitingFile> {
    let line = |upload: &WaitingUpload| WaitingFile {
        name: upload.file_name.clone(),
        said: Words.with(
            "waiting-said",
            &[
                ("size", &file_size(usize::try_from(upload.bytes).unwrap_or(0))),
                ("who", &upload.user_name),
                ("when", &ago(now, upload.at)),
            ],
        ),
        href: format!("{under}/{}", upload.id),
    };
    uploads.iter().map(line).collect()
}

/// `220 KB`, `8.9 MB`.
pub(crate) fn file_size(bytes: usize) -> String {
    const KILO: f64 = 1024.0;
    let kilobytes = bytes as f64 / KILO;
    if kilobytes < KILO {
        format!("{}\u{a0}KB", number(kilobytes.ceil(), 0))
    } else {
        format!("{}\u{a0}MB", number(kilobytes / KILO, 1))
    }
}

#[cfg(test)]
mod tests {
    use chrono::TimeDelta;
    use uuid::Uuid;

    use super::*;

    #[test]
    fn a_file_that_waits_says_how_large_it_is_and_who_sent_it() {
        let now = Utc::now();
        let (id, at) = (Uuid::nil(), now - TimeDelta::hours(3));
        let upload = WaitingUpload { id, file_name: "hill.csv".into(), bytes: 9_300_000, user_name: "Oda".into(), at };
        let files = waiting_files(&[upload], "/places/1/weather/files", now);
        assert_eq!(files[0].said, "8.9\u{a0}MB, sent by Oda 3 hours ago");
        assert_eq!(files[0].href, format!("/places/1/weather/files/{id}"));
    }

    #[test]
    fn sizes_change_their_unit_at_a_megabyte() {
        assert_eq!(file_size(1), "1\u{a0}KB");
        assert_eq!(file_size(1024 * 1023), "1023\u{a0}KB");
        assert_eq!(file_size(1024 * 1024), "1.0\u{a0}MB");
    }
}
