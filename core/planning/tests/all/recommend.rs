//! The kind of cabinet that is recommended.

use std::time::Instant;

use oak_acoustics::Stop;
use oak_design::file::{RawBrief, RawFamily};
use oak_planning::recommend::{RawRecommend, recommend};
use oak_planning::template::templates;

use crate::support::recommended::{asks, best_of};

#[test]
fn what_is_recommended_is_the_best_or_the_words_name_what_is() {
    let asks = asks(8);
    let best = best_of(&asks);
    assert!(best >= 7, "{best} of 8");
}

#[test]
fn two_sentences_say_which_and_what_others_would_give() {
    let ask = asks(1).remove(0);
    let began = Instant::now();
    for template in templates() {
        let ask = RawRecommend { brief: Some(template.brief.clone()), ..ask.clone() };
        let found = recommend(&ask, &Stop::default()).expect("answers");
        eprintln!("{} {:?} {:.2?}", template.name, found.sentences, began.elapsed());
        assert_eq!(found.sentences.len(), 2, "{}: {:?}", template.id, found.sentences);
        let family = found.family.expect("one that suits");
        assert_eq!(found.kinds[0].family, family);
        let allowed = &template.brief.families;
        assert!(allowed.is_empty() || allowed.contains(&family), "{}", template.id);
        for kind in found.kinds.iter().filter(|kind| kind.design.is_some() && kind.buildable) {
            assert!(kind.outside.is_some() && kind.air.is_some(), "{kind:?}");
            assert_eq!(kind.short.is_empty(), kind.worst > 0.999_9, "{kind:?}");
        }
    }
}

#[test]
fn a_brief_that_asks_for_no_note_is_told_what_was_taken_and_a_kind_that_is_asked_for_is_kept_to() {
    let ask = asks(1).remove(0);
    let open = RawRecommend { brief: None, ..ask.clone() };
    let found = recommend(&open, &Stop::default()).expect("answers");
    assert!(found.assumed.contains("Hz"), "{}", found.assumed);
    let brief = RawBrief { families: vec![RawFamily::TappedHorn], ..ask.brief.clone().unwrap_or_default() };
    let found =
        recommend(&RawRecommend { brief: Some(brief), ..ask.clone() }, &Stop::default()).expect("answers");
    assert!(found.kinds[0].considered && found.kinds[0].family == RawFamily::TappedHorn);
    assert!(found.kinds[1..].iter().all(|kind| !kind.considered));
    let bad = RawBrief { loudness: Some("5 kg".into()), ..RawBrief::default() };
    let told = recommend(&RawRecommend { brief: Some(bad), ..ask }, &Stop::default()).expect_err("refused");
    assert!(told.iter().any(|problem| problem.field.starts_with("brief.")), "{told:?}");
}
