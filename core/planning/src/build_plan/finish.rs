//! Finishes: materials, coats, waits and order (common practice).

use oak_design::file::RawFinish;

/// One stage of a finish, in the order of the work.
#[derive(Debug, Clone, PartialEq)]
pub struct FinishStage {
    /// Its name in the plan.
    pub id: &'static str,
    /// What it is.
    pub title: &'static str,
    /// What to do.
    pub how: &'static str,
    /// The ware that it takes, and how much of it goes on a square metre and coat.
    pub ware: Option<(&'static str, f64)>,
    /// How often it is done.
    pub coats: u32,
    /// Grits of the paper that is used, from coarse to fine.
    pub grits: &'static [u32],
    /// Wait after each coat, h at 20 degC.
    pub wait: f64,
    /// Work for a square metre and coat, minutes.
    pub minutes: f64,
    /// What one does to be sure.
    pub check: &'static str,
}

const fn stage(id: &'static str, title: &'static str, how: &'static str) -> FinishStage {
    FinishStage { id, title, how, ware: None, coats: 1, grits: &[], wait: 0.0, minutes: 15.0, check: "" }
}

/// Usual number of coats.
pub fn usual_coats(finish: RawFinish) -> u32 {
    match finish {
        RawFinish::Raw => 0,
        RawFinish::Carpet | RawFinish::Stain => 1,
        RawFinish::Texture => 2,
        RawFinish::Rolled => 3,
        RawFinish::Clear | RawFinish::Veneer => 4,
        RawFinish::Gloss => 5,
    }
}

/// The stages of a finish with so many coats.
pub fn stages(finish: RawFinish, coats: Option<u32>) -> Vec<FinishStage> {
    let coats = coats.unwrap_or(usual_coats(finish));
    let filler = FinishStage {
        ware: Some(("filler", 25.0)),
        wait: 4.0,
        minutes: 10.0,
        check: "Nothing sinks in any more where a finger runs over it.",
        ..stage(
            "finish.fill",
            "Fill holes and joints",
            "Press filler into every hole, joint and edge a little proud; let it harden through.",
        )
    };
    let sand = |grits: &'static [u32]| FinishStage {
        grits,
        minutes: 8.0 * grits.len() as f64,
        check: "Held against a low lamp, no scratch of the grit before is left.",
        ..stage(
            "finish.sand",
            "Sand",
            "Sand through the grits in order, along the grain where there is one; vacuum between them.",
        )
    };
    let edges = FinishStage {
        ware: Some(("sealer", 30.0)),
        wait: 2.0,
        minutes: 6.0,
        check: "A drop of water stays on the edge.",
        ..stage(
            "finish.edges",
            "Seal raw edges",
            "Edges of MDF drink paint: two thin coats of sealer on all of them, sanded lightly between.",
        )
    };
    let scrap = FinishStage {
        wait: 2.0,
        minutes: 10.0,
        check: "It looks as it should on the scrap, dry.",
        ..stage("finish.scrap", "Try it on scrap", "Do the whole finish on a piece of the same board first.")
    };
    let primer = FinishStage {
        ware: Some(("primer", 110.0)),
        wait: 4.0,
        check: "No wood shows through.",
        ..stage("finish.primer", "Prime", "One even coat; when it is dry go over it lightly with 240.")
    };
    let clear = |coats| FinishStage {
        ware: Some(("clear", 90.0)),
        coats,
        wait: 6.0,
        grits: &[320],
        check: "An even sheen seen from a low angle.",
        ..stage(
            "finish.clear",
            "Clear coat",
            "Thin coats, each dry before the next, with a light sanding between them.",
        )
    };
    let cure = |hours: f64| FinishStage {
        wait: hours,
        minutes: 0.0,
        check: "A thumb pressed on a hidden place leaves no print.",
        ..stage("finish.cure", "Let it harden", "Leave it standing free of dust before anything is mounted.")
    };
    let paint = |id, title, how, ware, per: f64, coats, wait| FinishStage {
        ware: Some((ware, per)),
        coats,
        wait,
        check: "No runs, no thin places.",
        ..stage(id, title, how)
    };
    match finish {
        RawFinish::Raw => Vec::new(),
        RawFinish::Rolled => vec![
            filler,
            sand(&[100, 150, 200]),
            edges,
            scrap,
            primer,
            paint(
                "finish.paint",
                "Roll the paint",
                "Short-pile foam roller, thin coats, the last strokes all one way; sand lightly with 320 between coats.",
                "paint.eggshell",
                95.0,
                coats,
                6.0,
            ),
            cure(24.0),
        ],
        RawFinish::Texture => vec![
            filler,
            sand(&[100, 150]),
            edges,
            scrap,
            paint(
                "finish.paint",
                "Spray the texture",
                "No primer. About 1.4 bar, a wide nozzle, from half a metre; the pressure makes the grain: try it on scrap first.",
                "paint.texture",
                400.0,
                coats,
                4.0,
            ),
            cure(24.0),
        ],
        RawFinish::Gloss => vec![
            filler,
            sand(&[100, 150, 200, 320, 500, 800]),
            edges,
            scrap,
            primer,
            paint(
                "finish.paint",
                "Spray the gloss",
                "Thin wet coats; sand level between them, from 400 for the first to 1500 for the last.",
                "paint.gloss",
                110.0,
                coats,
                12.0,
            ),
            cure(48.0),
            FinishStage {
                ware: Some(("polish", 30.0)),
                grits: &[2000, 3000, 5000],
                minutes: 40.0,
                check: "A lamp is mirrored without a halo.",
                ..stage("finish.polish", "Polish", "Wet-sand 2000, 3000, 5000, then compound on a soft pad.")
            },
        ],
        RawFinish::Veneer => vec![
            filler,
            sand(&[100, 150]),
            scrap,
            FinishStage {
                ware: Some(("glue.contact", 300.0)),
                wait: 12.0,
                minutes: 45.0,
                check: "Tapped all over it nowhere sounds hollow.",
                ..stage(
                    "finish.veneer",
                    "Glue the veneer",
                    "Cut it 25 mm oversize. Adhesive on both faces, tacky after 5 to 10 minutes; lay it from the middle outwards on sticks, roll hard, trim with the face down. Sides first, then top, then front.",
                )
            },
            FinishStage { id: "finish.smooth", title: "Sand the veneer", ..sand(&[180, 240]) },
            clear(coats),
            cure(24.0),
        ],
        RawFinish::Stain => vec![
            filler,
            sand(&[100, 150, 200]),
            scrap,
            FinishStage {
                ware: Some(("stain", 80.0)),
                coats,
                wait: 24.0,
                check: "The colour is even, and none comes off on a cloth.",
                ..stage(
                    "finish.stain",
                    "Stain",
                    "Gel stain on with a cloth, off again after a few minutes, along the grain; 24 h before anything goes over it.",
                )
            },
            clear(4),
            cure(24.0),
        ],
        RawFinish::Clear => vec![filler, sand(&[100, 150, 200, 240]), scrap, clear(coats), cure(24.0)],
        RawFinish::Carpet => vec![
            filler,
            FinishStage {
                ware: Some(("glue.contact", 250.0)),
                wait: 12.0,
                minutes: 60.0,
                check: "No bubble, no open seam, the edge lies in its rabbet.",
                ..stage(
                    "finish.carpet",
                    "Glue the carpet",
                    "Adhesive on both; begin at the back, pull it round tightly, cut the seam through both layers with a new blade, press the edge into its rabbet.",
                )
            },
        ],
    }
}

/// How much longer glue and paint take where it is colder or warmer: twice as long for every 10 degrees below 20 (common practice).
pub fn slower(temperature: f64) -> f64 {
    2f64.powf((20.0 - temperature) / 10.0).clamp(0.7, 4.0)
}
