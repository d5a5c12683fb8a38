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
        values_version -> Int4,
        found_by -> Text,
        tags -> Array<Text>,
        size_m -> Nullable<Double>,
        le_h -> Double,
        qes -> Double,
        qms -> Double,
        mms_kg -> Double,
        bl_tm -> Double,
        xmax_m -> Nullable<Double>,
        pe_w -> Nullable<Double>,
        price -> Nullable<Double>,
        on_hand -> Nullable<Int4>,
    }
}

diesel::table! {
    builds (id) {
        id -> Uuid,
        created_at -> Timestamptz,
        archived_at -> Nullable<Timestamptz>,
    }
}

diesel::table! {
    documents (id) {
        id -> Uuid,
        build_id -> Uuid,
        kind -> Text,
        position -> Int4,
        number -> Int4,
        revision -> Int4,
        archived_at -> Nullable<Timestamptz>,
    }
}

diesel::table! {
    document_revisions (document_id, revision) {
        document_id -> Uuid,
        revision -> Int4,
        content -> Jsonb,
        archived -> Bool,
        created_at -> Timestamptz,
    }
}

diesel::table! {
    loaded_scenarios (name) {
        name -> Text,
        loaded_at -> Timestamptz,
    }
}

diesel::table! {
    jobs (id) {
        id -> Uuid,
        kind -> Text,
        build_id -> Nullable<Uuid>,
        input -> Jsonb,
        total -> Int4,
        queued -> Int4,
        done -> Int4,
        cursor -> Nullable<Jsonb>,
        result -> Nullable<Jsonb>,
        failure -> Nullable<Text>,
        created_at -> Timestamptz,
        cancelled_at -> Nullable<Timestamptz>,
        finished_at -> Nullable<Timestamptz>,
    }
}

diesel::table! {
    driver_match_rows (job_id, driver_id, family) {
        job_id -> Uuid,
        driver_id -> Uuid,
        family -> Text,
        score -> Nullable<Double>,
        spare -> Nullable<Double>,
        volume_m3 -> Nullable<Double>,
        f3_hz -> Nullable<Double>,
        loudness_db -> Nullable<Double>,
        found -> Nullable<Jsonb>,
        refused -> Nullable<Text>,
    }
}

diesel::table! {
    photos (hash) {
        hash -> Text,
        build_id -> Uuid,
        content -> Bytea,
        created_at -> Timestamptz,
    }
}

diesel::table! {
    recordings (hash) {
        hash -> Text,
        build_id -> Uuid,
        content -> Bytea,
        created_at -> Timestamptz,
    }
}

diesel::table! {
    companion_links (id) {
        id -> Uuid,
        build_id -> Uuid,
        variant_id -> Uuid,
        purpose -> Text,
        token_hash -> Bytea,
        session_hash -> Nullable<Bytea>,
        created_at -> Timestamptz,
        join_before -> Timestamptz,
        joined_at -> Nullable<Timestamptz>,
        expires_at -> Timestamptz,
        revoked_at -> Nullable<Timestamptz>,
        writes -> Int4,
    }
}

diesel::joinable!(driver_match_rows -> drivers (driver_id));
diesel::joinable!(driver_match_rows -> jobs (job_id));
diesel::joinable!(jobs -> builds (build_id));
diesel::joinable!(documents -> builds (build_id));
diesel::joinable!(document_revisions -> documents (document_id));
diesel::allow_tables_to_appear_in_same_query!(builds, documents, document_revisions);
diesel::allow_tables_to_appear_in_same_query!(drivers, driver_match_rows, jobs);
