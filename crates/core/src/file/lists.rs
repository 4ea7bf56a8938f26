//! The lists of a site file, in one place: what has an id, changes, is compared and is put together by it.

/// Hands every list of a site file to another macro, each as `field: Type, Kind, "doc";`: first those that stand in the file itself, then
/// those within its network.
///
/// Whoever adds a list to [`SiteFile`](super::SiteFile) adds it here: `site_change.rs` takes the file apart field by field, so that one that
/// is forgotten does not compile.
macro_rules! with_lists {
    ($take:ident) => {
        $take! { {
            spots: Spot, Spot, "The spots.";
            targets: TargetFile, Target, "The targets.";
            cameras: CameraFile, Camera, "The cameras.";
            obstacles: Obstacle, Obstacle, "The obstacles.";
            lamps: Lamp, Lamp, "The lamps.";
            private: PrivatePlace, Private, "The private places.";
            readings: Reading, Reading, "The readings.";
            variants: Variant, Variant, "The other designs.";
            agreements: Agreement, Agreement, "What was agreed to.";
            proofs: Proof, Proof, "What was tried out.";
            snapshots: Snapshot, Snapshot, "The pictures that are kept.";
            visits: Visit, Visit, "The visits.";
        } {
            nodes: Node, Node, "The boxes of the network.";
            cables: Cable, Cable, "Its cables.";
            ways: CablePath, CablePath, "The ways that cables can take.";
        } }
    };
}
pub(crate) use with_lists;
