-- name: LockSession :exec
SELECT 1 FROM training_session WHERE session_id = $1 FOR UPDATE;

-- name: SameIssue :one
SELECT EXISTS (SELECT 1 FROM issued_sheet WHERE issue_id = $1 AND client_id = $2 AND session_id = $3 AND session_version = $4);

-- name: AddIssue :execrows
INSERT INTO issued_sheet (issue_id, studio_id, client_id, session_id, number, session_version, planned_on, sheet, issued_by)
SELECT $1, current_studio(), $2, $3, coalesce(max(number), 0) + 1, $4, $5, $6, $7 FROM issued_sheet WHERE session_id = $3
ON CONFLICT (issue_id) DO NOTHING;

-- name: IssuesOfSession :many
SELECT i.issue_id, i.number, i.session_version, i.sheet, i.issued_at, account.name AS issued_by_name, v.name, v.planned_on, v.content
FROM issued_sheet i JOIN account ON account.account_id = i.issued_by
JOIN session_version v ON v.session_id = i.session_id AND v.version = i.session_version
WHERE i.client_id = $1 AND i.session_id = $2 ORDER BY i.number DESC;

-- name: LatestIssues :many
SELECT DISTINCT ON (i.session_id) i.session_id, i.number, i.session_version, i.planned_on, i.sheet, i.issued_at
FROM issued_sheet i JOIN training_session t ON t.session_id = i.session_id AND NOT t.removed
WHERE i.client_id = $1 AND i.planned_on BETWEEN sqlc.arg(first_day) AND sqlc.arg(last_day) ORDER BY i.session_id, i.number DESC;

-- name: AddLink :execrows
INSERT INTO sheet_link (link_id, studio_id, client_id, token_hash, expires_at, made_by, may_log) VALUES ($1, current_studio(), $2, $3, $4, $5, $6) ON CONFLICT DO NOTHING;

-- name: RenewLink :execrows
UPDATE sheet_link SET token_hash = $3 WHERE link_id = $1 AND client_id = $2 AND revoked_at IS NULL AND opened = 0
  AND expires_at BETWEEN sqlc.arg(expires)::timestamptz - interval '1 hour' AND sqlc.arg(expires)::timestamptz + interval '1 hour';

-- name: Links :many
SELECT link_id, expires_at, revoked_at, opened_at, opened, made_at, may_log FROM sheet_link WHERE client_id = $1 ORDER BY made_at DESC;

-- name: RevokeLink :execrows
UPDATE sheet_link SET revoked_at = now() WHERE link_id = $1 AND client_id = $2 AND revoked_at IS NULL;

-- name: LinkByToken :one
SELECT link_id, studio_id, client_id, expires_at, revoked_at, may_log FROM sheet_link WHERE token_hash = $1;

-- name: MarkOpened :exec
UPDATE sheet_link SET opened_at = sqlc.arg(at), opened = opened + 1 WHERE link_id = $1;

-- name: IssuedOn :many
SELECT s.client_id, s.session_id, s.name FROM training_session s
WHERE s.planned_on = $1 AND EXISTS (SELECT 1 FROM issued_sheet i WHERE i.session_id = s.session_id) ORDER BY s.client_id, s.session_id;
