use std::io::stdin;

use anyhow::Context;
use upland_store::{Role, Store, StoreError};
use upland_web::hash_password;

use super::Outcome;
use crate::args::{RoleName, User};

/// Adds a user, or gives one a new password, which is read from standard input.
pub(super) fn run(args: &User) -> anyhow::Result<Outcome> {
    let mut password = String::new();
    stdin().read_line(&mut password).context("the password cannot be read")?;
    let hash = hash_password(password.trim_end_matches(['\r', '\n']))?;
    anyhow::ensure!(args.email.contains('@'), "{:?} is no e-mail address", args.email);
    let runtime = tokio::runtime::Builder::new_multi_thread().worker_threads(2).enable_all().build()?;
    runtime
        .block_on(async {
            upland_store::migrate(&args.database.database_url).await?;
            let store = Store::new(&args.database.database_url, 1)?;
            let account = store.account(store.account_named(&args.company).await?);
            match account.set_password(&args.email, &hash, None).await {
                Err(StoreError::NotFound) => {
                    let role = match args.role {
                        Some(RoleName::Lead) => Role::Lead,
                        Some(RoleName::Technician) => Role::Technician,
                        Some(RoleName::Reader) => Role::Reader,
                        None if account.has_lead().await? => Role::Technician,
                        None => Role::Lead,
                    };
                    account.add_user(&args.email, &args.name, &hash, role).await.map(|_| ())
                }
                other => other,
            }
        })
        .context("the user cannot be kept")?;
    Ok(Outcome::Done)
}
