// The tables as Diesel sees them; the order of columns is that of the migrations.
// A test selects every column of every table.

diesel::table! {
    accounts (id) {
        id -> Uuid,
        name -> Text,
        created_at -> Timestamptz,
        keep_log_months -> Nullable<Integer>,
        yard_latitude -> Nullable<Double>,
        yard_longitude -> Nullable<Double>,
        usual_station -> Nullable<Jsonb>,
    }
}

diesel::table! {
    users (account_id, id) {
        account_id -> Uuid,
        id -> Uuid,
        email -> Text,
        name -> Text,
        password_hash -> Text,
        units -> Text,
        created_at -> Timestamptz,
        role -> Text,
        left_at -> Nullable<Timestamptz>,
    }
}

diesel::table! {
    password_links (account_id, user_id) {
        account_id -> Uuid,
        user_id -> Uuid,
        key_hash -> Binary,
        expires_at -> Timestamptz,
    }
}

diesel::table! {
    sessions (key_hash) {
        key_hash -> Binary,
        state -> Jsonb,
        expires_at -> Timestamptz,
        account_id -> Uuid,
        user_id -> Uuid,
        session_id -> Uuid,
        began_at -> Timestamptz,
        used_at -> Timestamptz,
        device -> Text,
        network -> Text,
    }
}

diesel::table! {
    sign_in_attempts (id) {
        id -> BigInt,
        key -> Text,
        at -> Timestamptz,
    }
}

diesel::table! {
    aggregates (account_id, id) {
        account_id -> Uuid,
        id -> Uuid,
        kind -> Text,
        version -> Integer,
    }
}

diesel::table! {
    actions (account_id, id) {
        account_id -> Uuid,
        id -> Uuid,
        ordinal -> BigInt,
        at -> Timestamptz,
        user_id -> Uuid,
        user_name -> Text,
        why -> Text,
        digest -> Binary,
        led_to -> Text,
        undoes -> Nullable<Uuid>,
        can_be_undone -> Bool,
    }
}

diesel::table! {
    changes (account_id, aggregate_id, version) {
        account_id -> Uuid,
        action_id -> Uuid,
        ordinal -> SmallInt,
        aggregate_id -> Uuid,
        kind -> Text,
        version -> Integer,
        after -> Nullable<Jsonb>,
    }
}

diesel::table! {
    series_revisions (account_id, id) {
        account_id -> Uuid,
        id -> Uuid,
        series_id -> Uuid,
        source -> Text,
        input_hash -> Binary,
        method_version -> Integer,
        first_day -> Nullable<Date>,
        last_day -> Nullable<Date>,
        day_count -> Integer,
        method -> Text,
        created_at -> Timestamptz,
    }
}

diesel::table! {
    series (account_id, id) {
        account_id -> Uuid,
        id -> Uuid,
        name -> Text,
        latitude_deg -> Double,
        longitude_deg -> Double,
        elevation_m -> Double,
        wind_height_m -> Double,
        revision_id -> Uuid,
    }
}

diesel::table! {
    daily_weather (account_id, revision_id, day) {
        account_id -> Uuid,
        revision_id -> Uuid,
        day -> Date,
        tmax_c -> Nullable<Double>,
        tmin_c -> Nullable<Double>,
        rhmax_pct -> Nullable<Double>,
        rhmin_pct -> Nullable<Double>,
        rhmean_pct -> Nullable<Double>,
        dewpoint_c -> Nullable<Double>,
        wind_ms -> Nullable<Double>,
        solar_mj_m2 -> Nullable<Double>,
        rain_mm -> Nullable<Double>,
        hours_of -> Nullable<Uuid>,
    }
}

diesel::table! {
    weather_hours (account_id, revision_id, day) {
        account_id -> Uuid,
        revision_id -> Uuid,
        day -> Date,
        starts -> Array<Timestamptz>,
        utc_offset_s -> Array<Integer>,
        temp_c -> Array<Nullable<Double>>,
        rh_pct -> Array<Nullable<Double>>,
        wind_ms -> Array<Nullable<Double>>,
        solar_mj_m2 -> Array<Nullable<Double>>,
        rain_mm -> Array<Nullable<Double>>,
    }
}

