//! The protocol as a client meets it.

use bright_angle_rangefinder::{Faults, Kind, serve};
use std::io::{BufRead, BufReader, Write};
use std::net::{TcpListener, TcpStream};

fn talk(lines: &[&str]) -> Vec<String> {
    let listener = TcpListener::bind("127.0.0.1:0").unwrap();
    let address = listener.local_addr().unwrap();
    std::thread::spawn(move || {
        serve(&listener, 3, Faults { script: vec![Kind::Good, Kind::None], ..Faults::default() })
    });
    let mut stream = TcpStream::connect(address).unwrap();
    let mut answers = BufReader::new(stream.try_clone().unwrap()).lines();
    lines
        .iter()
        .map(|line| {
            writeln!(stream, "{line}").unwrap();
            answers.next().unwrap().unwrap()
        })
        .collect()
}

#[test]
fn a_session() {
    let answers = talk(&[
        "HELLO",
        "MEASURE",
        "STAND 0 0 1.5",
        "AIM 18 6 3.5",
        "MEASURE",
        "MEASURE",
        "AIM 1 2",
        "AIM 1 2 NaN",
        "DANCE",
    ]);
    assert_eq!(answers[0], "BRIGHT-ANGLE RANGEFINDER 1 STAND-IN");
    assert_eq!(answers[1], "ERROR STAND and AIM first");
    assert_eq!(&answers[2..4], ["OK", "OK"]);
    let words: Vec<&str> = answers[4].split(' ').collect();
    let slope: f64 = words[1].parse().unwrap();
    assert!(words[0] == "SHOT" && (18.5..19.7).contains(&slope), "{answers:?}");
    assert!(words[2].starts_with('+'), "aimed up: {answers:?}");
    assert_eq!(answers[5], "NO RETURN");
    assert!(answers[6..].iter().all(|answer| answer.starts_with("ERROR ")), "{answers:?}");
}
