//! How a file is laid out: its characters, what separates its columns, where its header stands.

use encoding_rs::{UTF_16BE, UTF_16LE, WINDOWS_1252};

use super::column::Column;
use super::file_error::{FileError, MAX_BYTES, MAX_COLUMNS};
use super::mapping::recognise;

/// Lines over the header in which loggers tell about themselves.
const MOST_PREAMBLE: usize = 60;

/// What a file is written in.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Encoding {
    /// UTF-8, with or without its mark.
    Utf8,
    /// UTF-16, which starts with its mark.
    Utf16,
    /// Windows-1252, of which Latin-1 is a part: what is no UTF-8.
    Windows1252,
}

impl Encoding {
    /// The usual name.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::Utf8 => "UTF-8",
            Self::Utf16 => "UTF-16",
            Self::Windows1252 => "Windows-1252",
        }
    }
}

/// The layout of a file.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Layout {
    /// What it is written in.
    pub encoding: Encoding,
    /// What stands between columns: a comma, a semicolon or a tab.
    pub separator: u8,
    /// Lines over the header.
    pub preamble: usize,
    /// Whether the line under the header says units.
    pub units: bool,
}

impl Layout {
    /// Whether numbers have decimal commas: where columns are not separated by commas.
    #[must_use]
    pub const fn decimal_comma(&self) -> bool {
        self.separator != b','
    }
}

/// A file as text. The bytes of UTF-8 become the text itself, so that a long file is not kept twice.
#[derive(Debug, Clone)]
pub(super) struct TextFile {
    text: String,
    pub(super) encoding: Encoding,
    /// The bytes of any other encoding.
    sent: Option<Vec<u8>>,
}

impl TextFile {
    /// Reads bytes as text.
    ///
    /// # Errors
    /// [`FileError`] for bytes that no text has, or for too many.
    pub(super) fn read(bytes: Vec<u8>) -> Result<Self, FileError> {
        if bytes.len() > MAX_BYTES {
            return Err(FileError::TooLarge);
        }
        for (mark, encoding) in [(&[0xff, 0xfe][..], UTF_16LE), (&[0xfe, 0xff][..], UTF_16BE)] {
            if bytes.starts_with(mark) {
                let text = encoding.decode_with_bom_removal(&bytes).0.into_owned();
                refuse_binary(text.as_bytes())?;
                return Ok(Self { text, encoding: Encoding::Utf16, sent: Some(bytes) });
            }
        }
        refuse_binary(&bytes)?;
        match String::from_utf8(bytes) {
            Ok(text) => Ok(Self { text, encoding: Encoding::Utf8, sent: None }),
            Err(other) => {
                let bytes = other.into_bytes();
                let text = WINDOWS_1252.decode_without_bom_handling(&bytes).0.into_owned();
                Ok(Self { text, encoding: Encoding::Windows1252, sent: Some(bytes) })
            }
        }
    }

    /// The text without the mark that it may begin with.
    pub(super) fn text(&self) -> &str {
        self.text.trim_start_matches('\u{feff}')
    }

    /// The bytes that were read.
    pub(super) fn into_bytes(self) -> Vec<u8> {
        self.sent.unwrap_or_else(|| self.text.into_bytes())
    }
}

fn refuse_binary(bytes: &[u8]) -> Result<(), FileError> {
    let is_binary = |b: &u8| matches!(b, 0..=8 | 14..=31);
    // A stretch without a branch is looked through many bytes at a time.
    const STRETCH: usize = 4096;
    let first = bytes.chunks(STRETCH).position(|chunk| chunk.iter().fold(false, |found, b| found | is_binary(b)));
    let Some(from) = first.map(|n| n * STRETCH) else { return Ok(()) };
    let at = bytes[from..].iter().position(is_binary).unwrap_or(0);
    Err(FileError::NotText { at: from + at })
}

/// Finds the header: the first of the first lines that names a date and something else, or the first line. What
/// separates the columns is what makes most of them there.
pub(super) fn find(text: &str, encoding: Encoding) -> Layout {
    let lines: Vec<&str> = text.lines().take(MOST_PREAMBLE + 2).collect();
    let is_header = |line: &str, separator: u8| {
        // Most lines are values: only one with two words can be a header.
        if line.bytes().filter(u8::is_ascii_alphabetic).count() < 4 {
            return false;
        }
        let cells = split(line, separator);
        let known = |cell: &&String| recognise(cell).is_some();
        cells.iter().any(|c| recognise(c).is_some_and(|r| r.column == Column::Date))
            && cells.iter().filter(known).count() >= 2
    };
    let widest = |line: &str| {
        let count = |separator: u8| line.bytes().filter(|b| *b == separator).count();
        [b',', b';', b'\t'].into_iter().max_by_key(|s| (count(*s), *s == b',')).unwrap_or(b',')
    };
    let found = lines.iter().enumerate().take(MOST_PREAMBLE).find_map(|(at, line)| {
        let separator = widest(line);
        is_header(line, separator).then_some((at, separator))
    });
    let first = lines.iter().position(|line| !line.trim().is_empty()).unwrap_or(0);
    let (preamble, separator) = found.unwrap_or_else(|| (first, lines.get(first).map_or(b',', |line| widest(line))));
    // A row with a cell that goes on in the next line is no line of units, whatever its first line looks like.
    let is_whole = |line: &str| line.matches('"').count().is_multiple_of(2);
    let units = lines.get(preamble + 1).is_some_and(|line| is_whole(line) && is_units(&split(line, separator)));
    Layout { encoding, separator, preamble, units }
}

