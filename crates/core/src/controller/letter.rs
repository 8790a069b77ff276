/// A program's letter, A to D.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct ProgramLetter(char);

impl ProgramLetter {
    /// The four letters, in the order of the panel.
    pub const ALL: [Self; 4] = [Self('A'), Self('B'), Self('C'), Self('D')];
    /// The first program.
    pub const A: Self = Self('A');

    /// Reads a letter, in either case.
    #[must_use]
    pub fn new(letter: char) -> Option<Self> {
        let upper = letter.to_ascii_uppercase();
        ('A'..='D').contains(&upper).then_some(Self(upper))
    }

    /// The letter.
    #[must_use]
    pub const fn get(self) -> char {
        self.0
    }

    /// Its place among the letters, 0 to 3.
    #[must_use]
    pub const fn index(self) -> usize {
        self.0 as usize - 'A' as usize
    }
}
