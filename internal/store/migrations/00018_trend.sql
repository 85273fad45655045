-- +goose Up
-- What was answered to a proposal: taken, put off, or taken back. Nothing is changed;
-- another answer takes one back.
CREATE TABLE decision (
    decision_id uuid PRIMARY KEY,
    studio_id   uuid NOT NULL REFERENCES studio,
    client_id   uuid NOT NULL,
    series      text NOT NULL, -- '' for the client as a whole
    answer      text NOT NULL CHECK (answer IN ('taken', 'not_now', 'undone')),
    of_decision uuid REFERENCES decision ON DELETE CASCADE, -- the one that is taken back
    content     jsonb NOT NULL,
    made_on     date NOT NULL,
    made_by     uuid NOT NULL,
    made_at     timestamptz NOT NULL DEFAULT now(),
    CHECK ((answer = 'undone') = (of_decision IS NOT NULL)),
    FOREIGN KEY (studio_id, client_id) REFERENCES client (studio_id, client_id),
    FOREIGN KEY (studio_id, made_by) REFERENCES account (studio_id, account_id)
);
CREATE INDEX ON decision (client_id, made_at);
CREATE UNIQUE INDEX ON decision (of_decision);
ALTER TABLE decision ENABLE ROW LEVEL SECURITY;
ALTER TABLE decision FORCE ROW LEVEL SECURITY;
CREATE POLICY own_studio ON decision USING (studio_id = current_studio()) WITH CHECK (studio_id = current_studio());

-- What a client's log says on a day, kept with the hash of what it came from. It is made
-- again when something it comes from was written, or the day is another one.
CREATE TABLE client_reading (
    client_id uuid PRIMARY KEY,
    studio_id uuid NOT NULL REFERENCES studio,
    read_for  date NOT NULL,
    stale     boolean NOT NULL,
    hash      text NOT NULL,
    content   jsonb NOT NULL,
    asks      jsonb NOT NULL, -- what is proposed, alone: for the day's first page
    FOREIGN KEY (studio_id, client_id) REFERENCES client (studio_id, client_id)
);
CREATE INDEX ON client_reading (studio_id);
ALTER TABLE client_reading ENABLE ROW LEVEL SECURITY;
ALTER TABLE client_reading FORCE ROW LEVEL SECURITY;
CREATE POLICY own_studio ON client_reading USING (studio_id = current_studio()) WITH CHECK (studio_id = current_studio());

-- A set-up that is remedy and irritant at once is led up to again, for one joint.
CREATE TABLE tolerance_plan (
    plan_id    uuid PRIMARY KEY,
    studio_id  uuid NOT NULL REFERENCES studio,
    client_id  uuid NOT NULL,
    series     text NOT NULL,
    joint      text NOT NULL,
    side       text NOT NULL CHECK (side IN ('left', 'right')),
    started_on date NOT NULL,
    started_by uuid NOT NULL,
    stopped_on date,
    FOREIGN KEY (studio_id, client_id) REFERENCES client (studio_id, client_id),
    FOREIGN KEY (studio_id, started_by) REFERENCES account (studio_id, account_id)
);
CREATE UNIQUE INDEX ON tolerance_plan (client_id, series) WHERE stopped_on IS NULL;
ALTER TABLE tolerance_plan ENABLE ROW LEVEL SECURITY;
ALTER TABLE tolerance_plan FORCE ROW LEVEL SECURITY;
CREATE POLICY own_studio ON tolerance_plan USING (studio_id = current_studio()) WITH CHECK (studio_id = current_studio());

-- What a client answered after a session, by her link, and what a coach said to it.
CREATE TABLE check_in (
    check_in_id uuid PRIMARY KEY,
    studio_id   uuid NOT NULL REFERENCES studio,
    client_id   uuid NOT NULL,
    session_id  uuid NOT NULL,
    content     jsonb NOT NULL,
    link_id     uuid NOT NULL,
    told_at     timestamptz NOT NULL,
    seen_by     uuid,
    seen_at     timestamptz,
    reply       text NOT NULL DEFAULT '',
    FOREIGN KEY (studio_id, client_id) REFERENCES client (studio_id, client_id),
    FOREIGN KEY (studio_id, seen_by) REFERENCES account (studio_id, account_id)
);
CREATE INDEX ON check_in (client_id, told_at);
ALTER TABLE check_in ENABLE ROW LEVEL SECURITY;
ALTER TABLE check_in FORCE ROW LEVEL SECURITY;
CREATE POLICY own_studio ON check_in USING (studio_id = current_studio()) WITH CHECK (studio_id = current_studio());

