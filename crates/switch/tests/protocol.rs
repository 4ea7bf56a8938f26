//! The stand-in as a client sees it.

use bright_angle_switch::{Fault, serve};
use std::io::{BufRead, BufReader, Write};
use std::net::{TcpListener, TcpStream};

struct Talk(BufReader<TcpStream>);

impl Talk {
    fn with(faults: &[&str]) -> Talk {
        let listener = TcpListener::bind("127.0.0.1:0").unwrap();
        let address = listener.local_addr().unwrap();
        let faults = faults.iter().map(|fault| fault.parse().unwrap()).collect();
        std::thread::spawn(move || serve(&listener, faults));
        Talk(BufReader::new(TcpStream::connect(address).unwrap()))
    }

    fn ask(&mut self, line: &str) -> String {
        writeln!(self.0.get_mut(), "{line}").unwrap();
        let mut answer = String::new();
        self.0.read_line(&mut answer).unwrap();
        answer.trim().to_owned()
    }
}

#[test]
fn a_port_is_as_it_was_plugged_in() {
    let mut talk = Talk::with(&[]);
    assert_eq!(talk.ask("HELLO"), "BRIGHT-ANGLE SWITCH 1 STAND-IN");
    assert_eq!(talk.ask("PLUG 3 42.5 9.75 1000"), "OK");
    assert_eq!(talk.ask("READ 3"), "PORT 3 1000 9.75 42.5 - 0");
    assert_eq!(talk.ask("READ 4"), "PORT 4 0 0 - - 0");
    assert_eq!(talk.ask("STORES 310"), "OK");
    assert_eq!(talk.ask("STORED"), "STORED 310.0");
}

#[test]
fn faults_come_at_their_ports() {
    let mut talk = Talk::with(&["joint:1@80", "joint:2@80", "limit:3", "night:4", "empty:5"]);
    for port in 1..=5 {
        talk.ask(&format!("PLUG {port} {} 10 1000", if port == 1 { 95 } else { 50 }));
    }
    let told: Vec<String> = (1..=5).map(|port| talk.ask(&format!("READ {port}"))).collect();
    assert_eq!(
        told,
        [
            "PORT 1 10 10.00 95.0 80.0 0",
            "PORT 2 10 10.00 50.0 40.0 0",
            "PORT 3 0 0.00 50.0 - 1",
            "PORT 4 1000 16.00 50.0 - 0",
            "PORT 5 0 0 - - 0"
        ]
    );
}

#[test]
fn nonsense_is_refused_and_the_talk_goes_on() {
    let mut talk = Talk::with(&[]);
    for line in ["", "FISH", "PLUG 1", "PLUG 0 1 1 1", "PLUG 1 -3 1 1", "PLUG 1 NaN 1 1", "READ x"] {
        assert!(talk.ask(line).starts_with("ERROR"), "{line}");
    }
    assert_eq!(talk.ask("READ 1"), "PORT 1 0 0 - - 0");
    for fault in ["", "joint:1", "joint:0@5", "limit:x", "night:1@3", "fire:1"] {
        assert!(fault.parse::<Fault>().is_err(), "{fault}");
    }
}
