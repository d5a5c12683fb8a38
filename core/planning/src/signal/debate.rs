//! Where builders disagree about what comes before the drivers, with what each way gives here.

use serde::Serialize;
use utoipa::ToSchema;

use super::survey::Survey;

/// One question and its answers.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Debate {
    /// The question.
    pub name: &'static str,
    /// What each side says, and what it gives here (common practice).
    pub words: String,
}

pub(super) fn debates(survey: &Survey) -> Vec<Debate> {
    vec![power(survey), correction(survey)]
}

fn power(survey: &Survey) -> Debate {
    let allowance = &survey.design.allowance;
    let load = survey.design.as_driven().nominal;
    let here = match (allowance.heat, allowance.volts) {
        (Some(heat), Some(volts)) => {
            let power = volts * volts / load;
            format!(
                " Here the amplifier gives {power:.0} W, {:.1} times the {heat:.0} W of the drivers.",
                power / heat
            )
        }
        (Some(heat), None) => format!(" The drivers here stand {heat:.0} W for hours."),
        _ => String::new(),
    };
    Debate {
        name: "How large an amplifier?",
        words: format!(
            "At or under the driver's rating: nothing burns, but it may clip. Several times the rating: headroom for peaks, and a slip of the hand ends the \
             driver unless a high-pass and a limit stand before it.{here}"
        ),
    }
}

fn correction(survey: &Survey) -> Debate {
    let [travel, at] = survey.largest_travel(|_| 1.0);
    let here = survey.design.allowance.xmax.map_or_else(String::new, |xmax| {
        let share = 100.0 * travel / xmax;
        format!(
            " Here the cone moves {:.1} mm at {at:.0} Hz, {share:.0} % of Xmax, whichever is chosen.",
            travel * 1e3
        )
    });
    Debate {
        name: "Servo, signal processor or neither?",
        words: format!(
            "A servo measures the cone and corrects it: distortion about a tenth, it is said, within the travel there is. A processor shapes the level and knows \
             nothing of distortion. Neither adds travel, heat or volts: a corner is lowered only as far as these reach.{here}"
        ),
    }
}
