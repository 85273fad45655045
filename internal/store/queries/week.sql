-- name: SessionsBetween :many
SELECT * FROM training_session WHERE client_id = $1 AND planned_on BETWEEN sqlc.arg(first_day) AND sqlc.arg(last_day) AND NOT removed ORDER BY planned_on, session_id;

-- name: SeriesSince :many
SELECT series, min(done_at)::timestamptz AS first_at, max(done_at)::timestamptz AS last_at FROM standing_set
WHERE client_id = $1 AND done_at > sqlc.arg(after) GROUP BY series;

-- name: AcceptFinding :execrows
INSERT INTO accepted_finding (accepted_id, studio_id, client_id, finding, accepted, reason, made_by) VALUES ($1, current_studio(), $2, $3, $4, $5, $6)
ON CONFLICT (accepted_id) DO NOTHING;

-- name: AcceptedFindings :many
SELECT finding, reason, account.name AS by_name, made_at FROM (
    SELECT DISTINCT ON (f.finding) f.finding, f.reason, f.accepted, f.made_by, f.made_at FROM accepted_finding f WHERE f.client_id = $1 ORDER BY f.finding, f.made_at DESC
) latest JOIN account ON account.account_id = latest.made_by WHERE latest.accepted;

-- name: SameAcceptance :one
SELECT EXISTS (SELECT 1 FROM accepted_finding WHERE accepted_id = $1 AND client_id = $2 AND finding = $3 AND accepted = $4 AND reason = $5);

-- name: PlannedIn :many
SELECT DISTINCT client_id FROM training_session WHERE planned_on BETWEEN sqlc.arg(first_day) AND sqlc.arg(last_day) AND NOT removed;
