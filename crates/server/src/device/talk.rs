//! A talk with a device on loopback: lines out, lines in.

use rocket::tokio::io::{AsyncBufReadExt, AsyncReadExt, AsyncWriteExt, BufReader};
use rocket::tokio::net::TcpStream;
use rocket::tokio::time::timeout;
use std::net::SocketAddr;
use std::time::Duration;

/// How long a device may take to answer a line.
const PATIENCE: Duration = Duration::from_secs(3);
/// A longer line is no answer.
const LONGEST_LINE: u64 = 200;

/// Why a talk broke off.
#[derive(Clone, Debug, PartialEq)]
pub enum Broken {
    /// The device does not answer.
    Away(String),
    /// The device said something that is no answer.
    Nonsense(String),
}

/// A talk.
pub struct Talk {
    stream: BufReader<TcpStream>,
}

impl Talk {
    /// Begins a talk with what listens at an address.
    ///
    /// # Errors
    /// Nobody listens there.
    pub async fn to(address: SocketAddr) -> Result<Talk, Broken> {
        let stream = timeout(PATIENCE, TcpStream::connect(address))
            .await
            .map_err(|_| Broken::Away("it is silent".to_owned()))?
            .map_err(|error| Broken::Away(error.to_string()))?;
        Ok(Talk { stream: BufReader::new(stream) })
    }

    /// Says a line and hears one.
    ///
    /// # Errors
    /// The device hangs up or is silent.
    pub async fn ask(&mut self, line: &str) -> Result<String, Broken> {
        let asking = async {
            self.stream.get_mut().write_all(format!("{line}\n").as_bytes()).await?;
            let mut answer = String::new();
            (&mut self.stream).take(LONGEST_LINE).read_line(&mut answer).await?;
            Ok::<String, std::io::Error>(answer.trim().to_owned())
        };
        match timeout(PATIENCE, asking).await {
            Ok(Ok(answer)) if !answer.is_empty() => Ok(answer),
            Ok(Ok(_)) => Err(Broken::Away("it hung up".to_owned())),
            Ok(Err(error)) => Err(Broken::Away(error.to_string())),
            Err(_) => Err(Broken::Away("it is silent".to_owned())),
        }
    }

    /// Says a line that is answered by OK.
    ///
    /// # Errors
    /// As above, or another answer.
    pub async fn order(&mut self, line: &str) -> Result<(), Broken> {
        match self.ask(line).await?.as_str() {
            "OK" => Ok(()),
            other => Err(Broken::Nonsense(other.to_owned())),
        }
    }
}
