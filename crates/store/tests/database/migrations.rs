use upland_store::{migrate, revert_all, testing};

#[tokio::test(flavor = "multi_thread")]
async fn up_down_and_up_again() {
    let url = testing::fresh_database().await.unwrap();
    migrate(&url).await.unwrap();
    revert_all(&url).await.unwrap();
    migrate(&url).await.unwrap();
}
