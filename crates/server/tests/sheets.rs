//! Data sheets as they come: PDFs of an independent writer (`outside/sheets`), and what is none.

use crate::support::{Served, host, root};
use rocket::http::ContentType;
use serde_json::{Value, json};

#[rocket::async_test]
async fn data_sheets_are_read_in_a_process_of_their_own() {
    let served = Served::new().await;
    let ask = async |bytes: Vec<u8>| {
        let asked = served.client.post("/api/sheet").header(host()).header(ContentType::PDF).body(bytes);
        let answer = asked.dispatch().await;
        (
            answer.status().code,
            serde_json::from_str::<Value>(&answer.into_string().await.unwrap_or_default()).unwrap_or_default(),
        )
    };
    let outside = |name: &str| std::fs::read(root().join("outside/sheets").join(name)).unwrap();
    let text = |name: &str| std::fs::read_to_string(root().join("crates/core/tests/sheets").join(name)).unwrap();
    // A PDF of an independent writer says what its text says.
    for (pdf, sheet) in [("list.pdf", "01-list.txt"), ("table.pdf", "02-table.txt"), ("prose.pdf", "04-prose.txt")] {
        let (status, found) = ask(outside(pdf)).await;
        assert_eq!(status, 200, "{found}");
        let (_, expected) = ask(text(sheet).into_bytes()).await;
        assert_eq!(found["models"], expected["models"], "{pdf}");
        assert_eq!(found["missing"], expected["missing"], "{pdf}");
    }
    // What is none is refused, and says what to do; the server goes on.
    for (bytes, wanted) in [
        (b"\x89PNG\r\n\x1a\nrenamed.pdf".to_vec(), "a picture"),
        (b"%PDF-1.4\n1 0 obj\n<< /Broken".to_vec(), "cannot be read"),
        (vec![0; 4000], "no text"),
    ] {
        let (status, found) = ask(bytes).await;
        assert_eq!(status, 422, "{found}");
        assert!(found[0]["message"].as_str().unwrap().contains(wanted), "{found}");
    }
    assert_eq!(ask(vec![b' '; 40 << 20]).await.0, 413);
    let (status, nothing) = ask(b"Terms and conditions apply.".to_vec()).await;
    assert_eq!((status, &nothing["models"]), (200, &json!([])));
}
