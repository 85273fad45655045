-- +goose Up
-- One set-up an arm for some weeks: which arm comes further. One runs at a time.
CREATE TABLE pair_trial (
    trial_id   uuid PRIMARY KEY,
    studio_id  uuid NOT NULL REFERENCES studio,
    client_id  uuid NOT NULL,
    content    jsonb NOT NULL,
    started_on date NOT NULL,
    stopped_on date,
    started_by uuid NOT NULL,
    FOREIGN KEY (studio_id, client_id) REFERENCES client (studio_id, client_id),
    FOREIGN KEY (studio_id, started_by) REFERENCES account (studio_id, account_id)
);
CREATE UNIQUE INDEX ON pair_trial (client_id) WHERE stopped_on IS NULL;
ALTER TABLE pair_trial ENABLE ROW LEVEL SECURITY;
ALTER TABLE pair_trial FORCE ROW LEVEL SECURITY;
CREATE POLICY own_studio ON pair_trial USING (studio_id = current_studio()) WITH CHECK (studio_id = current_studio());
CREATE TRIGGER reading_is_stale AFTER INSERT OR UPDATE ON pair_trial FOR EACH ROW EXECUTE FUNCTION reading_is_stale();
CREATE TRIGGER reading_is_stale AFTER INSERT ON pose_rating FOR EACH ROW EXECUTE FUNCTION reading_is_stale();

-- +goose Down
DROP TRIGGER reading_is_stale ON pose_rating;
DROP TABLE pair_trial;
