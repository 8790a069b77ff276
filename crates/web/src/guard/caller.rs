//! Where a request comes from.

use actix_web::HttpRequest;
use actix_web::http::header::USER_AGENT;

use crate::state::App;

/// Longest network address kept: an IPv6 address with its zone is shorter.
const MOST_ADDRESS: usize = 64;

/// The network address of who asks; behind a proxy the one that the proxy tells.
pub(crate) fn network(app: &App, request: &HttpRequest) -> String {
    let told = request.connection_info().realip_remote_addr().map(str::to_owned);
    let peer = request.peer_addr().map(|a| a.ip().to_string());
    let address = if app.behind_proxy { told.or(peer) } else { peer };
    address.unwrap_or_default().chars().filter(|c| !c.is_control()).take(MOST_ADDRESS).collect()
}

/// Whether a phone or a computer asks; empty when it does not tell.
pub(crate) fn device(request: &HttpRequest) -> &'static str {
    device_of(request.headers().get(USER_AGENT).and_then(|agent| agent.to_str().ok()).unwrap_or_default())
}

/// Browsers on phones put the word in their name by convention.
fn device_of(agent: &str) -> &'static str {
    match agent {
        "" => "",
        phone if phone.contains("Mobile") => "phone",
        _ => "computer",
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_phone_says_so() {
        assert_eq!(device_of("Mozilla/5.0 (Linux; K) Mobile Safari/537.36"), "phone");
        assert_eq!(device_of("Mozilla/5.0 (X11; Linux x86_64) Gecko/20100101"), "computer");
        assert_eq!(device_of(""), "");
    }
}
