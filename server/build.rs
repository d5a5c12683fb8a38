//! Has a release built again whenever the interface it embeds was. Other builds read the interface from its folder as they run.

fn main() {
    let interface = concat!(env!("CARGO_MANIFEST_DIR"), "/../web/dist");
    // The folder must be there for either.
    std::fs::create_dir_all(interface).expect("the folder of the built interface can be made");
    let embeds = std::env::var("PROFILE").is_ok_and(|profile| profile == "release");
    println!("cargo:rerun-if-changed={}", if embeds { interface } else { "build.rs" });
}
