//! What stands round every page of a controller.

use super::shell::Shell;
use super::spine::Spine;
use crate::charts::Strip;

/// Masthead, steps and year strip of a controller's page.
#[derive(Debug, Clone)]
pub(crate) struct Frame {
    pub(crate) shell: Shell,
    pub(crate) spine: Spine,
    pub(crate) strip: Option<[Strip; 2]>,
}
