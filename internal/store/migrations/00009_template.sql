-- +goose Up
-- A week kept for other clients, dated from the Monday it was made of.
CREATE TABLE plan_template (
    template_id uuid PRIMARY KEY,
    studio_id   uuid NOT NULL REFERENCES studio,
    name        text NOT NULL CHECK (name <> ''),
    monday      date NOT NULL,
    plan        jsonb NOT NULL,
    made_by     uuid NOT NULL,
    FOREIGN KEY (studio_id, made_by) REFERENCES account (studio_id, account_id)
);
ALTER TABLE plan_template ENABLE ROW LEVEL SECURITY;
ALTER TABLE plan_template FORCE ROW LEVEL SECURITY;
CREATE POLICY own_studio ON plan_template USING (studio_id = current_studio()) WITH CHECK (studio_id = current_studio());

-- +goose Down
DROP TABLE plan_template;
