//! Drawings are read in a process of their own: whatever is in one, the server goes on, and what nobody waits for ends.

use crate::support::*;
use serde_json::Value;
use std::os::unix::fs::PermissionsExt;
use std::time::{Duration, Instant};

/// A DXF text with one line of pairs more in its only thing.
fn dxf(header: &str, within: &str, things: &str) -> String {
    format!(
        "0\nSECTION\n2\nHEADER\n{header}0\nENDSEC\n0\nSECTION\n2\nENTITIES\n0\nLINE\n8\nWalls\n{within}10\n0\n20\n0\n11\n9\n21\n0\n{things}0\nENDSEC\n0\nEOF\n"
    )
}

async fn import(served: &Served, text: &str) -> (u16, Value) {
    served.post("/api/import/dxf", text).await
}

#[test]
fn nested_groups_bring_nobody_down() {
    let server = Running::start();
    // 56 kB that overflow a stack where groups are followed.
    let nested = dxf("", &"102\n{A\n".repeat(7_000), "");
    assert!(nested.len() < 60_000);
    let answer = server.ask("POST", "/api/import/dxf", "", &nested).unwrap();
    assert!(matches!(status_of(&answer), Some(200 | 422)), "{answer}");
    assert!(server.healthy());
    // Closed again, what comes after them is the thing's own.
    let closed = dxf("", &format!("{}{}", "102\n{A\n".repeat(50), "102\n}\n".repeat(50)), "");
    let answer = server.ask("POST", "/api/import/dxf", "", &closed).unwrap();
    assert!(answer.contains("Walls") && status_of(&answer) == Some(200), "{answer}");
}

#[rocket::async_test]
async fn what_is_not_needed_is_not_looked_at() {
    let served = Served::new().await;
    // A date that is none, a preview picture that is huge, extended data: none of it is read.
    let dates = "9\n$TDCREATE\n40\n1e300\n9\n$TDUUPDATE\n40\n-1e300\n9\n$INSUNITS\n70\n4\n";
    let extended = format!("1001\nAPP\n{}", "1000\nx\n".repeat(1000));
    let (status, found) = import(&served, &dxf(dates, &extended, "")).await;
    assert_eq!((status, found["coordinates"].as_str()), (200, Some("millimetres, by its header")), "{found}");
    let preview = "0\nSECTION\n2\nTHUMBNAILIMAGE\n90\n2000000000\n310\n28000000FFFFFF7FFFFFFF7F\n0\nENDSEC\n";
    let (status, _) = import(&served, &(preview.to_owned() + &dxf("", "", ""))).await;
    assert_eq!(status, 200);
}

#[rocket::async_test]
async fn too_many_things_and_endless_names_are_bounded_before_they_are_read() {
    let served = Served::new().await;
    let (status, faults) = import(&served, &dxf("", "", &"0\nPOINT\n".repeat(700_000))).await;
    assert!(status == 422 && faults[0]["message"].as_str().unwrap().contains("more than 100000 things"), "{faults}");
    // A name of a megabyte, and many things on it.
    let name = "n".repeat(1 << 20);
    let long = dxf("", &format!("8\n{name}\n"), &"0\nTEXT\n8\nL\n1\nx\n".repeat(50_000));
    let (status, found) = import(&served, &long).await;
    assert_eq!(status, 200, "{found}");
    assert_eq!(found["layers"][0]["name"].as_str().unwrap().len(), 255);
    assert_eq!(
        (found["left_out_count"].as_u64(), found["left_out"][0]["source"].as_str()),
        (Some(50_000), Some("text 2"))
    );
    let (status, faults) = import(&served, "AutoCAD Binary DXF\r\n\u{1a}\0\0\0SECTION").await;
    assert!(status == 422 && faults[0]["message"].as_str().unwrap().contains("binary"), "{faults}");
}

/// A reader that does what a script says.
async fn read_by(cluster: &Cluster, script: &str, longest: Duration) -> (Served, tempfile::TempDir) {
    let folder = tempfile::tempdir().unwrap();
    let program = folder.path().join("reader");
    std::fs::write(&program, format!("#!/bin/sh\n{script}\n")).unwrap();
    std::fs::set_permissions(&program, std::fs::Permissions::from_mode(0o755)).unwrap();
    let url = cluster.database().await;
    let told = |settings: &mut bright_angle::api::Settings| (settings.program, settings.longest) = (program, longest);
    (Served::told(url, told).await, folder)
}

#[rocket::async_test]
async fn a_reader_that_falls_over_never_ends_or_talks_without_end_is_answered_and_gone() {
    let cluster = Cluster::shared();
    let fault = |(status, faults): (u16, Value)| {
        assert_eq!(status, 422, "{faults}");
        faults[0]["message"].as_str().unwrap().to_owned()
    };
    let (served, _folder) = read_by(&cluster, "kill -SEGV $$", Duration::from_secs(60)).await;
    assert!(fault(import(&served, "x").await).contains("broken inside"));
    let (served, folder) =
        read_by(&cluster, "echo $$ > $(dirname $0)/pid; exec sleep 600", Duration::from_millis(600)).await;
    assert!(fault(import(&served, "x").await).contains("took too long"));
    let pid = std::fs::read_to_string(folder.path().join("pid")).unwrap();
    let began = Instant::now();
    let lives =
        || std::fs::read_to_string(format!("/proc/{}/cmdline", pid.trim())).is_ok_and(|line| line.contains("sleep"));
    while lives() {
        assert!(began.elapsed() < Duration::from_secs(20), "it goes on though nobody waits");
        std::thread::yield_now();
    }
    let (served, _folder) = read_by(&cluster, "exec yes", Duration::from_secs(60)).await;
    assert!(fault(import(&served, "x").await).contains("too much"));
    // It is told nothing of the database.
    let (served, folder) = read_by(&cluster, "/usr/bin/env > $(dirname $0)/env; exit 1", Duration::from_secs(60)).await;
    fault(import(&served, "x").await);
    let told = std::fs::read_to_string(folder.path().join("env")).unwrap();
    assert!(!told.contains("DATABASE"), "{told}");
}

#[test]
fn the_reader_keeps_its_own_limits() {
    use std::io::Write;
    use std::process::{Command, Stdio};
    let mut child = Command::new(env!("CARGO_BIN_EXE_bright-angle"))
        .args(["read-drawing", "geojson"])
        .stdin(Stdio::piped())
        .stdout(Stdio::piped())
        .stderr(Stdio::piped())
        .spawn()
        .unwrap();
    // More than a gigabyte: it is refused the memory, and nobody else's.
    let mut stdin = child.stdin.take().unwrap();
    let piece = vec![b'['; 1 << 20];
    for _ in 0..2_000 {
        if stdin.write_all(&piece).is_err() {
            break;
        }
    }
    drop(stdin);
    assert!(!child.wait_with_output().unwrap().status.success());
}

#[test]
fn what_falls_over_on_the_command_line_says_so_in_one_line() {
    let folder = tempfile::tempdir().unwrap();
    let path = folder.path().join("torn.dxf");
    std::fs::write(&path, "0\nSECTION\n2\nENTITIES\n0\nLINE\n10\nfar\n").unwrap();
    let done =
        std::process::Command::new(env!("CARGO_BIN_EXE_bright-angle")).arg("import").arg(&path).output().unwrap();
    let said = String::from_utf8_lossy(&done.stderr);
    assert!(done.status.code() == Some(2) && said.lines().count() == 1 && !said.contains("panicked"), "{said}");
}
