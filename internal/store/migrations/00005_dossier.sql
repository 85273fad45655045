-- +goose Up
-- Who a client is, as one document whose fields are edited one by one.
ALTER TABLE client ADD COLUMN dossier jsonb;
ALTER TABLE client ADD COLUMN deleted_at timestamptz;
ALTER TABLE client ADD COLUMN deleted_by uuid;
-- The owner of the schema is held to the studio too; for once it sees all rows.
ALTER TABLE client NO FORCE ROW LEVEL SECURITY;
UPDATE client SET dossier = jsonb_build_object(
    'name', name, 'about', about, 'contact', '', 'born_year', 0, 'units', 'metric', 'stature_m', stature_m, 'mass_kg', body_mass_kg, 'sex', '',
    'breadth_m', 0, 'upper_arm_m', 0, 'forearm_m', 0, 'training_since', NULL, 'comeback_on', NULL, 'weekdays', '[]'::jsonb, 'minutes', minutes,
    'elsewhere', '[]'::jsonb, 'wishes', CASE WHEN wish = '' THEN '[]'::jsonb ELSE jsonb_build_array(jsonb_build_object('text', wish, 'heads', '[]'::jsonb)) END,
    'mode', 'size', 'ready_on', NULL, 'notes', '', 'hide_weights', false, 'health_consent', NULL, 'guardian_on', NULL, 'rooms', jsonb_build_array(room_id),
    'mobility', '{"one_weight": "", "two_weights": "", "dip_level": "", "clean_dips": 0}'::jsonb, 'present', '');
ALTER TABLE client FORCE ROW LEVEL SECURITY;
ALTER TABLE client ALTER COLUMN dossier SET NOT NULL;
-- Screening was a date and caps without their answers: it is asked anew.
ALTER TABLE client DROP COLUMN room_id, DROP COLUMN name, DROP COLUMN about, DROP COLUMN wish, DROP COLUMN minutes, DROP COLUMN stature_m,
    DROP COLUMN body_mass_kg, DROP COLUMN caps, DROP COLUMN screened_on;
ALTER TABLE client ADD COLUMN name text GENERATED ALWAYS AS (dossier ->> 'name') STORED CHECK (name <> '');

-- Every change of a dossier, append-only.
CREATE TABLE dossier_change (
    change_id  bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    studio_id  uuid NOT NULL REFERENCES studio,
    client_id  uuid NOT NULL,
    field      text NOT NULL,
    was        jsonb NOT NULL,
    value      jsonb NOT NULL,
    changed_by uuid NOT NULL,
    changed_at timestamptz NOT NULL DEFAULT now(),
    FOREIGN KEY (studio_id, client_id) REFERENCES client (studio_id, client_id),
    FOREIGN KEY (studio_id, changed_by) REFERENCES account (studio_id, account_id)
);
CREATE INDEX ON dossier_change (client_id, field);

CREATE TABLE screening_round (
    round_id  uuid PRIMARY KEY,
    studio_id uuid NOT NULL REFERENCES studio,
    client_id uuid NOT NULL,
    asked_on  date NOT NULL,
    answers   jsonb NOT NULL,
    asked_by  uuid NOT NULL,
    asked_at  timestamptz NOT NULL DEFAULT now(),
    FOREIGN KEY (studio_id, client_id) REFERENCES client (studio_id, client_id),
    FOREIGN KEY (studio_id, asked_by) REFERENCES account (studio_id, account_id)
);
CREATE INDEX ON screening_round (client_id, asked_on, asked_at);

CREATE TABLE joint_report (
    report_id   uuid PRIMARY KEY,
    studio_id   uuid NOT NULL REFERENCES studio,
    client_id   uuid NOT NULL,
    reported_on date NOT NULL,
    content     jsonb NOT NULL,
    reported_by uuid NOT NULL,
    reported_at timestamptz NOT NULL DEFAULT now(),
    FOREIGN KEY (studio_id, client_id) REFERENCES client (studio_id, client_id),
    FOREIGN KEY (studio_id, reported_by) REFERENCES account (studio_id, account_id)
);
CREATE INDEX ON joint_report (client_id, reported_on);

