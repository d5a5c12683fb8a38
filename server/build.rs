//! Has a release built again whenever the interface it embeds was. Other builds read the interface from its folders as they run.

fn main() {
    let interfaces = ["/../web/dist", "/../web/dist-companion"]
        .map(|folder| env!("CARGO_MANIFEST_DIR").to_owned() + folder);
    // The folders must be there for either.
    for interface in &interfaces {
        std::fs::create_dir_all(interface).expect("the folder of the built interface can be made");
    }
    let embeds = std::env::var("PROFILE").is_ok_and(|profile| profile == "release");
    if embeds {
        interfaces.iter().for_each(|interface| println!("cargo:rerun-if-changed={interface}"));
    } else {
        println!("cargo:rerun-if-changed=build.rs");
    }
}
