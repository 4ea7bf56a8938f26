//! Drawings and data sheets of others, read in a process of their own: whatever a file makes of the libraries that read it, memory, time and
//! output are bounded, and the server goes on. The process is this very program (`bright-angle read-drawing`).

use crate::dxf::{self, Unit};
use crate::sheet;
use bright_angle_core::Fault;
use bright_angle_core::exchange::{Import, geojson};
use rlimit::{Resource, setrlimit};
use rocket::tokio;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use serde_json::value::RawValue;
use std::io::{Read, Write};
use std::path::PathBuf;
use std::process::Stdio;
use tokio::io::{AsyncReadExt, AsyncWriteExt};
use tokio::process::Command;

/// What the process may take: bytes of memory, seconds of a processor.
const MEMORY: u64 = 1 << 30;
const SECONDS: u64 = 20;
/// The longest answer that is read from it, bytes.
const LONGEST_ANSWER: u64 = 32 << 20;

/// What kind of drawing it is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, clap::ValueEnum)]
pub enum Kind {
    /// DXF.
    Dxf,
    /// GeoJSON.
    Geojson,
    /// A data sheet, text or PDF.
    Sheet,
}

/// What stands before the answer: libraries may print what they please before.
const MARK: u8 = 0x1e;

/// Reads a drawing here and now.
///
/// # Errors
/// What cannot be read, holds too much, or nothing that can be taken.
pub fn read(kind: Kind, unit: Option<Unit>, bytes: &[u8]) -> Result<Import, Fault> {
    match kind {
        Kind::Dxf => dxf::read(bytes, unit),
        Kind::Geojson => geojson::read(std::str::from_utf8(bytes).map_err(|_| Fault::new("file", "is not UTF-8"))?),
        Kind::Sheet => Err(Fault::new("file", "is no drawing")),
    }
}

/// Reads whatever it is here and now: what comes of it, as JSON.
fn read_any(kind: Kind, unit: Option<Unit>, bytes: &[u8]) -> Result<Value, Fault> {
    let told = |error: serde_json::Error| Fault::new("file", error.to_string());
    if kind == Kind::Sheet {
        return serde_json::to_value(sheet::read(bytes)?).map_err(told);
    }
    serde_json::to_value(read(kind, unit, bytes)?).map_err(told)
}

/// A library that falls over says so on standard error, page by page; that it did is answered instead.
pub fn fall_silently() {
    std::panic::set_hook(Box::new(|_| {}));
}

#[derive(Serialize, Deserialize)]
enum Answer<T> {
    Import(T),
    Fault(Fault),
}

/// The process's own work: a drawing on standard input, within limits; the answer as JSON.
///
/// # Errors
/// In words, when it cannot even begin.
pub fn serve_one(kind: Kind, unit: Option<Unit>) -> Result<(), String> {
    fall_silently();
    for (what, most) in [(Resource::AS, MEMORY), (Resource::CPU, SECONDS), (Resource::FSIZE, 0), (Resource::CORE, 0)] {
        setrlimit(what, most, most).map_err(|error| error.to_string())?;
    }
    let mut bytes = Vec::new();
    std::io::stdin().lock().read_to_end(&mut bytes).map_err(|error| error.to_string())?;
    let answer = match read_any(kind, unit, &bytes) {
        Ok(import) => Answer::Import(import),
        Err(fault) => Answer::Fault(fault),
    };
    let text = serde_json::to_string(&answer).map_err(|error| error.to_string())?;
    std::io::stdout().lock().write_all(&[&[MARK], text.as_bytes()].concat()).map_err(|error| error.to_string())
}

/// Who reads drawings for the server.
pub struct Reader {
    /// The program, which reads one when it is called so.
    pub program: PathBuf,
}

impl Reader {
    /// What a drawing brings, as JSON. The process is ended when this is dropped.
    ///
    /// # Errors
    /// What the drawing is refused for, also if it brought the process down.
    pub async fn read(&self, kind: Kind, unit: Option<&str>, bytes: &[u8]) -> Result<Box<RawValue>, Fault> {
        let broken = |why: &str| Fault::new("file", format!("cannot be read: {why}"));
        let mut command = Command::new(&self.program);
        command.arg("read-drawing").arg(match kind {
            Kind::Dxf => "dxf",
            Kind::Geojson => "geojson",
            Kind::Sheet => "sheet",
        });
        command.args(unit.iter().flat_map(|unit| ["--unit", unit]));
        // It knows nothing of the database.
        command.env_clear().stdin(Stdio::piped()).stdout(Stdio::piped()).stderr(Stdio::null()).kill_on_drop(true);
        let mut child = command.spawn().map_err(|error| broken(&format!("its reader does not start ({error})")))?;
        let (stdin, stdout) = (child.stdin.take(), child.stdout.take());
        let tell = async move {
            if let Some(mut stdin) = stdin {
                // One that has fallen over does not listen to the end.
                let _ = stdin.write_all(bytes).await;
            }
        };
        let hear = async move {
            let mut answer = Vec::new();
            if let Some(stdout) = stdout {
                let _ = stdout.take(LONGEST_ANSWER + 1).read_to_end(&mut answer).await;
            }
            answer
        };
        let ((), answer) = tokio::join!(tell, hear);
        if answer.len() as u64 > LONGEST_ANSWER {
            return Err(broken("what it brings is too much; take a part of it"));
        }
        let ended = child.wait().await.map_err(|error| broken(&error.to_string()))?;
        if !ended.success() {
            return Err(broken("it is broken inside, or takes too much memory or time; take a part of it"));
        }
        let begins = answer.iter().rposition(|byte| *byte == MARK).map_or(answer.len(), |place| place + 1);
        match serde_json::from_slice(&answer[begins..]) {
            Ok(Answer::Import(import)) => Ok(import),
            Ok(Answer::Fault(fault)) => Err(fault),
            Err(_) => Err(broken("it is broken inside")),
        }
    }
}
