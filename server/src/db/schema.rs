diesel::table! {
    drivers (id) {
        id -> Uuid,
        revision -> Int4,
        name -> Text,
        maker -> Text,
        document -> Jsonb,
        nominal_ohm -> Double,
        re_ohm -> Double,
        fs_hz -> Double,
        qts -> Double,
        vas_m3 -> Double,
        sd_m2 -> Double,
        level_db -> Double,
        created_at -> Timestamptz,
        updated_at -> Timestamptz,
        archived_at -> Nullable<Timestamptz>,
    }
}

diesel::table! {
    builds (id) {
        id -> Uuid,
        revision -> Int4,
        name -> Text,
        notes -> Text,
        created_at -> Timestamptz,
        updated_at -> Timestamptz,
        archived_at -> Nullable<Timestamptz>,
    }
}

diesel::table! {
    variants (id) {
        id -> Uuid,
        build_id -> Uuid,
        position -> Int4,
        revision -> Int4,
        archived_at -> Nullable<Timestamptz>,
    }
}

diesel::table! {
    variant_revisions (variant_id, revision) {
        variant_id -> Uuid,
        revision -> Int4,
        document -> Jsonb,
        created_at -> Timestamptz,
    }
}

diesel::table! {
    loaded_scenarios (name) {
        name -> Text,
        loaded_at -> Timestamptz,
    }
}

diesel::joinable!(variants -> builds (build_id));
diesel::joinable!(variant_revisions -> variants (variant_id));
diesel::allow_tables_to_appear_in_same_query!(drivers, builds, variants, variant_revisions);
