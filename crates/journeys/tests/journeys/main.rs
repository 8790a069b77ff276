//! The application in a browser, one file a task of the technician.
#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic)]

mod as_found;
mod capability;
mod dial_in;
mod every_page;
mod first_card;
mod keyboard;
mod live;
mod phone;
mod round;
mod rules;
mod sensors;
mod site_file;
mod temporary;
mod week;
mod whole_path;
mod why;
mod worksheet;

use upland_journeys::Browser;

/// Signs in at the demo company and goes to a step of a controller.
async fn open(b: &Browser, controller: &str, step: &str) {
    b.sign_in("oda@averstane.example").await;
    go_to(b, controller, step).await;
}

/// Goes to a step of a controller. A form that was just sent may lead the browser elsewhere once more.
async fn go_to(b: &Browser, controller: &str, step: &str) {
    let script = "return [...document.querySelectorAll('main a')].find((a) => a.textContent.trim() === arguments[0])\
                  ?.getAttribute('href') ?? null";
    for _ in 0..20 {
        b.go("/places").await;
        let href = b.script(script, vec![controller.into()]).await;
        if let Some(href) = href.as_str() {
            return b.go(&href.replace("/year", step)).await;
        }
        tokio::time::sleep(std::time::Duration::from_millis(200)).await;
    }
    panic!("{controller} is not among the places");
}

/// Presses what stands for a hidden box or radio: its label.
async fn tick(b: &Browser, name: &str, value: &str) {
    b.click(&format!("label:has(input[name='{name}'][value='{value}'])")).await;
}
