//! What stands in documents, and how it is called.

use oak_design::document::{DocumentKind, RawDocument, RawTitle};
use oak_design::file::{DESIGN_FORMAT, RawFamily, RawListeningPlace, RawPreset, VERSION};

#[test]
fn every_family_is_written_as_its_id() {
    for family in RawFamily::ALL {
        assert_eq!(serde_json::to_value(family).expect("a text"), family.id());
        assert_eq!(RawFamily::of_id(family.id()), Some(*family));
    }
}

#[test]
fn a_document_is_called_as_its_kind_is() {
    let title = RawTitle { name: "Nook".to_owned(), notes: String::new() };
    let preset = RawPreset { name: "Films".to_owned(), filters: Vec::new() };
    let place = RawListeningPlace { name: "Lounge".to_owned(), ..RawListeningPlace::default() };
    let documents = [
        RawDocument::Title(title),
        RawDocument::Brief(Box::default()),
        RawDocument::Preset(preset),
        RawDocument::Place(Box::new(place)),
    ];
    for document in documents {
        let json = serde_json::to_value(&document).expect("JSON");
        assert_eq!(json["kind"], document.kind().id);
        assert_eq!(json["content"], document.content().expect("JSON"));
        let kind = DocumentKind::of(document.kind().id).expect("a kind");
        assert_eq!(kind.read(json["content"].clone()).expect("reads"), document);
    }
    assert!(DocumentKind::of("drum").is_none());
}

#[test]
fn a_variant_of_a_newer_program_is_not_taken_for_one_of_ours() {
    let newer = serde_json::json!({ "format": DESIGN_FORMAT, "version": VERSION + 1 });
    assert_eq!(
        DocumentKind::of("variant").expect("a kind").read(newer).expect_err("refused").field,
        "version"
    );
}

#[test]
fn a_preset_names_what_is_wrong_with_its_filters() {
    let read = |value| DocumentKind::of("preset").expect("a kind").read(value).expect("reads");
    let good =
        serde_json::json!({ "name": "Films", "filters": [{ "kind": "high_pass", "frequency": "20 Hz" }] });
    assert_eq!(read(good).check(), Ok(()));
    let bad = serde_json::json!({ "name": "", "filters": [{ "kind": "gain" }, { "kind": "high_pass", "frequency": "-3 Hz" }] });
    let problems = read(bad).check().expect_err("refused");
    let places: Vec<&str> = problems.iter().map(|problem| problem.field.as_str()).collect();
    assert_eq!(places, ["name", "filters[0].gain", "filters[1].frequency"]);
}
