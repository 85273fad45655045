-- name: AddTrial :execrows
INSERT INTO pair_trial (trial_id, studio_id, client_id, content, started_on, started_by)
VALUES ($1, current_studio(), $2, $3, $4, $5) ON CONFLICT DO NOTHING;

-- name: SameTrial :one
SELECT EXISTS (SELECT 1 FROM pair_trial WHERE trial_id = $1 AND client_id = $2 AND content = sqlc.arg(content)::jsonb);

-- name: Trials :many
SELECT trial_id, content, started_on, stopped_on FROM pair_trial WHERE client_id = $1 ORDER BY started_on DESC, trial_id LIMIT 12;

-- name: StopTrial :execrows
UPDATE pair_trial SET stopped_on = coalesce(stopped_on, sqlc.arg(today)::date) WHERE trial_id = $1 AND client_id = $2;