-- Whoever writes what a reading comes from, by whichever door, makes it stale.
-- +goose StatementBegin
CREATE FUNCTION reading_is_stale() RETURNS trigger LANGUAGE plpgsql SECURITY DEFINER SET search_path = public AS $$
BEGIN
    UPDATE client_reading SET stale = true WHERE client_id = NEW.client_id AND NOT stale;
    RETURN NEW;
END $$;
-- +goose StatementEnd
CREATE TRIGGER reading_is_stale AFTER INSERT ON set_entry FOR EACH ROW EXECUTE FUNCTION reading_is_stale();
CREATE TRIGGER reading_is_stale AFTER INSERT ON floor_event FOR EACH ROW EXECUTE FUNCTION reading_is_stale();
CREATE TRIGGER reading_is_stale AFTER INSERT OR UPDATE ON training_session FOR EACH ROW EXECUTE FUNCTION reading_is_stale();
CREATE TRIGGER reading_is_stale AFTER UPDATE ON client FOR EACH ROW EXECUTE FUNCTION reading_is_stale();
CREATE TRIGGER reading_is_stale AFTER INSERT ON joint_report FOR EACH ROW EXECUTE FUNCTION reading_is_stale();
CREATE TRIGGER reading_is_stale AFTER INSERT ON screening_round FOR EACH ROW EXECUTE FUNCTION reading_is_stale();
CREATE TRIGGER reading_is_stale AFTER INSERT OR UPDATE ON emphasis FOR EACH ROW EXECUTE FUNCTION reading_is_stale();
CREATE TRIGGER reading_is_stale AFTER INSERT OR UPDATE ON tolerance_plan FOR EACH ROW EXECUTE FUNCTION reading_is_stale();
CREATE TRIGGER reading_is_stale AFTER INSERT ON check_in FOR EACH ROW EXECUTE FUNCTION reading_is_stale();
CREATE TRIGGER reading_is_stale AFTER INSERT ON decision FOR EACH ROW EXECUTE FUNCTION reading_is_stale();

-- Why something was decided can be a matter of health: it goes with the other notes of it.
-- +goose StatementBegin
CREATE FUNCTION erase_decided_health() RETURNS trigger LANGUAGE plpgsql SECURITY DEFINER SET search_path = public AS $$
BEGIN
    IF NEW.what = 'erased health' THEN
        DELETE FROM check_in WHERE client_id = NEW.client_id AND studio_id = NEW.studio_id;
        DELETE FROM tolerance_plan WHERE client_id = NEW.client_id AND studio_id = NEW.studio_id;
        DELETE FROM client_reading WHERE client_id = NEW.client_id AND studio_id = NEW.studio_id;
        UPDATE decision SET content = content || '{"why": []}' WHERE client_id = NEW.client_id AND studio_id = NEW.studio_id;
    END IF;
    RETURN NEW;
END $$;
-- +goose StatementEnd
CREATE TRIGGER erase_decided_health AFTER INSERT ON studio_event FOR EACH ROW EXECUTE FUNCTION erase_decided_health();

-- +goose Down
DROP TRIGGER erase_decided_health ON studio_event;
DROP FUNCTION erase_decided_health();
DROP TABLE client_reading, decision, tolerance_plan, check_in;
DROP TRIGGER reading_is_stale ON set_entry;
DROP TRIGGER reading_is_stale ON floor_event;
DROP TRIGGER reading_is_stale ON training_session;
DROP TRIGGER reading_is_stale ON client;
DROP TRIGGER reading_is_stale ON joint_report;
DROP TRIGGER reading_is_stale ON screening_round;
DROP TRIGGER reading_is_stale ON emphasis;
DROP FUNCTION reading_is_stale();
