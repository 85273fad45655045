-- name: AddDecision :execrows
INSERT INTO decision (decision_id, studio_id, client_id, series, answer, of_decision, content, made_on, made_by)
VALUES ($1, current_studio(), $2, $3, $4, $5, $6, $7, $8)
ON CONFLICT (decision_id) DO NOTHING;

-- name: SameDecision :one
SELECT EXISTS (SELECT 1 FROM decision WHERE decision_id = $1 AND client_id = $2 AND series = $3 AND answer = $4
    AND of_decision IS NOT DISTINCT FROM sqlc.narg(of_decision)::uuid AND content ->> 'kind' = sqlc.arg(kind)::text);

-- name: Decisions :many
SELECT decision_id, series, answer, of_decision, content, made_on, made_by FROM decision WHERE client_id = $1 ORDER BY made_at, decision_id;

-- name: ClientReading :one
SELECT read_for, stale, hash, content FROM client_reading WHERE client_id = $1;

-- name: DuesOfClients :many
SELECT c.client_id,
    coalesce((SELECT max(m.measured_on) FROM measuring m WHERE m.client_id = c.client_id AND NOT m.withdrawn), '1970-01-01')::date AS measured_on,
    coalesce((SELECT max(p.rated_on) FROM pose_rating p WHERE p.client_id = c.client_id), '1970-01-01')::date AS rated_on,
    coalesce((SELECT e.content ->> 'until' FROM emphasis e WHERE e.client_id = c.client_id), '')::text AS until,
    coalesce((SELECT max(b.ends_on) FROM block b WHERE b.client_id = c.client_id AND NOT b.ended), '1970-01-01')::date AS block_end,
    coalesce(r.asks, '[]')::jsonb AS asks,
    coalesce((SELECT k.content FROM check_in k WHERE k.client_id = c.client_id AND k.seen_at IS NULL ORDER BY k.told_at LIMIT 1), 'null')::jsonb AS told,
    coalesce((SELECT min(k.told_at) FROM check_in k WHERE k.client_id = c.client_id AND k.seen_at IS NULL), 'epoch')::timestamptz AS told_at,
    coalesce(l.opened_at, 'epoch')::timestamptz AS opened_at, coalesce(l.links, 0)::int AS links
FROM client c LEFT JOIN client_reading r ON r.client_id = c.client_id
LEFT JOIN LATERAL (
    SELECT max(k.opened_at)::timestamptz AS opened_at, count(*) AS links FROM sheet_link k
    WHERE k.client_id = c.client_id AND k.revoked_at IS NULL AND k.expires_at > sqlc.arg(now)
) l ON true
WHERE c.deleted_at IS NULL ORDER BY c.client_id;

-- name: SessionsAround :many
SELECT s.session_id, s.client_id, s.name, s.planned_on,
    (SELECT count(*) FROM standing_set e WHERE e.session_id = s.session_id AND e.twice_of IS NULL)::int AS sets,
    EXISTS (SELECT 1 FROM block_session b WHERE b.session_id = s.session_id AND b.missed = '') AS of_block,
    coalesce((SELECT max(i.issued_at) FROM issued_sheet i WHERE i.session_id = s.session_id), 'epoch')::timestamptz AS issued_at
FROM training_session s JOIN client c ON c.client_id = s.client_id AND c.deleted_at IS NULL
WHERE s.planned_on BETWEEN sqlc.arg(since) AND sqlc.arg(until) AND NOT s.removed ORDER BY s.planned_on, s.session_id;

-- name: ClaimReading :exec
INSERT INTO client_reading (client_id, studio_id, read_for, stale, hash, content, asks) VALUES ($1, current_studio(), '0001-01-01', false, '', '{}', '[]')
ON CONFLICT (client_id) DO UPDATE SET stale = false, read_for = '0001-01-01';

-- name: KeepReading :exec
UPDATE client_reading SET read_for = $2, hash = $3, content = $4, asks = $5 WHERE client_id = $1;

-- name: ToRead :many
SELECT c.client_id FROM client c LEFT JOIN client_reading r ON r.client_id = c.client_id
WHERE c.deleted_at IS NULL AND (r.client_id IS NULL OR r.stale OR r.read_for <> sqlc.arg(today)) ORDER BY c.client_id;

-- name: EventsOfClient :many
SELECT f.event_id, f.session_id, f.kind, f.content, f.happened_at, f.told_by, f.link_id, ''::text AS by_name
FROM floor_event f WHERE f.client_id = $1 AND f.happened_at > sqlc.arg(after) ORDER BY f.session_id, f.happened_at, f.told_at;

-- name: AddTolerance :execrows
INSERT INTO tolerance_plan (plan_id, studio_id, client_id, series, joint, side, started_on, started_by)
VALUES ($1, current_studio(), $2, $3, $4, $5, $6, $7) ON CONFLICT DO NOTHING;

-- name: SameTolerance :one
SELECT EXISTS (SELECT 1 FROM tolerance_plan WHERE plan_id = $1 AND client_id = $2 AND series = $3 AND joint = $4 AND side = $5);

-- name: Tolerances :many
SELECT plan_id, series, joint, side, started_on FROM tolerance_plan WHERE client_id = $1 AND stopped_on IS NULL ORDER BY started_on, plan_id;

-- name: StopTolerance :execrows
UPDATE tolerance_plan SET stopped_on = coalesce(stopped_on, sqlc.arg(today)::date) WHERE plan_id = $1 AND client_id = $2;

-- name: AddCheckIn :execrows
INSERT INTO check_in (check_in_id, studio_id, client_id, session_id, content, link_id, told_at)
VALUES ($1, current_studio(), $2, $3, $4, $5, $6) ON CONFLICT DO NOTHING;

-- name: SameCheckIn :one
SELECT EXISTS (SELECT 1 FROM check_in WHERE check_in_id = $1 AND client_id = $2 AND session_id = $3 AND content = sqlc.arg(content)::jsonb);

-- name: CheckIns :many
SELECT k.check_in_id, k.session_id, k.content, k.told_at, k.seen_at, k.reply, coalesce(a.name, '')::text AS seen_by_name
FROM check_in k LEFT JOIN account a ON a.account_id = k.seen_by
WHERE k.client_id = $1 ORDER BY k.told_at DESC LIMIT 60;

-- name: SeeCheckIn :execrows
UPDATE check_in SET seen_by = $3, seen_at = coalesce(seen_at, sqlc.arg(at)), reply = CASE WHEN sqlc.arg(reply)::text = '' THEN reply ELSE sqlc.arg(reply)::text END
WHERE check_in_id = $1 AND client_id = $2;
