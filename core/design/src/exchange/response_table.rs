//! Responses as CSV.

use oak_acoustics::network::OpeningKind;

use crate::heard::Heard;
use crate::report::{Computed, limit_name};

/// One column: its name with its unit, and its values.
type Column = (String, Vec<f64>);

/// Names of the columns of a network's table, each with its unit.
pub fn response_columns(computed: &Computed) -> Vec<String> {
    columns(computed).into_iter().map(|(name, _)| name).collect()
}

fn columns(computed: &Computed) -> Vec<Column> {
    let (network, response) = (&computed.built.compiled.network, &computed.response);
    let fixed: [(&str, Vec<f64>); 11] = [
        ("frequency_hz", response.frequency.clone()),
        ("level_db", response.level().collect()),
        ("phase_deg", response.pressure.iter().map(|p| p.arg().to_degrees()).collect()),
        ("group_delay_ms", response.group_delay.iter().map(|delay| delay * 1e3).collect()),
        ("cone_excursion_mm_peak", response.excursion().map(|x| x * 1e3).collect()),
        ("impedance_ohm", response.impedance.iter().map(|z| z.norm()).collect()),
        ("impedance_phase_deg", response.impedance.iter().map(|z| z.arg().to_degrees()).collect()),
        ("current_a_rms", response.current.iter().map(|i| i.norm()).collect()),
        ("real_power_w", response.power().collect()),
        ("apparent_power_va", response.apparent_power().collect()),
        ("efficiency_percent", response.efficiency().map(|share| share * 100.0).collect()),
    ];
    let openings = network.openings.iter().enumerate().map(|(at, opening)| {
        let label = slug(&opening.label);
        match opening.kind {
            OpeningKind::Port | OpeningKind::Throat => {
                (format!("{label}_air_speed_m_per_s_peak"), response.air_speed(at).collect())
            }
            OpeningKind::Diaphragm => {
                (format!("{label}_travel_mm_peak"), response.opening_travel(at).map(|x| x * 1e3).collect())
            }
        }
    });
    let chambers = network.chambers.iter().zip(&response.chamber_pressure).map(|(room, pressure)| {
        (format!("{}_pressure_pa_rms", slug(room.label)), pressure.iter().map(|p| p.norm()).collect())
    });
    let fixed = fixed.into_iter().map(|(name, values)| (name.to_owned(), values));
    fixed.chain(openings).chain(chambers).chain(at_seats(computed)).collect()
}

/// Levels where it is listened to, empty where a place is not looked at.
fn at_seats(computed: &Computed) -> Vec<Column> {
    let Some(place) = &computed.built.design.playing.place else { return Vec::new() };
    let frequencies = &computed.response.frequency;
    let Some(heard) = Heard::of(&computed.built, place, frequencies) else { return Vec::new() };
    let before = frequencies.partition_point(|frequency| *frequency < heard.frequency[0]);
    let whole = |levels: Vec<f64>| {
        let mut values = vec![f64::NAN; before];
        values.extend(levels);
        values.resize(frequencies.len(), f64::NAN);
        values
    };
    let mean = ("all_seats_level_db".to_owned(), whole(heard.mean()));
    let each = heard.levels().into_iter().zip(&place.seats);
    let seats = each.map(|(levels, seat)| (format!("{}_level_db", slug(&seat.name)), whole(levels)));
    std::iter::once(mean).chain(seats).collect()
}

fn slug(label: &str) -> String {
    label.to_lowercase().replace(' ', "_")
}

/// Writes a response: its conditions in a line of comment, then one row a frequency, with a point as decimal sign and seven digits.
pub fn write_response_table(computed: &Computed) -> String {
    let columns = columns(computed);
    let header: Vec<_> = columns.iter().map(|(name, _)| name.clone()).collect();
    let rows = (0..computed.response.frequency.len())
        .map(|row| columns.iter().map(|(_, values)| number(values[row])).collect());
    write(computed, &header, rows)
}

/// Writes the maximum clean level: its conditions in a line of comment, then level, the drive it takes and what binds, one row a
/// frequency.
pub fn write_limit_table(computed: &Computed) -> String {
    let Computed { response, max_output, .. } = computed;
    let header = ["frequency_hz", "largest_clean_level_db", "drive_v_rms", "limit"].map(str::to_owned);
    let rows = response.frequency.iter().enumerate().map(|(row, frequency)| {
        let finite = |value: f64| if value.is_finite() { number(value) } else { String::new() };
        let limit = limit_name(max_output.limit[row]).to_owned();
        vec![number(*frequency), finite(max_output.level[row]), finite(max_output.volts[row]), limit]
    });
    write(computed, &header, rows)
}

/// Nothing where there is no value.
fn number(value: f64) -> String {
    if value.is_nan() {
        return String::new();
    }
    oak_units::significant(value, 7)
}

fn write(computed: &Computed, header: &[String], rows: impl Iterator<Item = Vec<String>>) -> String {
    let never = "writing rows of equal length to memory";
    let mut writer = csv::Writer::from_writer(Vec::new());
    writer.write_record(header).expect(never);
    for row in rows {
        writer.write_record(row).expect(never);
    }
    let table = String::from_utf8(writer.into_inner().expect(never)).expect("made of strings");
    format!("# {}\n{table}", computed.built.design.conditions())
}
