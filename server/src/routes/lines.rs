//! Long computations that tell line by line how far they are.

use actix_web::http::header::{ACCEPT, ContentEncoding};
use actix_web::web::Bytes;
use actix_web::{HttpRequest, HttpResponse};
use futures_util::stream::unfold;
use oak_acoustics::Stop;
use serde::Serialize;
use tokio::sync::mpsc::{UnboundedSender, unbounded_channel};

use crate::error::ApiError;
use crate::state::State;

/// Media type of a line of JSON after the other.
const LINES: &str = "application/x-ndjson";

/// Whether a request asks for lines.
pub(super) fn wanted(request: &HttpRequest) -> bool {
    let accepts = request.headers().get(ACCEPT).and_then(|accepts| accepts.to_str().ok());
    accepts.is_some_and(|accepts| accepts.contains(LINES))
}

/// Where lines go.
#[derive(Clone)]
pub(super) struct Lines(UnboundedSender<Bytes>);

impl Lines {
    /// Sends one; whoever has left reads none.
    pub fn send(&self, line: &impl Serialize) {
        let mut text = serde_json::to_vec(line).expect("plain data");
        text.push(b'\n');
        drop(self.0.send(Bytes::from(text)));
    }
}

/// An answer of the lines that a computation sends; it is told to stop where the request is given up.
pub(super) async fn stream(
    state: &State,
    work: impl FnOnce(&Stop, &Lines) + Send + 'static,
) -> Result<HttpResponse, ApiError> {
    let (send, receive) = unbounded_channel();
    let leaving = state.compute.told(move |stop| work(stop, &Lines(send))).await?;
    let lines = unfold((receive, leaving), |(mut receive, leaving)| async {
        let line: Option<Bytes> = receive.recv().await;
        line.map(|line| (Ok::<_, actix_web::Error>(line), (receive, leaving)))
    });
    Ok(HttpResponse::Ok().content_type(LINES).insert_header(ContentEncoding::Identity).streaming(lines))
}
