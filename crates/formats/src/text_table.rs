/// A table as CSV by RFC 4180: a header and rows, quoted where that is needed.
#[must_use]
pub fn csv_of(header: &[&str], rows: impl IntoIterator<Item = Vec<String>>) -> String {
    let mut writer = csv::WriterBuilder::new().flexible(true).from_writer(Vec::new());
    // Writing into memory cannot fail.
    let _ = writer.write_record(header);
    for row in rows {
        let _ = writer.write_record(&row);
    }
    writer.into_inner().ok().and_then(|bytes| String::from_utf8(bytes).ok()).unwrap_or_default()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_has_a_comma_a_quote_or_a_line_end_is_quoted() {
        let rows = [vec!["a, b".to_owned(), "say \"no\"".to_owned()], vec!["two\nlines".to_owned(), String::new()]];
        assert_eq!(csv_of(&["x", "y"], rows), "x,y\n\"a, b\",\"say \"\"no\"\"\"\n\"two\nlines\",\n");
    }
}
