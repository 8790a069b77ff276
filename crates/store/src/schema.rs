// The tables as Diesel sees them; the order of columns is that of the migrations.
// A test selects every column of every table.

diesel::table! {
    accounts (id) {
        id -> Uuid,
        name -> Text,
        created_at -> Timestamptz,
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
    }
}

diesel::table! {
    sessions (key_hash) {
        key_hash -> Binary,
        state -> Jsonb,
        expires_at -> Timestamptz,
    }
}

diesel::table! {
    sign_in_failures (id) {
        id -> BigInt,
        email -> Text,
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
    changes (account_id, id) {
        account_id -> Uuid,
        id -> BigInt,
        action_id -> Uuid,
        ordinal -> SmallInt,
        aggregate_id -> Uuid,
        kind -> Text,
        version -> Integer,
        at -> Timestamptz,
        user_id -> Uuid,
        user_name -> Text,
        why -> Text,
        before -> Nullable<Jsonb>,
        after -> Nullable<Jsonb>,
        undoes -> Nullable<Uuid>,
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
    monthly_normals (account_id, revision_id, variant, month) {
        account_id -> Uuid,
        revision_id -> Uuid,
        variant -> Text,
        month -> SmallInt,
        et0_mm_per_day -> Double,
        rain_mm -> Nullable<Double>,
    }
}

diesel::table! {
    places (account_id, id) {
        account_id -> Uuid,
        id -> Uuid,
        name -> Text,
        house_number -> Text,
        latitude_deg -> Double,
        longitude_deg -> Double,
        elevation_m -> Double,
        time_zone -> Text,
        series_id -> Nullable<Uuid>,
        day_rule -> Text,
        day_rule_days -> Array<SmallInt>,
        never_days -> SmallInt,
        closed_hours_min -> Array<SmallInt>,
        ban_from -> Nullable<Date>,
        ban_to -> Nullable<Date>,
        rules_authority -> Text,
        rules_dated -> Nullable<Date>,
    }
}

diesel::table! {
    controllers (account_id, id) {
        account_id -> Uuid,
        id -> Uuid,
        place_id -> Uuid,
        name -> Text,
        station_count -> SmallInt,
        percent_min -> SmallInt,
        percent_max -> SmallInt,
        percent_step -> SmallInt,
        percent_storage -> Text,
        percent_scope -> Text,
        run_step_s -> Integer,
        run_max_s -> Integer,
        watering_days -> SmallInt,
        base_month -> Nullable<SmallInt>,
        program_count -> SmallInt,
        start_count -> SmallInt,
        start_step_min -> SmallInt,
        odd_even -> Bool,
        every_max_days -> SmallInt,
        has_never_days -> Bool,
        cycle_soak -> Bool,
        station_delay_max_s -> Integer,
        sensor_inputs -> SmallInt,
        contact -> Text,
        rain_delay_max_days -> SmallInt,
        station_delay_s -> Integer,
    }
}

diesel::table! {
    programs (account_id, controller_id, letter) {
        account_id -> Uuid,
        controller_id -> Uuid,
        letter -> Text,
        name -> Text,
        waterings_per_week -> Nullable<SmallInt>,
        count_rain -> Bool,
        day_mode -> Text,
        weekdays -> SmallInt,
        every_days -> Nullable<SmallInt>,
        every_next -> Nullable<Date>,
        never_days -> SmallInt,
        starts_min -> Array<SmallInt>,
        split -> SmallInt,
    }
}

diesel::table! {
    month_plans (account_id, controller_id, letter, month) {
        account_id -> Uuid,
        controller_id -> Uuid,
        letter -> Text,
        month -> SmallInt,
        dial -> Text,
        waterings -> Nullable<SmallInt>,
    }
}

diesel::table! {
    stations (account_id, controller_id, number) {
        account_id -> Uuid,
        controller_id -> Uuid,
        number -> SmallInt,
        name -> Text,
        letter -> Text,
        plant -> Text,
        coefficient -> Nullable<Double>,
        sprinkler -> Text,
        rate_mm_per_h -> Nullable<Double>,
        uniformity -> Nullable<Double>,
        soil -> Text,
        sun -> Text,
        roofed -> Bool,
        area_m2 -> Nullable<Double>,
        slope -> Text,
        run_s -> Nullable<Integer>,
        cycle_s -> Nullable<Integer>,
        soak_s -> Nullable<Integer>,
        also_letter -> Nullable<Text>,
    }
}

diesel::table! {
    uploads (account_id, id) {
        account_id -> Uuid,
        id -> Uuid,
        file_name -> Text,
        content -> Binary,
        created_at -> Timestamptz,
    }
}

diesel::table! {
    sensors (account_id, controller_id, ordinal) {
        account_id -> Uuid,
        controller_id -> Uuid,
        ordinal -> SmallInt,
        kind -> Text,
        place -> Text,
        battery -> Text,
        battery_on -> Nullable<Date>,
        contact -> Text,
        jumper_removed -> Bool,
        input -> SmallInt,
        exempt -> Array<SmallInt>,
        proven_on -> Nullable<Date>,
        proven_how -> Nullable<Text>,
        settings -> Array<Double>,
        set_at -> Nullable<Double>,
        delay_days -> Nullable<SmallInt>,
        vent -> Nullable<Text>,
        et_class -> Nullable<SmallInt>,
        et_trim -> Nullable<SmallInt>,
        et_programs -> Nullable<Text>,
        reading_at -> Array<Timestamp>,
        reading_pct -> Array<Double>,
    }
}

diesel::table! {
    temporaries (account_id, controller_id, ordinal) {
        account_id -> Uuid,
        controller_id -> Uuid,
        ordinal -> SmallInt,
        kind -> Text,
        letter -> Nullable<Text>,
        percent -> Nullable<SmallInt>,
        sensor -> Nullable<SmallInt>,
        since -> Date,
        until -> Date,
        reason -> Text,
        by_name -> Text,
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

diesel::allow_tables_to_appear_in_same_query!(
    accounts,
    users,
    sessions,
    sign_in_failures,
    aggregates,
    changes,
    series_revisions,
    series,
    daily_weather,
    daily_et0,
    monthly_normals,
    places,
    controllers,
    programs,
    month_plans,
    stations,
    uploads,
    sensors,
    temporaries,
    field_records,
);
