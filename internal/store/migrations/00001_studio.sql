-- +goose Up
-- Every row belongs to a studio and row-level security is forced: without
-- musculus.studio set in the transaction nothing is seen and nothing written.

-- +goose StatementBegin
CREATE FUNCTION current_studio() RETURNS uuid LANGUAGE sql STABLE AS
$$ SELECT nullif(current_setting('musculus.studio', true), '')::uuid $$;
-- +goose StatementEnd

CREATE TABLE studio (
    studio_id uuid PRIMARY KEY,
    name      text NOT NULL CHECK (name <> '')
);

CREATE TABLE account (
    account_id    uuid PRIMARY KEY,
    studio_id     uuid NOT NULL REFERENCES studio,
    email         text NOT NULL CHECK (email = lower(email)),
    name          text NOT NULL CHECK (name <> ''),
    role          text NOT NULL CHECK (role IN ('owner', 'coach', 'assistant')),
    password_hash text NOT NULL,
    UNIQUE (email),
    UNIQUE (studio_id, account_id)
);

CREATE TABLE room (
    room_id   uuid PRIMARY KEY,
    studio_id uuid NOT NULL REFERENCES studio,
    equipment jsonb NOT NULL,
    UNIQUE (studio_id, room_id)
);

CREATE TABLE client (
    client_id    uuid PRIMARY KEY,
    studio_id    uuid NOT NULL REFERENCES studio,
    room_id      uuid NOT NULL,
    name         text NOT NULL CHECK (name <> ''),
    about        text NOT NULL,
    wish         text NOT NULL,
    minutes      int NOT NULL CHECK (minutes > 0),
    stature_m    double precision NOT NULL,
    body_mass_kg double precision NOT NULL,
    caps         text[] NOT NULL,
    screened_on  date,
    FOREIGN KEY (studio_id, room_id) REFERENCES room (studio_id, room_id),
    UNIQUE (studio_id, client_id)
);

CREATE TABLE training_session (
    session_id  uuid PRIMARY KEY,
    studio_id   uuid NOT NULL REFERENCES studio,
    client_id   uuid NOT NULL,
    name        text NOT NULL CHECK (name <> ''),
    planned_on  date NOT NULL,
    content     jsonb NOT NULL,
    version     int NOT NULL,
    saved_at    timestamptz NOT NULL DEFAULT now(),
    saved_by    uuid NOT NULL,
    FOREIGN KEY (studio_id, client_id) REFERENCES client (studio_id, client_id),
    FOREIGN KEY (studio_id, saved_by) REFERENCES account (studio_id, account_id),
    UNIQUE (studio_id, session_id)
);
CREATE INDEX ON training_session (client_id, planned_on);

-- What every save wrote, append-only. write_id makes a save that is sent twice
-- count once.
CREATE TABLE session_version (
    session_id uuid NOT NULL,
    version    int NOT NULL,
    studio_id  uuid NOT NULL REFERENCES studio,
    write_id   uuid NOT NULL UNIQUE,
    name       text NOT NULL,
    planned_on date NOT NULL,
    content    jsonb NOT NULL,
    saved_at   timestamptz NOT NULL DEFAULT now(),
    saved_by   uuid NOT NULL,
    PRIMARY KEY (session_id, version),
    FOREIGN KEY (studio_id, session_id) REFERENCES training_session (studio_id, session_id)
);

-- Logged sets, append-only: a correction replaces an earlier entry.
CREATE TABLE set_entry (
    entry_id   uuid PRIMARY KEY,
    studio_id  uuid NOT NULL REFERENCES studio,
    client_id  uuid NOT NULL,
    session_id uuid NOT NULL,
    slot_id    uuid NOT NULL,
    series     text NOT NULL,
    set_up     jsonb NOT NULL,
    side       text NOT NULL CHECK (side IN ('both', 'left', 'right')),
    set_no     int NOT NULL CHECK (set_no BETWEEN 1 AND 30),
    reps       int NOT NULL CHECK (reps BETWEEN 0 AND 100),
    load_kg    double precision NOT NULL CHECK (load_kg >= 0),
    reserve    int NOT NULL CHECK (reserve BETWEEN 0 AND 10),
    note       text NOT NULL,
    done_at    timestamptz NOT NULL,
    logged_by  uuid NOT NULL,
    replaces   uuid UNIQUE,
    withdrawn  boolean NOT NULL DEFAULT false,
    FOREIGN KEY (studio_id, session_id) REFERENCES training_session (studio_id, session_id),
    FOREIGN KEY (studio_id, client_id) REFERENCES client (studio_id, client_id),
    FOREIGN KEY (studio_id, logged_by) REFERENCES account (studio_id, account_id),
    UNIQUE (studio_id, session_id, entry_id),
    FOREIGN KEY (studio_id, session_id, replaces) REFERENCES set_entry (studio_id, session_id, entry_id)
);
CREATE INDEX ON set_entry (session_id);
CREATE INDEX ON set_entry (client_id, series, done_at);

-- Sign-in sessions: they are looked up before the studio is known and hold
-- nothing of a studio but ids.
CREATE TABLE sessions (
    token  text PRIMARY KEY,
    data   bytea NOT NULL,
    expiry timestamptz NOT NULL
);
CREATE INDEX ON sessions (expiry);

-- +goose StatementBegin
DO $$
DECLARE t text;
BEGIN
    FOREACH t IN ARRAY ARRAY['studio', 'account', 'room', 'client', 'training_session', 'session_version', 'set_entry'] LOOP
        EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', t);
        EXECUTE format('ALTER TABLE %I FORCE ROW LEVEL SECURITY', t);
        EXECUTE format('CREATE POLICY own_studio ON %I USING (studio_id = current_studio()) WITH CHECK (studio_id = current_studio())', t);
    END LOOP;
END $$;
-- +goose StatementEnd

-- Signing in finds one account by its address, before the studio is known.
CREATE POLICY signing_in ON account FOR SELECT
    USING (email = nullif(current_setting('musculus.signing_in', true), ''));

-- +goose Down
DROP TABLE sessions, set_entry, session_version, training_session, client, room, account, studio;
DROP FUNCTION current_studio;
