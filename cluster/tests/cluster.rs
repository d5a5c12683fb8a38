//! The cluster, for real.

use std::fs;
use std::os::unix::fs::PermissionsExt;

use oak_cluster::Cluster;

#[test]
fn a_cluster_keeps_its_data_password_and_privacy_over_a_restart() {
    let folder = std::env::temp_dir().join(format!("oak-drum-cluster-{}", std::process::id()));
    let first = Cluster::start_in(&folder).expect("starts");
    first.create_database("kept").expect("a database");
    let again = Cluster::start_in(&folder).expect("a running cluster is found again");
    assert_eq!(first.url(), again.url());
    assert!(first.url().contains("@127.0.0.1:"));
    first.stop().expect("stops");

    let second = Cluster::start_in(&folder).expect("starts again");
    let twice = second.create_database("kept").expect_err("it is still there").to_string();
    assert!(twice.contains("already exists"), "{twice}");
    let mode = fs::metadata(folder.join("password")).expect("password").permissions().mode();
    assert_eq!(mode & 0o777, 0o600);
    second.stop().expect("stops");
    fs::remove_dir_all(&folder).expect("can be cleared");
}
