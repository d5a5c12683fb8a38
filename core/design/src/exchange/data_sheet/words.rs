//! What data sheets call the values of a driver (common practice), and what they call things that are none of them.

/// What a label means.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Label {
    /// A quantity of the driver file.
    Value(&'static str),
    /// A printed sensitivity; for which drive is said beside it.
    Sensitivity,
    /// A text of the driver file.
    Text(&'static str),
    /// Something else: what follows belongs to it.
    Other,
}

/// Labels without spaces and signs, in small letters.
const LABELS: &[(Label, &[&str])] = &[
    (Label::Text("name"), &["model", "modelname", "partnumber", "partno", "item", "product"]),
    (Label::Text("maker"), &["brand", "manufacturer", "maker"]),
    (
        Label::Text("frequency_range"),
        &["frequencyrange", "frequencyresponse", "usablefrequencyrange", "freqrange", "bandwidth"],
    ),
    (Label::Value("size"), &["size", "nominaldiameter", "nominalsize", "driversize"]),
    (
        Label::Value("nominal"),
        &["z", "znom", "impedance", "nominalimpedance", "nomimpedance", "ratedimpedance", "impedancenominal"],
    ),
    (
        Label::Value("re"),
        &[
            "re",
            "rdc",
            "dcr",
            "dcresistance",
            "revc",
            "voicecoilresistance",
            "voicecoildcresistance",
            "coilresistance",
        ],
    ),
    (
        Label::Value("le"),
        &["le", "levc", "inductance", "voicecoilinductance", "coilinductance", "le1khz", "lvc"],
    ),
    (
        Label::Value("fs"),
        &[
            "fs",
            "f0",
            "fo",
            "fres",
            "resonance",
            "resonancefrequency",
            "resonantfrequency",
            "freeairresonance",
            "freeairresonancefrequency",
            "resonancefreq",
            "resonantfreq",
        ],
    ),
    (Label::Value("qms"), &["qms", "qm", "mechanicalq", "mechanicalqfactor", "qfactormechanical"]),
    (Label::Value("qes"), &["qes", "qe", "electricalq", "electricalqfactor", "qfactorelectrical"]),
    (Label::Value("qts"), &["qts", "qt", "totalq", "totalqfactor", "qfactortotal"]),
    (
        Label::Value("vas"),
        &[
            "vas",
            "equivalentvolume",
            "equivalentairvolume",
            "equivalentvolumeofair",
            "equivvolume",
            "compliancevolume",
            "equivalentcompliancevolume",
            "equivalentaircompliance",
        ],
    ),
    (Label::Value("cms"), &["cms", "compliance", "suspensioncompliance", "mechanicalcompliance"]),
    (
        Label::Value("mms"),
        &[
            "mms",
            "movingmass",
            "movingmassincludingairload",
            "movingmassinclairload",
            "dynamicmass",
            "movingmassmms",
            "totalmovingmass",
            "movingmasswithairload",
        ],
    ),
    (
        Label::Value("bl"),
        &["bl", "bxl", "blproduct", "bxlproduct", "forcefactor", "motorstrength", "blfactor"],
    ),
    (
        Label::Value("sd"),
        &[
            "sd",
            "conearea",
            "effectivearea",
            "pistonarea",
            "effectivepistonarea",
            "effectiveconearea",
            "effectiveradiatingarea",
            "radiatingarea",
            "surfacearea",
            "diaphragmarea",
            "effectivediaphragmarea",
        ],
    ),
    (
        Label::Value("xmax"),
        &[
            "xmax",
            "linearexcursion",
            "maxlinearexcursion",
            "maximumlinearexcursion",
            "excursion",
            "lineartravel",
            "linearcoiltravel",
            "voicecoillineartravel",
            "maxexcursion",
            "maximumexcursion",
            "onewaylinearexcursion",
            "peaktopeaklinearexcursion",
        ],
    ),
    (
        Label::Value("pe"),
        &[
            "pe",
            "power",
            "powerhandling",
            "rmspower",
            "rmspowerhandling",
            "powerrms",
            "powerhandlingrms",
            "ratedpower",
            "prms",
            "continuouspower",
            "continuouspowerhandling",
            "nominalpower",
            "nominalpowerhandling",
            "aespower",
            "thermalpower",
            "ratednoisepower",
            "longtermpower",
            "ratedpowerhandling",
            "powerratingrms",
            "powerrating",
            "powercapacity",
        ],
    ),
    (Label::Value("depth"), &["depth", "mountingdepth", "overalldepth", "totaldepth"]),
    (
        Label::Value("cutout"),
        &[
            "cutout",
            "cutoutdiameter",
            "bafflecutout",
            "bafflecutoutdiameter",
            "mountingcutout",
            "bafflehole",
            "bafflediameter",
            "mountinghole",
            "mountingholediameter",
        ],
    ),
    (Label::Value("magnet"), &["magnetdiameter"]),
    (
        Label::Value("displacement"),
        &["drivervolume", "volumeoccupied", "volumedisplacement", "driverdisplacement", "displacementvolume"],
    ),
    (Label::Value("price"), &["price"]),
    (
        Label::Sensitivity,
        &[
            "sensitivity",
            "spl",
            "splsensitivity",
            "sensitivityspl",
            "level",
            "referencesensitivity",
            "averagespl",
            "characteristicsensitivity",
            "no1w1m",
        ],
    ),
    (
        Label::Other,
        &[
            "mmd",
            "conemass",
            "diaphragmmass",
            "rms",
            "rmspeak",
            "vd",
            "ebp",
            "n0",
            "no",
            "eta0",
            "xmech",
            "xlim",
            "xdam",
            "xsus",
            "xsusp",
            "maxpower",
            "maximumpower",
            "peakpower",
            "musicpower",
            "maximumpowerhandling",
            "peakpowerhandling",
            "maxpowerhandling",
            "programpower",
            "programmepower",
            "powermax",
            "powerpeak",
            "voicecoildiameter",
            "coildiameter",
            "windingheight",
            "windingdepth",
            "voicecoilheight",
            "airgapheight",
            "gapheight",
            "topplatethickness",
            "magnetweight",
            "magnetmass",
            "netweight",
            "weight",
            "shippingweight",
            "fluxdensity",
            "magneticflux",
            "overalldiameter",
            "outsidediameter",
            "outerdiameter",
            "framediameter",
            "basketdiameter",
            "flangediameter",
            "diameter",
            "boltcirclediameter",
            "mechanicalresistance",
            "minimumimpedance",
            "zmin",
            "zmax",
            "le10khz",
            "le20khz",
            "leresistance",
            "f3",
            "fb",
            "vb",
            "recommendedvolume",
            "recommendedenclosure",
            "efficiency",
            "layers",
            "date",
            "page",
            "phone",
            "warranty",
            "sku",
            "ean",
            "krm",
            "erm",
            "kxm",
            "exm",
            "mechanicalexcursion",
            "xmaxmech",
            "surroundheight",
            "conedepth",
            "damage",
            "temperature",
            "efficiencybandwidthproduct",
        ],
    ),
];

/// Values that only a loudspeaker's sheet has.
pub(super) const TELLING: [&str; 11] =
    ["re", "fs", "qms", "qes", "qts", "vas", "cms", "mms", "bl", "sd", "xmax"];

/// How units are written on sheets beside the table's own spellings, in small letters without points and spaces.
pub(super) const UNITS: &[(&str, &str)] = &[
    ("gr", "g"),
    ("grs", "g"),
    ("gms", "g"),
    ("ltrs", "l"),
    ("lt", "l"),
    ("lit", "l"),
    ("cuft", "cuft"),
    ("cubicft", "cuft"),
    ("cf", "cuft"),
    ("cuin", "cuin"),
    ("sqcm", "cm2"),
    ("squarecm", "cm2"),
    ("sqin", "in2"),
    ("sqinches", "in2"),
    ("squareinches", "in2"),
    ("sqm", "m2"),
    ("squaremeters", "m2"),
    ("cmsq", "cm2"),
    ("tm", "T m"),
    ("t-m", "T m"),
    ("t*m", "T m"),
    ("txm", "T m"),
    ("t·m", "T m"),
    ("t/m", "T m"),
    ("teslam", "T m"),
    ("tesla-m", "T m"),
    ("teslametres", "T m"),
    ("teslameters", "T m"),
    ("n/a", "T m"),
    ("wrms", "W"),
    ("wattsrms", "W"),
    ("ohm/s", "ohm"),
    ("mmpeak", "mm"),
    ("dbspl", "dB"),
];

/// The label that a text begins with, and how many of its letters it takes: the longest there is.
///
/// `letters` are the small letters and digits of the text, each with whether something else stands before it.
pub(super) fn label_at(letters: &[(char, bool)]) -> Option<(Label, usize)> {
    let mut best: Option<(Label, usize)> = None;
    for (label, names) in LABELS {
        for name in *names {
            let count = name.chars().count();
            let longer = best.is_none_or(|(_, length)| count > length);
            if longer
                && letters.len() >= count
                && name.chars().zip(letters).all(|(c, (letter, _))| c == *letter)
            {
                // A label ends where its word does, or where a number begins.
                let whole = letters.get(count).is_none_or(|(next, apart)| *apart || next.is_ascii_digit());
                let digits = name.ends_with(|c: char| c.is_ascii_digit());
                if whole
                    && !(digits
                        && letters.get(count).is_some_and(|(next, apart)| !apart && next.is_ascii_digit()))
                {
                    best = Some((*label, count));
                }
            }
        }
    }
    best
}
