-- name: AddMeasuring :execrows
INSERT INTO measuring (measuring_id, studio_id, client_id, measured_on, content, made_by, made_at) VALUES ($1, current_studio(), $2, $3, $4, $5, $6)
ON CONFLICT DO NOTHING;

-- name: SaveMeasuring :execrows
UPDATE measuring SET measured_on = $4, content = $5, withdrawn = $6, made_by = $7, made_at = $8, version = version + 1
WHERE measuring_id = $1 AND client_id = $2 AND version = $3;

-- name: AddMeasuringVersion :exec
INSERT INTO measuring_version (measuring_id, version, studio_id, client_id, measured_on, content, withdrawn, made_by, made_at)
SELECT m.measuring_id, m.version, m.studio_id, m.client_id, m.measured_on, m.content, m.withdrawn, m.made_by, m.made_at FROM measuring m WHERE m.measuring_id = sqlc.arg(measuring_id);

-- name: MeasuringByID :one
SELECT m.measured_on, m.content, m.version, m.withdrawn, account.name AS made_by_name, m.made_at FROM measuring m JOIN account ON account.account_id = m.made_by
WHERE m.measuring_id = $1 AND m.client_id = $2;

-- name: Measurings :many
SELECT m.measuring_id, m.content, m.version, account.name AS made_by_name, m.made_at FROM measuring m JOIN account ON account.account_id = m.made_by
WHERE m.client_id = $1 AND NOT m.withdrawn ORDER BY m.measured_on, m.measuring_id;

-- name: MeasuringVersions :many
SELECT v.measuring_id, v.version, v.measured_on, v.content, v.withdrawn, account.name AS made_by_name, v.made_at FROM measuring_version v JOIN account ON account.account_id = v.made_by
WHERE v.client_id = $1 ORDER BY v.measured_on DESC, v.measuring_id, v.version DESC;

-- name: AddPhoto :execrows
INSERT INTO photo (photo_id, studio_id, client_id, taken_on, pose, width, height, made_by, digest) VALUES ($1, current_studio(), $2, $3, $4, $5, $6, $7, $8)
ON CONFLICT (photo_id) DO NOTHING;

-- name: Photos :many
SELECT photo_id, taken_on, pose, width, height FROM photo WHERE client_id = $1 ORDER BY taken_on DESC, photo_id;

-- name: PhotoByID :one
SELECT photo_id, taken_on, pose, width, height, digest FROM photo WHERE client_id = $1 AND photo_id = $2;

-- name: DropPhoto :execrows
DELETE FROM photo WHERE client_id = $1 AND photo_id = $2;

-- name: AddRating :execrows
INSERT INTO pose_rating (rating_id, studio_id, client_id, rated_on, content, rated_by) VALUES ($1, current_studio(), $2, $3, $4, $5)
ON CONFLICT (rating_id) DO NOTHING;

-- name: SameRating :one
SELECT EXISTS (SELECT 1 FROM pose_rating WHERE rating_id = $1 AND client_id = $2 AND content = sqlc.arg(content)::jsonb);

-- name: Ratings :many
SELECT content FROM pose_rating WHERE client_id = $1 ORDER BY rated_on DESC, rated_at DESC;

-- name: EmphasisOf :one
SELECT content, version FROM emphasis WHERE client_id = $1;

-- name: Emphases :many
SELECT client_id, content FROM emphasis;

-- name: AddEmphasis :execrows
INSERT INTO emphasis (client_id, studio_id, content, version, set_by) VALUES ($1, current_studio(), $2, 1, $3) ON CONFLICT DO NOTHING;

-- name: SaveEmphasis :execrows
UPDATE emphasis SET content = $3, set_by = $4, version = version + 1 WHERE client_id = $1 AND version = $2;

-- name: PutPresentAnswer :exec
INSERT INTO present_answer (client_id, words, studio_id, movement) VALUES ($1, $2, current_studio(), $3)
ON CONFLICT (client_id, words) DO UPDATE SET movement = excluded.movement;

-- name: PresentAnswers :many
SELECT words, movement FROM present_answer WHERE client_id = $1;

-- name: AddTryOut :execrows
INSERT INTO try_out (try_id, studio_id, client_id, tried_on, set_up, comfort, felt, outcome, note, made_by)
VALUES ($1, current_studio(), $2, $3, $4, $5, $6, $7, $8, $9) ON CONFLICT (try_id) DO NOTHING;

-- name: TryOuts :many
SELECT try_id, tried_on, set_up, comfort, felt, outcome, note FROM try_out WHERE client_id = $1 ORDER BY tried_on DESC, made_at DESC;

-- name: SameTryOut :one
SELECT EXISTS (SELECT 1 FROM try_out WHERE try_id = $1 AND client_id = $2 AND set_up = sqlc.arg(set_up)::jsonb AND comfort = $3 AND felt = $4 AND outcome = $5 AND note = $6);
