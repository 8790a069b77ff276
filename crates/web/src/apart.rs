//! Long work: away from the threads that answer requests, and never more of it at once than a machine bears.

use tokio::sync::Semaphore;

use crate::error::PageError;

/// How much long work goes on at once, in the whole process: replays, searches, files being read. What comes on top
/// waits for its turn, and under the time limit of its request is answered with 503.
const AT_ONCE: usize = 4;

static TURNS: Semaphore = Semaphore::const_new(AT_ONCE);

/// Does long work when it is its turn.
///
/// # Errors
/// [`PageError`] when the work panics.
pub(crate) async fn apart<T: Send + 'static>(work: impl FnOnce() -> T + Send + 'static) -> Result<T, PageError> {
    // The turn goes with the work: a request that gave up does not let another one in beside what still runs.
    let turn = TURNS.acquire().await.map_err(|e| PageError::Ours(Box::new(e)))?;
    let done = actix_web::web::block(move || {
        let _turn = turn;
        work()
    });
    done.await.map_err(|e| PageError::Ours(Box::new(e)))
}

#[cfg(test)]
mod tests {
    use super::*;
    use std::sync::atomic::{AtomicUsize, Ordering};
    use std::time::Duration;

    static NOW: AtomicUsize = AtomicUsize::new(0);
    static MOST: AtomicUsize = AtomicUsize::new(0);

    #[actix_web::test]
    async fn no_more_than_so_many_at_once_and_all_of_them_in_the_end() {
        let work = |n: usize| {
            apart(move || {
                MOST.fetch_max(NOW.fetch_add(1, Ordering::SeqCst) + 1, Ordering::SeqCst);
                std::thread::sleep(Duration::from_millis(20));
                NOW.fetch_sub(1, Ordering::SeqCst);
                n
            })
        };
        let waiting: Vec<_> = (0..20).map(|n| actix_web::rt::spawn(work(n))).collect();
        let mut sum = 0;
        for one in waiting {
            sum += one.await.unwrap().unwrap();
        }
        assert_eq!(sum, 190);
        assert!(MOST.load(Ordering::SeqCst) <= AT_ONCE);
    }
}
