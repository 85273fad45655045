-- name: PutMeasuring :execrows
INSERT INTO measuring (measuring_id, studio_id, client_id, measured_on, content, made_by) VALUES ($1, current_studio(), $2, $3, $4, $5)
ON CONFLICT (measuring_id) DO UPDATE SET measured_on = excluded.measured_on, content = excluded.content, withdrawn = false
WHERE measuring.client_id = excluded.client_id;

-- name: WithdrawMeasuring :execrows
UPDATE measuring SET withdrawn = true WHERE measuring_id = $1 AND client_id = $2;

-- name: Measurings :many
SELECT measuring_id, content FROM measuring WHERE client_id = $1 AND NOT withdrawn ORDER BY measured_on, measuring_id;

-- name: AddPhoto :exec
INSERT INTO photo (photo_id, studio_id, client_id, taken_on, pose, width, height, made_by) VALUES ($1, current_studio(), $2, $3, $4, $5, $6, $7)
ON CONFLICT (photo_id) DO NOTHING;

-- name: Photos :many
SELECT photo_id, taken_on, pose, width, height FROM photo WHERE client_id = $1 ORDER BY taken_on DESC, photo_id;

-- name: PhotoByID :one
SELECT photo_id, taken_on, pose, width, height FROM photo WHERE client_id = $1 AND photo_id = $2;

-- name: DropPhoto :execrows
DELETE FROM photo WHERE client_id = $1 AND photo_id = $2;

-- name: AddRating :exec
INSERT INTO pose_rating (rating_id, studio_id, client_id, rated_on, content, rated_by) VALUES ($1, current_studio(), $2, $3, $4, $5)
ON CONFLICT (rating_id) DO NOTHING;

-- name: Ratings :many
SELECT content FROM pose_rating WHERE client_id = $1 ORDER BY rated_on DESC, rated_at DESC;

-- name: EmphasisOf :one
SELECT content, version FROM emphasis WHERE client_id = $1;

-- name: AddEmphasis :execrows
INSERT INTO emphasis (client_id, studio_id, content, version, set_by) VALUES ($1, current_studio(), $2, 1, $3) ON CONFLICT DO NOTHING;

-- name: SaveEmphasis :execrows
UPDATE emphasis SET content = $3, set_by = $4, version = version + 1 WHERE client_id = $1 AND version = $2;

-- name: PutPresentAnswer :exec
INSERT INTO present_answer (client_id, words, studio_id, movement) VALUES ($1, $2, current_studio(), $3)
ON CONFLICT (client_id, words) DO UPDATE SET movement = excluded.movement;

-- name: PresentAnswers :many
SELECT words, movement FROM present_answer WHERE client_id = $1;

-- name: AddTryOut :exec
INSERT INTO try_out (try_id, studio_id, client_id, tried_on, set_up, comfort, felt, outcome, note, made_by)
VALUES ($1, current_studio(), $2, $3, $4, $5, $6, $7, $8, $9) ON CONFLICT (try_id) DO NOTHING;

-- name: TryOuts :many
SELECT try_id, tried_on, set_up, comfort, felt, outcome, note FROM try_out WHERE client_id = $1 ORDER BY tried_on DESC, made_at DESC;
