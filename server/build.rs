//! Has the server built again whenever the interface it embeds was.

fn main() {
    let interface = concat!(env!("CARGO_MANIFEST_DIR"), "/../web/dist");
    // Without a folder to watch Cargo would build the server again every time.
    std::fs::create_dir_all(interface).expect("the folder of the built interface can be made");
    println!("cargo:rerun-if-changed={interface}");
}