diesel::table! {
    daily_et0 (account_id, revision_id, day) {
        account_id -> Uuid,
        revision_id -> Uuid,
        day -> Date,
        et0_mm -> Double,
        method -> Text,
    }
}

diesel::table! {
    weather_decisions (account_id, revision_id, day, element) {
        account_id -> Uuid,
        revision_id -> Uuid,
        day -> Date,
        element -> Text,
        verdict -> Text,
        original -> Nullable<Double>,
        value -> Nullable<Double>,
        reason -> Text,
    }
}

diesel::table! {
    monthly_normals (account_id, revision_id, variant, month) {
        account_id -> Uuid,
        revision_id -> Uuid,
        variant -> Text,
        month -> SmallInt,
        et0_mm_per_day -> Double,
        rain_mm -> Nullable<Double>,
        tmax_c -> Nullable<Double>,
        tmin_c -> Nullable<Double>,
    }
}

diesel::table! {
    places (account_id, id) {
        account_id -> Uuid,
        id -> Uuid,
        name -> Text,
        series_id -> Nullable<Uuid>,
        document -> Jsonb,
        further_series -> Array<Uuid>,
        latitude -> Double,
        longitude -> Double,
    }
}

diesel::table! {
    controllers (account_id, id) {
        account_id -> Uuid,
        id -> Uuid,
        place_id -> Uuid,
        name -> Text,
        document -> Jsonb,
        recorded_at -> Nullable<Timestamptz>,
        last_visit -> Nullable<Date>,
        look_again -> Nullable<Date>,
        look_again_at -> Nullable<Timestamptz>,
    }
}

diesel::table! {
    uploads (account_id, id) {
        account_id -> Uuid,
        id -> Uuid,
        file_name -> Text,
        content -> Binary,
        created_at -> Timestamptz,
        place_id -> Nullable<Uuid>,
        user_name -> Text,
        typed -> Jsonb,
    }
}

diesel::table! {
    field_records (account_id, id) {
        account_id -> Uuid,
        id -> Uuid,
        controller_id -> Uuid,
        kind -> Text,
        at -> Timestamptz,
        user_id -> Uuid,
        user_name -> Text,
        document -> Jsonb,
    }
}

diesel::table! {
    snoozes (account_id, controller_id, job) {
        account_id -> Uuid,
        controller_id -> Uuid,
        job -> Text,
        until -> Date,
        reason -> Text,
        user_id -> Uuid,
        user_name -> Text,
        at -> Timestamptz,
    }
}

// Views: read only.

diesel::table! {
    controller_heads (account_id, id) {
        account_id -> Uuid,
        id -> Uuid,
        name -> Text,
        version -> Integer,
        stations -> Integer,
        place_id -> Uuid,
        place -> Text,
        place_version -> Integer,
        latitude -> Double,
        longitude -> Double,
        time_zone -> Text,
        revision_id -> Nullable<Uuid>,
        recorded_at -> Nullable<Timestamptz>,
        last_visit -> Nullable<Date>,
        look_again -> Nullable<Date>,
        further_revisions -> Nullable<Array<Uuid>>,
    }
}

diesel::table! {
    visitors (account_id, id) {
        account_id -> Uuid,
        account_name -> Text,
        id -> Uuid,
        email -> Text,
        name -> Text,
        password_hash -> Text,
        units -> Text,
        role -> Text,
        action_id -> Nullable<Uuid>,
        action_at -> Nullable<Timestamptz>,
        action_why -> Nullable<Text>,
    }
}

diesel::allow_tables_to_appear_in_same_query!(
    accounts,
    users,
    password_links,
    sessions,
    sign_in_attempts,
    aggregates,
    actions,
    changes,
    series_revisions,
    series,
    daily_weather,
    weather_hours,
    daily_et0,
    weather_decisions,
    monthly_normals,
    places,
    controllers,
    uploads,
    field_records,
    snoozes,
);