-- A verdict the coach overrode, with her reason; the latest of a movement counts.
CREATE TABLE verdict_override (
    override_id uuid PRIMARY KEY,
    studio_id   uuid NOT NULL REFERENCES studio,
    client_id   uuid NOT NULL,
    movement    text NOT NULL,
    allowed     boolean NOT NULL,
    reason      text NOT NULL,
    made_by     uuid NOT NULL,
    made_at     timestamptz NOT NULL DEFAULT now(),
    FOREIGN KEY (studio_id, client_id) REFERENCES client (studio_id, client_id),
    FOREIGN KEY (studio_id, made_by) REFERENCES account (studio_id, account_id)
);
CREATE INDEX ON verdict_override (client_id, movement, made_at);

CREATE TABLE measuring (
    measuring_id uuid PRIMARY KEY,
    studio_id    uuid NOT NULL REFERENCES studio,
    client_id    uuid NOT NULL,
    measured_on  date NOT NULL,
    content      jsonb NOT NULL,
    withdrawn    boolean NOT NULL DEFAULT false,
    made_by      uuid NOT NULL,
    FOREIGN KEY (studio_id, client_id) REFERENCES client (studio_id, client_id),
    FOREIGN KEY (studio_id, made_by) REFERENCES account (studio_id, account_id)
);
CREATE INDEX ON measuring (client_id, measured_on);

-- The pictures themselves are files; see internal/photos.
CREATE TABLE photo (
    photo_id  uuid PRIMARY KEY,
    studio_id uuid NOT NULL REFERENCES studio,
    client_id uuid NOT NULL,
    taken_on  date NOT NULL,
    pose      text NOT NULL,
    width     int NOT NULL,
    height    int NOT NULL,
    made_by   uuid NOT NULL,
    FOREIGN KEY (studio_id, client_id) REFERENCES client (studio_id, client_id),
    FOREIGN KEY (studio_id, made_by) REFERENCES account (studio_id, account_id)
);
CREATE INDEX ON photo (client_id, taken_on);

CREATE TABLE pose_rating (
    rating_id uuid PRIMARY KEY,
    studio_id uuid NOT NULL REFERENCES studio,
    client_id uuid NOT NULL,
    rated_on  date NOT NULL,
    content   jsonb NOT NULL,
    rated_by  uuid NOT NULL,
    rated_at  timestamptz NOT NULL DEFAULT now(),
    FOREIGN KEY (studio_id, client_id) REFERENCES client (studio_id, client_id),
    FOREIGN KEY (studio_id, rated_by) REFERENCES account (studio_id, account_id)
);
CREATE INDEX ON pose_rating (client_id, rated_on);

CREATE TABLE emphasis (
    client_id uuid PRIMARY KEY,
    studio_id uuid NOT NULL REFERENCES studio,
    content   jsonb NOT NULL,
    version   int NOT NULL,
    set_by    uuid NOT NULL,
    FOREIGN KEY (studio_id, client_id) REFERENCES client (studio_id, client_id),
    FOREIGN KEY (studio_id, set_by) REFERENCES account (studio_id, account_id)
);

-- Which movement a line of the present list is, by the line's words.
CREATE TABLE present_answer (
    client_id uuid NOT NULL,
    words     text NOT NULL,
    studio_id uuid NOT NULL REFERENCES studio,
    movement  text NOT NULL,
    PRIMARY KEY (client_id, words),
    FOREIGN KEY (studio_id, client_id) REFERENCES client (studio_id, client_id)
);

CREATE TABLE try_out (
    try_id   uuid PRIMARY KEY,
    studio_id uuid NOT NULL REFERENCES studio,
    client_id uuid NOT NULL,
    tried_on  date NOT NULL,
    set_up    jsonb NOT NULL,
    comfort   int NOT NULL CHECK (comfort BETWEEN 0 AND 10),
    felt      text NOT NULL,
    outcome   text NOT NULL CHECK (outcome IN ('kept', 'dropped', 'open')),
    note      text NOT NULL,
    made_by   uuid NOT NULL,
    made_at   timestamptz NOT NULL DEFAULT now(),
    FOREIGN KEY (studio_id, client_id) REFERENCES client (studio_id, client_id),
    FOREIGN KEY (studio_id, made_by) REFERENCES account (studio_id, account_id)
);
CREATE INDEX ON try_out (client_id);

