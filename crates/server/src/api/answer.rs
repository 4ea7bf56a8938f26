//! Answers of a size that nobody knows before: bounded, and counted until the client has them or is gone.

use super::desk::Taken;
use super::error::ApiError;
use bright_angle_core::Fault;
use rocket::http::ContentType;
use rocket::request::Request;
use rocket::response::{self, Responder, Response};
use rocket::tokio::io::{AsyncRead, AsyncSeek, ReadBuf};
use serde::Serialize;
use std::io::{Cursor, SeekFrom, Write};
use std::pin::Pin;
use std::task::{Context, Poll};

/// The largest answer to a computation, bytes.
pub const LARGEST: usize = 32 << 20;

/// A text that is no longer than [`LARGEST`].
pub struct Written {
    /// Its bytes.
    pub bytes: Vec<u8>,
    /// What it is.
    pub kind: ContentType,
}

impl Written {
    /// As JSON.
    ///
    /// # Errors
    /// What is too large; it is not written to its end.
    pub fn json(value: &impl Serialize) -> Result<Written, ApiError> {
        let mut bounded = Bounded(Vec::new());
        serde_json::to_writer(&mut bounded, value).map_err(|_| too_large())?;
        Ok(Written { bytes: bounded.0, kind: ContentType::JSON })
    }

    /// As it is.
    ///
    /// # Errors
    /// What is too large.
    pub fn text(text: String, kind: ContentType) -> Result<Written, ApiError> {
        if text.len() > LARGEST { Err(too_large()) } else { Ok(Written { bytes: text.into_bytes(), kind }) }
    }
}

fn too_large() -> ApiError {
    Fault::new("", format!("the answer would be larger than {} MiB; ask about a part of the site", LARGEST >> 20))
        .into()
}

struct Bounded(Vec<u8>);

impl Write for Bounded {
    fn write(&mut self, bytes: &[u8]) -> std::io::Result<usize> {
        if self.0.len() + bytes.len() > LARGEST {
            return Err(std::io::ErrorKind::FileTooLarge.into());
        }
        self.0.extend_from_slice(bytes);
        Ok(bytes.len())
    }

    fn flush(&mut self) -> std::io::Result<()> {
        Ok(())
    }
}

/// An answer on its way; what it takes is given back when it is sent, or when nobody takes it any more.
pub struct Answer {
    bytes: Cursor<Vec<u8>>,
    kind: ContentType,
    _taken: Taken,
}

impl Answer {
    /// One that has its place.
    pub fn new(written: Written, taken: Taken) -> Answer {
        Answer { bytes: Cursor::new(written.bytes), kind: written.kind, _taken: taken }
    }
}

impl<'r> Responder<'r, 'static> for Answer {
    fn respond_to(self, _: &'r Request<'_>) -> response::Result<'static> {
        let kind = self.kind.clone();
        let length = self.bytes.get_ref().len();
        Response::build().header(kind).sized_body(length, self).ok()
    }
}

impl AsyncRead for Answer {
    fn poll_read(
        mut self: Pin<&mut Self>,
        context: &mut Context<'_>,
        buffer: &mut ReadBuf<'_>,
    ) -> Poll<std::io::Result<()>> {
        Pin::new(&mut self.bytes).poll_read(context, buffer)
    }
}

impl AsyncSeek for Answer {
    fn start_seek(mut self: Pin<&mut Self>, to: SeekFrom) -> std::io::Result<()> {
        Pin::new(&mut self.bytes).start_seek(to)
    }

    fn poll_complete(mut self: Pin<&mut Self>, context: &mut Context<'_>) -> Poll<std::io::Result<u64>> {
        Pin::new(&mut self.bytes).poll_complete(context)
    }
}
