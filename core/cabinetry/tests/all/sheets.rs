//! Boards laid out on sheets.

use approx::assert_relative_eq;
use oak_acoustics::Stop;
use oak_cabinetry::sheet::{
    self, Blank, Content, Effort, Layout, Node, Rect, Saw, Search, Sheet, lay_out_as, steps,
};
use proptest::prelude::*;

/// What is found.
fn lay_out(
    blanks: &[Blank],
    sheets: &[Sheet],
    saw: &Saw,
    effort: Effort,
    search: Option<Search<'_>>,
) -> Layout {
    let (layout, recipe) = sheet::lay_out(blanks, sheets, saw, effort, search);
    // What was found once is found again at once.
    assert_eq!(lay_out_as(blanks, sheets, saw, &recipe).as_ref(), Some(&layout));
    layout
}

const FULL: Sheet = Sheet { size: [1.22, 2.44], at_hand: None, price: 40.0 };
const SAW: Saw = Saw { kerf: 0.0032, trim: 0.0, transport: None };

fn blank(number: u32, width: f64, height: f64) -> Blank {
    Blank { number, size: [width, height], turns: true }
}

fn apart(a: Rect, b: Rect, kerf: f64) -> bool {
    (0..2)
        .any(|k| a.at[k] + a.size[k] + kerf <= b.at[k] + 1e-7 || b.at[k] + b.size[k] + kerf <= a.at[k] + 1e-7)
}

/// Every piece lies in the one it is cut from, the cut runs right through, and nothing but the kerf is lost.
fn is_guillotine(node: &Node, kerf: f64) -> bool {
    let Content::Cut(split) = &node.content else { return true };
    let (rect, axis) = (node.rect, split.axis);
    let other = 1 - axis;
    let whole = [&split.low, &split.high].iter().all(|part| {
        (part.rect.size[other] - rect.size[other]).abs() < 1e-9
            && (part.rect.at[other] - rect.at[other]).abs() < 1e-9
    });
    let end = split.high.rect.at[axis] + split.high.rect.size[axis];
    let rest = rect.size[axis] - split.far;
    whole
        && (split.low.rect.size[axis] - split.far).abs() < 1e-9
        && (rest < kerf || (end - rect.at[axis] - rect.size[axis]).abs() < 1e-9)
        && is_guillotine(&split.low, kerf)
        && is_guillotine(&split.high, kerf)
}

fn check(layout: &Layout, blanks: &[Blank], sheets: &[Sheet], saw: &Saw) -> Result<(), TestCaseError> {
    let laid: Vec<_> = layout.laid().collect();
    let mut seen: Vec<usize> =
        laid.iter().map(|(_, laid)| laid.blank).chain(layout.left.iter().copied()).collect();
    seen.sort_unstable();
    prop_assert_eq!(seen, (0..blanks.len()).collect::<Vec<_>>());
    for (at, one) in &laid {
        let blank = &blanks[one.blank];
        prop_assert!(blank.turns || !one.turned, "grain runs along");
        let [w, h] = blank.size;
        let size = if one.turned { [h, w] } else { [w, h] };
        prop_assert!((0..2).all(|k| (size[k] - one.rect.size[k]).abs() < 1e-9));
        let sheet = sheets[layout.sheets[*at].sheet].size;
        for k in 0..2 {
            prop_assert!(one.rect.at[k] > saw.trim - 1e-9);
            prop_assert!(one.rect.at[k] + size[k] < sheet[k] - saw.trim + 1e-7);
        }
    }
    for (index, (at, one)) in laid.iter().enumerate() {
        for (_, other) in laid[..index].iter().filter(|(sheet, _)| sheet == at) {
            prop_assert!(apart(one.rect, other.rect, saw.kerf), "{one:?} {other:?}");
        }
    }
    for one in &layout.sheets {
        prop_assert!(is_guillotine(&one.root, saw.kerf));
        // Every cut once, a piece before what is cut from it, and every board ready once.
        let order = steps(&one.root);
        prop_assert_eq!(order.len(), one.root.cuts().len());
        let ready: usize = order.iter().map(|step| step.ready.len()).sum();
        let whole = usize::from(matches!(one.root.content, Content::Board { .. }));
        prop_assert_eq!(ready + whole, one.root.laid().count());
        prop_assert!(order.first().is_none_or(|step| step.piece == one.root.rect));
    }
    Ok(())
}

