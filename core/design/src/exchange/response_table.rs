//! Responses as CSV.

use oak_acoustics::response::Response;

/// Names of the columns, each with its unit.
pub fn response_columns(openings: usize) -> Vec<String> {
    let fixed = [
        "frequency_hz",
        "level_db",
        "phase_deg",
        "group_delay_ms",
        "cone_excursion_mm_peak",
        "impedance_ohm",
        "impedance_phase_deg",
        "current_a_rms",
    ];
    let ports = (1..=openings).map(|port| format!("port_{port}_air_speed_m_per_s_peak"));
    fixed.into_iter().map(str::to_owned).chain(ports).collect()
}

/// Writes a response, one row a frequency, with a point as decimal sign and seven digits.
///
/// # Panics
/// Never: a row always has as many cells as the header, and memory is written to.
pub fn write_response_table(response: &Response) -> String {
    let openings = response.opening_velocity.len();
    let mut writer = csv::Writer::from_writer(Vec::new());
    let never = "writing rows of equal length to memory";
    writer.write_record(response_columns(openings)).expect(never);
    let (levels, excursions): (Vec<_>, Vec<_>) = (response.level().collect(), response.excursion().collect());
    let speeds: Vec<Vec<f64>> = (0..openings).map(|opening| response.air_speed(opening).collect()).collect();
    for (k, frequency) in response.frequency.iter().enumerate() {
        let fixed = [
            *frequency,
            levels[k],
            response.pressure[k].arg().to_degrees(),
            response.group_delay[k] * 1e3,
            excursions[k] * 1e3,
            response.impedance[k].norm(),
            response.impedance[k].arg().to_degrees(),
            response.current[k].norm(),
        ];
        let row = fixed.into_iter().chain(speeds.iter().map(|speed| speed[k]));
        writer.write_record(row.map(|value| oak_units::significant(value, 7))).expect(never);
    }
    let bytes = writer.into_inner().expect(never);
    String::from_utf8(bytes).expect("numbers are ASCII")
}
