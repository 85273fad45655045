-- name: AddScreening :exec
INSERT INTO screening_round (round_id, studio_id, client_id, asked_on, answers, asked_by) VALUES ($1, current_studio(), $2, $3, $4, $5)
ON CONFLICT (round_id) DO NOTHING;

-- name: Screenings :many
SELECT round_id, asked_on, answers, account.name AS asked_by FROM screening_round s JOIN account ON account.account_id = s.asked_by
WHERE s.client_id = $1 ORDER BY asked_on DESC, asked_at DESC;

-- name: AddJointReport :exec
INSERT INTO joint_report (report_id, studio_id, client_id, reported_on, content, reported_by) VALUES ($1, current_studio(), $2, $3, $4, $5)
ON CONFLICT (report_id) DO NOTHING;

-- name: AddOverride :exec
INSERT INTO verdict_override (override_id, studio_id, client_id, movement, allowed, reason, made_by) VALUES ($1, current_studio(), $2, $3, $4, $5, $6)
ON CONFLICT (override_id) DO NOTHING;

-- name: Overrides :many
SELECT movement, allowed, reason, made_at, account.name AS made_by FROM verdict_override v JOIN account ON account.account_id = v.made_by
WHERE v.client_id = $1 ORDER BY made_at DESC;
