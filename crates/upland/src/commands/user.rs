use std::io::stdin;

use anyhow::Context;
use upland_store::{Role, Store, StoreError};
use upland_web::hash_password;

use super::Outcome;
use crate::args::{RoleName, User};

/// Adds a user, or gives one a new password, which is read from standard input, and the role that is stated.
pub(super) fn run(args: &User) -> anyhow::Result<Outcome> {
    let mut password = String::new();
    stdin().read_line(&mut password).context("the password cannot be read")?;
    let hash = hash_password(password.trim_end_matches(['\r', '\n']))?;
    anyhow::ensure!(args.email.contains('@'), "{:?} is no e-mail address", args.email);
    let runtime = tokio::runtime::Builder::new_multi_thread().worker_threads(2).enable_all().build()?;
    runtime
        .block_on(async {
            upland_store::migrate(&args.database.database_url).await?;
            let store = Store::for_a_command(&args.database.database_url)?;
            let account = store.account(store.account_named(&args.company).await?);
            let stated = args.role.map(role_of);
            match account.set_password(&args.email, &hash, None).await {
                Ok(()) => match stated {
                    Some(role) => account.set_role(store.user_by_email(&args.email).await?.id, role).await,
                    None => Ok(()),
                },
                Err(StoreError::NotFound) => {
                    let first = if account.has_lead().await? { Role::Technician } else { Role::Lead };
                    let role = stated.unwrap_or(first);
                    account.add_user(&args.email, &args.name, &hash, role).await.map(|_| ())
                }
                Err(other) => Err(other),
            }
        })
        .context("the user cannot be kept")?;
    Ok(Outcome::Done)
}

const fn role_of(name: RoleName) -> Role {
    match name {
        RoleName::Lead => Role::Lead,
        RoleName::Technician => Role::Technician,
        RoleName::Reader => Role::Reader,
    }
}
