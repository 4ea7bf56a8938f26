//! What a device is paired with: a code of 128 random bits for one use within two minutes. And how much somebody who is not paired may
//! ask in a minute.

use data_encoding::BASE32_NOPAD;
use sha2::{Digest, Sha256};
use std::collections::HashMap;
use std::net::IpAddr;
use std::sync::{Mutex, PoisonError};
use std::time::{Duration, Instant};

/// How long a code lasts.
pub const CODE_LASTS: Duration = Duration::from_secs(120);
/// At most so many codes are waiting.
const WAITING: usize = 8;
/// The time that attempts are counted over.
const WINDOW: Duration = Duration::from_secs(60);
/// So many wrong codes an address may say in that time, and so many all together.
const WRONG_EACH: u32 = 10;
const WRONG_ALL: u32 = 100;
/// So many times an address that is not paired may ask for anything in that time.
const ASKS_EACH: u32 = 120;
/// So many addresses are told apart; more than that are one.
const ADDRESSES: usize = 1000;

/// A random text of so many bytes, which nobody guesses.
pub fn secret<const BYTES: usize>() -> Result<String, String> {
    let mut bytes = [0; BYTES];
    getrandom::fill(&mut bytes).map_err(|error| format!("this machine gives no random numbers: {error}"))?;
    Ok(BASE32_NOPAD.encode(&bytes))
}

/// The codes that are waiting, as their SHA-256.
#[derive(Default)]
pub struct Codes(Mutex<Vec<([u8; 32], Instant)>>);

impl Codes {
    /// A new code.
    ///
    /// # Errors
    /// In words: the machine gives no random numbers.
    pub fn new_code(&self) -> Result<String, String> {
        let code = secret::<16>()?;
        let mut waiting = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        waiting.retain(|(_, made)| made.elapsed() < CODE_LASTS);
        if waiting.len() >= WAITING {
            waiting.remove(0);
        }
        waiting.push((Sha256::digest(&code).into(), Instant::now()));
        Ok(code)
    }

    /// Takes a code: it is good once. Answers when it was made.
    pub fn take(&self, code: &str) -> Option<Instant> {
        let wanted: [u8; 32] = Sha256::digest(code.trim().to_ascii_uppercase()).into();
        let mut waiting = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        waiting.retain(|(_, made)| made.elapsed() < CODE_LASTS);
        let place = waiting.iter().position(|(held, _)| *held == wanted);
        place.map(|place| waiting.remove(place).1)
    }

    /// Gives a code back that was good and came to nothing for another reason; it lasts no longer for that.
    pub fn give_back(&self, code: &str, made: Instant) {
        let mut waiting = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        waiting.push((Sha256::digest(code.trim().to_ascii_uppercase()).into(), made));
    }
}

/// How much those who are not paired asked lately.
#[derive(Default)]
pub struct Crowd(Mutex<Counted>);

#[derive(Default)]
struct Counted {
    since: Option<Instant>,
    asks: HashMap<IpAddr, u32>,
    wrong: HashMap<IpAddr, u32>,
    wrong_all: u32,
}

impl Crowd {
    fn counted<T>(&self, what: impl FnOnce(&mut Counted) -> T) -> T {
        let mut counted = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        if counted.since.is_none_or(|since| since.elapsed() >= WINDOW) {
            *counted = Counted { since: Some(Instant::now()), ..Counted::default() };
        }
        what(&mut counted)
    }

    /// Counts a request of an address that is not paired; whether it is answered.
    pub fn may_ask(&self, from: IpAddr) -> bool {
        self.counted(|counted| *bump(&mut counted.asks, from) <= ASKS_EACH)
    }

    /// Whether an address may try a code.
    pub fn may_try(&self, from: IpAddr) -> bool {
        self.counted(|counted| {
            counted.wrong_all < WRONG_ALL && counted.wrong.get(&from).is_none_or(|wrong| *wrong < WRONG_EACH)
        })
    }

    /// Counts a wrong code.
    pub fn was_wrong(&self, from: IpAddr) {
        self.counted(|counted| {
            counted.wrong_all += 1;
            bump(&mut counted.wrong, from);
        });
    }
}

fn bump(counts: &mut HashMap<IpAddr, u32>, from: IpAddr) -> &mut u32 {
    let whom = if counts.len() < ADDRESSES || counts.contains_key(&from) {
        from
    } else {
        std::net::Ipv4Addr::UNSPECIFIED.into()
    };
    let count = counts.entry(whom).or_default();
    *count = count.saturating_add(1);
    count
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_code_is_good_once() {
        let codes = Codes::default();
        let (first, second) = (codes.new_code().unwrap(), codes.new_code().unwrap());
        assert_ne!(first, second);
        // 128 bits in base 32 (RFC 4648): 26 letters.
        assert_eq!(first.len(), 26);
        assert!(codes.take("AAAAAAAAAAAAAAAAAAAAAAAAAA").is_none() && codes.take("").is_none());
        assert!(codes.take(&first.to_ascii_lowercase()).is_some());
        assert!(codes.take(&first).is_none(), "not twice");
        let made = codes.take(&second).unwrap();
        codes.give_back(&second, made);
        assert_eq!(codes.take(&second), Some(made));
    }

    #[test]
    fn the_oldest_of_many_codes_goes() {
        let codes = Codes::default();
        let made: Vec<String> = (0..=WAITING).map(|_| codes.new_code().unwrap()).collect();
        assert!(codes.take(&made[0]).is_none() && codes.take(&made[1]).is_some());
    }

    #[test]
    fn who_guesses_is_stopped_and_nobody_else() {
        let crowd = Crowd::default();
        let [one, other]: [IpAddr; 2] = ["10.0.0.1", "10.0.0.2"].map(|ip| ip.parse().unwrap());
        let tries = (0..200).filter(|_| {
            let may = crowd.may_try(one);
            crowd.was_wrong(one);
            may
        });
        assert_eq!(tries.count(), WRONG_EACH as usize);
        assert!(!crowd.may_try(one));
        // Two hundred are more than all together may: then nobody tries until the minute is over.
        assert!(!crowd.may_try(other));
        let crowd = Crowd::default();
        (0..WRONG_EACH).for_each(|_| crowd.was_wrong(one));
        assert!(!crowd.may_try(one) && crowd.may_try(other));
        assert_eq!((0..500).filter(|_| crowd.may_ask(one)).count(), ASKS_EACH as usize);
        assert!(crowd.may_ask(other));
    }
}