-- What was done with whole clients: exported, deleted, restored, erased. It
-- outlives them and names nobody but who did it.
CREATE TABLE studio_event (
    event_id    bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    studio_id   uuid NOT NULL REFERENCES studio,
    client_id   uuid NOT NULL,
    what        text NOT NULL,
    by_account  uuid,
    happened_at timestamptz NOT NULL DEFAULT now()
);

-- +goose StatementBegin
DO $$
DECLARE t text;
BEGIN
    FOREACH t IN ARRAY ARRAY['dossier_change', 'screening_round', 'joint_report', 'verdict_override', 'measuring', 'photo', 'pose_rating', 'emphasis', 'present_answer', 'try_out', 'studio_event'] LOOP
        EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', t);
        EXECUTE format('ALTER TABLE %I FORCE ROW LEVEL SECURITY', t);
        EXECUTE format('CREATE POLICY own_studio ON %I USING (studio_id = current_studio()) WITH CHECK (studio_id = current_studio())', t);
    END LOOP;
END $$;
-- +goose StatementEnd

-- A client with everything her verdicts and caps come from, in one round trip.
-- The invoker's row-level security holds.
CREATE VIEW client_whole WITH (security_invoker = true) AS
SELECT c.client_id, c.studio_id, c.dossier, c.stance, c.deleted_at, c.name,
    coalesce((SELECT jsonb_build_object('on', s.asked_on, 'answers', s.answers) FROM screening_round s WHERE s.client_id = c.client_id ORDER BY s.asked_on DESC, s.asked_at DESC LIMIT 1), 'null'::jsonb)::jsonb AS screening,
    coalesce((SELECT jsonb_agg(j.content ORDER BY j.reported_on, j.reported_at) FROM joint_report j WHERE j.client_id = c.client_id), '[]'::jsonb)::jsonb AS joints,
    coalesce((SELECT jsonb_object_agg(r.room_id, r.equipment) FROM room r WHERE c.dossier -> 'rooms' ? r.room_id::text), '{}'::jsonb)::jsonb AS rooms,
    coalesce((SELECT jsonb_object_agg(o.movement, o.reason) FROM (
        SELECT DISTINCT ON (v.movement) v.movement, v.reason, v.allowed FROM verdict_override v WHERE v.client_id = c.client_id ORDER BY v.movement, v.made_at DESC) o WHERE o.allowed), '{}'::jsonb)::jsonb AS overrides
FROM client c;

-- Erasing a client for good, a month after her deletion: the app's role may not
-- take anything out of the append-only tables, this function may. It is held to
-- the studio like everything else.
-- +goose StatementBegin
CREATE FUNCTION erase_client(erased uuid, deleted_before timestamptz) RETURNS boolean LANGUAGE plpgsql SECURITY DEFINER SET search_path = public AS $$
BEGIN
    PERFORM 1 FROM client WHERE client_id = erased AND deleted_at < deleted_before FOR UPDATE;
    IF NOT FOUND THEN
        RETURN false;
    END IF;
    DELETE FROM set_entry WHERE client_id = erased AND replaces IS NOT NULL;
    DELETE FROM set_entry WHERE client_id = erased;
    DELETE FROM session_version WHERE session_id IN (SELECT session_id FROM training_session WHERE client_id = erased);
    DELETE FROM training_session WHERE client_id = erased;
    DELETE FROM dossier_change WHERE client_id = erased;
    DELETE FROM screening_round WHERE client_id = erased;
    DELETE FROM joint_report WHERE client_id = erased;
    DELETE FROM verdict_override WHERE client_id = erased;
    DELETE FROM measuring WHERE client_id = erased;
    DELETE FROM photo WHERE client_id = erased;
    DELETE FROM pose_rating WHERE client_id = erased;
    DELETE FROM emphasis WHERE client_id = erased;
    DELETE FROM present_answer WHERE client_id = erased;
    DELETE FROM try_out WHERE client_id = erased;
    DELETE FROM client WHERE client_id = erased;
    INSERT INTO studio_event (studio_id, client_id, what) VALUES (current_studio(), erased, 'erased');
    RETURN true;
END $$;
-- +goose StatementEnd

-- The daily round that erases what is due goes from studio to studio.
CREATE POLICY making_the_round ON studio FOR SELECT USING (current_setting('musculus.round', true) = 'on');

-- +goose Down
SELECT 1 / 0; -- what a dossier holds has no place in the old columns