fn any_blank() -> impl Strategy<Value = Blank> {
    (0.05f64..0.9, 0.05f64..1.3, any::<bool>()).prop_map(|(width, height, turns)| Blank {
        number: 0,
        size: [width, height],
        turns,
    })
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(64))]

    #[test]
    fn boards_lie_apart_and_can_be_cut(
        blanks in proptest::collection::vec(any_blank(), 1..26),
        kerf in 0.0f64..0.005,
        trim in 0.0f64..0.015,
        quartered in any::<bool>(),
        rounds in 0u32..60,
    ) {
        let sheets = [
            FULL,
            Sheet { size: [1.22, 1.22], at_hand: None, price: 22.0 },
            Sheet { size: [0.5, 0.8], at_hand: Some(2), price: 0.0 },
        ];
        let saw = Saw { kerf, trim, transport: quartered.then_some([0.9, 1.3]) };
        let layout = lay_out(&blanks, &sheets, &saw, Effort::Rounds(rounds), None);
        check(&layout, &blanks, &sheets, &saw)?;
        // What is at hand is not used more often than there is.
        prop_assert!(layout.sheets.iter().filter(|one| one.sheet == 2).count() <= 2);
        // No less than the area of the boards is bought.
        let boards: f64 = layout.laid().map(|(_, laid)| laid.rect.area()).sum();
        let bought: f64 = layout.sheets.iter().map(|one| sheets[one.sheet].size.iter().product::<f64>()).sum();
        prop_assert!(boards <= bought);
        // The quick layout is no better, and the same boards lie the same way each time.
        let quick = lay_out(&blanks, &sheets, &saw, Effort::Quick, None);
        check(&quick, &blanks, &sheets, &saw)?;
        let bought = |layout: &Layout| layout.sheets.iter().filter(|one| one.sheet < 2).count();
        prop_assert!((layout.left.len(), bought(&layout)) <= (quick.left.len(), bought(&quick)));
        prop_assert_eq!(&layout, &lay_out(&blanks, &sheets, &saw, Effort::Rounds(rounds), None));
    }

    /// Against every order and every way round of a few boards, by every rule of cutting: the least number of sheets.
    #[test]
    fn a_few_boards_need_as_few_sheets_as_any_order_gives(
        blanks in proptest::collection::vec((0.3f64..0.7, 0.3f64..0.9), 2..6),
    ) {
        let sheets = [Sheet { size: [1.0, 1.0], at_hand: None, price: 10.0 }];
        let saw = Saw { kerf: 0.003, trim: 0.0, transport: None };
        let blanks: Vec<Blank> = blanks.iter().zip(0..).map(|((w, h), n)| blank(n, *w, *h)).collect();
        let found = lay_out(&blanks, &sheets, &saw, Effort::Rounds(200), None);
        let best = fewest(&blanks, saw.kerf);
        prop_assert_eq!(found.sheets.len(), best);
    }
}

/// Fewest sheets of a metre square that some boards can be cut from, by trying every partition into sheets and every tree of cuts.
fn fewest(blanks: &[Blank], kerf: f64) -> usize {
    let count = blanks.len();
    let all = 1usize << count;
    let mut fits = vec![false; all];
    for (set, fit) in fits.iter_mut().enumerate() {
        let boards: Vec<[f64; 2]> =
            (0..count).filter(|at| set >> at & 1 == 1).map(|at| blanks[at].size).collect();
        *fit = cuttable(&boards, [1.0, 1.0], kerf);
    }
    let mut least = vec![usize::MAX; all];
    least[0] = 0;
    for set in 1..all {
        let mut part = set;
        while part > 0 {
            if fits[part] && least[set ^ part] != usize::MAX {
                least[set] = least[set].min(least[set ^ part] + 1);
            }
            part = (part - 1) & set;
        }
    }
    least[all - 1]
}

/// Whether boards can be cut from a piece by cuts from side to side: each cut parts them in two, and goes where one part ends.
fn cuttable(boards: &[[f64; 2]], size: [f64; 2], kerf: f64) -> bool {
    let area: f64 = boards.iter().map(|board| board[0] * board[1]).sum();
    if area > size[0] * size[1] {
        return false;
    }
    match boards {
        [] => true,
        [board] => {
            let holds = |a: f64, b: f64| a <= size[0] + 1e-9 && b <= size[1] + 1e-9;
            holds(board[0], board[1]) || holds(board[1], board[0])
        }
        _ => {
            let count = boards.len();
            (1..(1usize << count) - 1).any(|set| {
                let part = |wanted: usize| -> Vec<[f64; 2]> {
                    (0..count).filter(|at| set >> at & 1 == wanted).map(|at| boards[at]).collect()
                };
                let (low, high) = (part(1), part(0));
                (0..2).any(|axis| {
                    spans(&low, kerf).into_iter().filter(|far| *far < size[axis]).any(|far| {
                        let (mut below, mut above) = (size, size);
                        below[axis] = far;
                        above[axis] = size[axis] - far - kerf;
                        above[axis] > 0.0 && cuttable(&low, below, kerf) && cuttable(&high, above, kerf)
                    })
                })
            })
        }
    }
}

