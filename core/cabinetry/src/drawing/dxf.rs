//! DXF.

use dxf::entities::{Circle, Entity, EntityType, LwPolyline, Text};
use dxf::enums::{AcadVersion, Units};
use dxf::tables::Layer;
use dxf::{Color, Drawing as File, LwPolylineVertex, Point};

use super::{Drawing, Line};

const LINES: [Line; 11] = [
    Line::Cut,
    Line::Seen,
    Line::Hidden,
    Line::Air,
    Line::Metal,
    Line::Fill,
    Line::Middle,
    Line::Recess,
    Line::Drill,
    Line::Mark,
    Line::Label,
];

/// A drawing at full size as DXF, its unit mm, every kind of line on a layer of its own.
///
/// # Errors
/// What the writer says.
pub fn write_dxf(drawing: &Drawing) -> Result<Vec<u8>, dxf::DxfError> {
    let mut file = File::new();
    file.header.version = AcadVersion::R2000;
    file.header.default_drawing_units = Units::Millimeters;
    for (index, line) in LINES.into_iter().enumerate() {
        let color = Color::from_index(index as u8 + 1);
        file.add_layer(Layer { name: line.name().to_owned(), color, ..Layer::default() });
    }
    let mut add = |line: Line, specific: EntityType| {
        let mut entity = Entity::new(specific);
        entity.common.layer = line.name().to_owned();
        file.add_entity(entity);
    };
    for stroke in &drawing.strokes {
        let corner = |at: &[f64; 2]| LwPolylineVertex {
            x: at[0] * 1e3,
            y: at[1] * 1e3,
            ..LwPolylineVertex::default()
        };
        let mut polyline =
            LwPolyline { vertices: stroke.points.iter().map(corner).collect(), ..LwPolyline::default() };
        polyline.set_is_closed(stroke.closed);
        add(stroke.line, EntityType::LwPolyline(polyline));
    }
    for ring in &drawing.rings {
        let middle = Point::new(ring.middle[0] * 1e3, ring.middle[1] * 1e3, 0.0);
        add(ring.line, EntityType::Circle(Circle::new(middle, ring.radius * 1e3)));
    }
    for (at, words) in &drawing.labels {
        let text = Text {
            location: Point::new(at[0] * 1e3, at[1] * 1e3, 0.0),
            text_height: 10.0,
            value: words.clone(),
            ..Text::default()
        };
        add(Line::Label, EntityType::Text(text));
    }
    let mut bytes = Vec::new();
    file.save(&mut bytes)?;
    Ok(bytes)
}
