-- name: AddStance :execrows
INSERT INTO studio_stance (stance_id, studio_id, name, copied, rules, made_by)
VALUES ($1, current_studio(), $2, $3, $4, $5)
ON CONFLICT (stance_id) DO NOTHING;

-- name: SwitchStance :execrows
UPDATE studio_stance SET rules = $3, version = version + 1 WHERE stance_id = $1 AND version = $2;

-- name: Stances :many
SELECT * FROM studio_stance ORDER BY name, stance_id;

-- name: StanceByID :one
SELECT * FROM studio_stance WHERE stance_id = $1;

-- name: PutRuleNote :exec
INSERT INTO rule_note (studio_id, rule, note, noted_by) VALUES (current_studio(), $1, $2, $3)
ON CONFLICT (studio_id, rule) DO UPDATE SET note = excluded.note, noted_by = excluded.noted_by, noted_at = now();

-- name: RuleNotes :many
SELECT rule, note FROM rule_note WHERE note <> '';

-- name: SameStance :one
SELECT EXISTS (SELECT 1 FROM studio_stance WHERE stance_id = $1 AND name = $2 AND copied = $3);
