-- name: AddTemplate :execrows
INSERT INTO plan_template (template_id, studio_id, name, monday, plan, made_by) VALUES ($1, current_studio(), $2, $3, $4, $5) ON CONFLICT (template_id) DO NOTHING;

-- name: Templates :many
SELECT template_id, name, monday, plan FROM plan_template ORDER BY name, template_id;

-- name: TemplateByID :one
SELECT template_id, name, monday, plan FROM plan_template WHERE template_id = $1;

-- name: DropTemplate :execrows
DELETE FROM plan_template WHERE template_id = $1;

-- name: SameTemplate :one
SELECT EXISTS (SELECT 1 FROM plan_template WHERE template_id = $1 AND name = $2 AND monday = $3 AND plan = sqlc.arg(plan)::jsonb);