/// Every length that some of the boards' sides make one behind the other.
fn spans(boards: &[[f64; 2]], kerf: f64) -> Vec<f64> {
    let mut all = vec![0.0];
    for board in boards {
        let before = all.clone();
        for side in board {
            all.extend(before.iter().map(|sum| if *sum > 0.0 { sum + kerf + side } else { *side }));
        }
    }
    all.into_iter().filter(|span| *span > 0.0).collect()
}

#[test]
fn the_kerf_makes_eighths_of_a_sheet_smaller_than_two_feet() {
    // Common practice: 1220 x 2440 in eight squares at 3.2 mm leaves 607 by 608, which a panel of 609.6 mm no longer fits.
    let eight = |side: f64| -> Vec<Blank> { (0..8).map(|number| blank(number, side, side)).collect() };
    let sheets = |side: f64| lay_out(&eight(side), &[FULL], &SAW, Effort::Rounds(50), None).sheets.len();
    assert_eq!(sheets(0.6076), 1);
    assert_eq!(sheets(0.6096), 3);
    let root = &lay_out(&eight(0.6076), &[FULL], &SAW, Effort::Quick, None).sheets[0].root;
    let order = steps(root);
    // All squares are one setting of the fence.
    assert_eq!(order.iter().filter(|step| step.moves).count(), 1, "{order:?}");
}

#[test]
fn the_smallest_sheet_that_holds_them_is_bought_and_an_offcut_before_any() {
    let half = Sheet { size: [1.22, 1.22], at_hand: None, price: 22.0 };
    let boards = [blank(1, 0.5, 0.7), blank(2, 0.5, 0.6), blank(3, 0.4, 0.6), blank(4, 0.3, 0.5)];
    let offered = [FULL, half, Sheet { size: [0.61, 1.22], at_hand: None, price: 12.0 }];
    let found = lay_out(&boards, &offered, &SAW, Effort::Quick, None);
    assert_eq!(found.sheets.iter().map(|one| one.sheet).collect::<Vec<_>>(), [1]);
    assert_relative_eq!(found.cost(&offered), 22.0);
    let offcut = Sheet { size: [0.65, 1.3], at_hand: Some(1), price: 0.0 };
    let found = lay_out(&boards, &[half, offcut], &SAW, Effort::Quick, None);
    assert!(found.sheets.iter().any(|one| one.sheet == 1), "the offcut is used");
    // Larger than any sheet it is said to be left.
    let found = lay_out(&[blank(1, 1.3, 2.5)], &offered, &SAW, Effort::Quick, None);
    assert_eq!(found.left, [0]);
}

#[test]
fn a_search_of_two_thousand_rounds_is_as_cheap_as_one_of_ten_thousand() {
    // Twelve, eighteen and twenty-four boards of sizes that a box has.
    for count in [12u32, 18, 24] {
        let boards: Vec<Blank> = (0..count)
            .map(|n| blank(n, 0.24 + 0.037 * f64::from(n % 7), 0.31 + 0.053 * f64::from(n * 5 % 11)))
            .collect();
        let offered = [FULL, Sheet { size: [1.22, 1.22], at_hand: None, price: 22.0 }];
        let cost = |rounds| lay_out(&boards, &offered, &SAW, Effort::Rounds(rounds), None).cost(&offered);
        assert!(cost(2000) <= 1.05 * cost(10_000), "{count}: {} {}", cost(2000), cost(10_000));
    }
}

#[test]
fn a_search_tells_how_far_it_is_and_stops_when_it_is_told() {
    let boards: Vec<Blank> = (0..12).map(|n| blank(n, 0.3 + 0.02 * f64::from(n), 0.4)).collect();
    let stop = Stop::default();
    let mut told = Vec::new();
    let mut hear = |done: u32, of: u32| {
        told.push((done, of));
        if done == 5 {
            stop.stop();
        }
    };
    let search = Search { told: &mut hear, stop: &stop };
    let found = lay_out(&boards, &[FULL], &SAW, Effort::Rounds(1000), Some(search));
    assert!(found.left.is_empty());
    assert_eq!(told.last(), Some(&(5, 1000)));
}
