-- name: AddScreening :execrows
INSERT INTO screening_round (round_id, studio_id, client_id, asked_on, answers, asked_by, asked_at) VALUES ($1, current_studio(), $2, $3, $4, $5, $6)
ON CONFLICT (round_id) DO NOTHING;

-- name: Screenings :many
SELECT round_id, asked_on, answers, asked_at, coalesce(account.name, 'the client, by her link')::text AS asked_by FROM screening_round s LEFT JOIN account ON account.account_id = s.asked_by
WHERE s.client_id = $1 ORDER BY asked_on DESC, asked_at DESC;

-- name: AddJointReport :execrows
INSERT INTO joint_report (report_id, studio_id, client_id, reported_on, content, reported_by, reported_at) VALUES ($1, current_studio(), $2, $3, $4, $5, $6)
ON CONFLICT (report_id) DO NOTHING;

-- name: AddOverride :execrows
INSERT INTO verdict_override (override_id, studio_id, client_id, movement, allowed, reason, made_by) VALUES ($1, current_studio(), $2, $3, $4, $5, $6)
ON CONFLICT (override_id) DO NOTHING;

-- name: Overrides :many
SELECT movement, allowed, reason, made_at, account.name AS made_by FROM verdict_override v JOIN account ON account.account_id = v.made_by
WHERE v.client_id = $1 ORDER BY made_at DESC;

-- name: SameScreening :one
SELECT EXISTS (SELECT 1 FROM screening_round WHERE round_id = $1 AND client_id = $2 AND asked_on = $3 AND answers = sqlc.arg(answers)::jsonb);

-- name: SameJointReport :one
SELECT EXISTS (SELECT 1 FROM joint_report WHERE report_id = $1 AND client_id = $2 AND content = sqlc.arg(content)::jsonb);

-- name: JointReports :many
SELECT content, reported_at FROM joint_report WHERE client_id = $1 ORDER BY reported_at;

-- name: SameOverride :one
SELECT EXISTS (SELECT 1 FROM verdict_override WHERE override_id = $1 AND client_id = $2 AND movement = $3 AND allowed = $4 AND reason = $5);