/// Cells of one line. A quoted cell that goes on in the next line ends here: headers have none.
fn split(line: &str, separator: u8) -> Vec<String> {
    let mut reader =
        csv::ReaderBuilder::new().delimiter(separator).has_headers(false).flexible(true).from_reader(line.as_bytes());
    let mut record = csv::StringRecord::new();
    if reader.read_record(&mut record).unwrap_or(false) {
        // A wider file is refused later.
        record.iter().take(MAX_COLUMNS + 1).map(|cell| cell.trim().to_owned()).collect()
    } else {
        Vec::new()
    }
}

/// A line under the header that has no value but at least one unit of ours.
fn is_units(cells: &[String]) -> bool {
    let digits = |cell: &String| cell.bytes().any(|b| b.is_ascii_digit()) && !cell.contains('m');
    let unit = |cell: &String| recognise(&format!("tmax {cell}")).or_else(|| recognise(&format!("rain {cell}")));
    !cells.iter().any(digits) && cells.iter().any(|cell| unit(cell).is_some_and(|r| r.unit.is_some()))
}

#[cfg(test)]
mod tests {
    use super::super::{Table, Unit};
    use super::*;

    fn table(bytes: &[u8]) -> Table {
        Table::parse(bytes).unwrap()
    }

    #[test]
    fn a_logger_tells_about_itself_over_the_header_and_of_units_under_it() {
        let text = "Station,Hut above the orchard\nSerial,00123\nLogged,\"daily, at midnight\"\n\n\
                    Date,Tmax,Tmin,Rain\n,°C,°C,mm\n2026-06-01,20.5,9.0,0\n";
        let table = table(text.as_bytes());
        let layout = table.layout();
        assert_eq!((layout.preamble, layout.separator, layout.units), (4, b',', true));
        assert_eq!(table.headers(), ["Date", "Tmax", "Tmin", "Rain"]);
        assert_eq!(table.len(), 1);
        let unit = |at: usize| table.recognised(at).and_then(|r| r.unit);
        assert_eq!([unit(1), unit(3)], [Some(Unit::Celsius), Some(Unit::Millimetres)]);
        assert_eq!(table.first_value(1), Some("20.5"));
    }

    #[test]
    fn semicolons_come_with_decimal_commas_and_tabs_too() {
        for separator in [';', '\t'] {
            let text = "Datum;date;tmax_c\nx;2026-06-01;20,5\n".replace(';', &separator.to_string());
            let table = table(text.as_bytes());
            assert_eq!(table.headers().len(), 3);
            assert!(table.layout().decimal_comma());
        }
        assert!(!table(b"date,tmax_c\n2026-06-01,20.5\n").layout().decimal_comma());
    }

    #[test]
    fn other_encodings_are_read() {
        let text = "date,tmax (°C)\n2026-06-01,20.5\n";
        let latin: Vec<u8> = text.chars().map(|c| u8::try_from(u32::from(c)).unwrap()).collect();
        let utf16 = |be: bool| -> Vec<u8> {
            let units = std::iter::once(0xfeff).chain(text.encode_utf16());
            units.flat_map(|u: u16| if be { u.to_be_bytes() } else { u.to_le_bytes() }).collect()
        };
        for (bytes, encoding) in [
            (text.as_bytes().to_vec(), Encoding::Utf8),
            (latin, Encoding::Windows1252),
            (utf16(false), Encoding::Utf16),
            (utf16(true), Encoding::Utf16),
        ] {
            let table = table(&bytes);
            assert_eq!(table.headers(), ["date", "tmax (°C)"], "{encoding:?}");
            assert_eq!(table.layout().encoding, encoding);
            assert_eq!(TextFile::read(bytes.clone()).unwrap().into_bytes(), bytes, "{encoding:?}");
        }
        let marked = "\u{feff}date,tmax_c\n";
        let file = TextFile::read(marked.into()).unwrap();
        assert_eq!(file.text(), "date,tmax_c\n");
        assert_eq!(file.into_bytes(), marked.as_bytes());
    }

    #[test]
    fn without_a_header_that_is_known_the_first_line_is_it() {
        assert_eq!(table(b"\n\na,b\n1,2\n").headers(), ["a", "b"]);
        assert_eq!(table(b"a,b\nmm,1\n").len(), 1, "a line with a value is no line of units");
    }
}
