package store

import (
	"context"
	"encoding/json"
)

// recordsOf are the tables that hold something about a client, with how her rows
// are found; what could open a link is left out. A test holds the list against the
// database.
var recordsOf = []struct{ table, where, but string }{
	{"accepted_finding", "client_id = $1", ""},
	{"block", "client_id = $1", ""},
	{"block_session", "client_id = $1", ""},
	{"check_in", "client_id = $1", ""},
	{"client", "client_id = $1", ""},
	{"client_reading", "client_id = $1", ""},
	{"decision", "client_id = $1", ""},
	{"dossier_change", "client_id = $1", ""},
	{"emphasis", "client_id = $1", ""},
	{"floor_event", "client_id = $1", ""},
	{"issued_sheet", "client_id = $1", ""},
	{"joint_report", "client_id = $1", ""},
	{"measuring", "client_id = $1", ""},
	{"measuring_version", "client_id = $1", ""},
	{"pair_trial", "client_id = $1", ""},
	{"photo", "client_id = $1", ""},
	{"pose_rating", "client_id = $1", ""},
	{"present_answer", "client_id = $1", ""},
	{"read_trail", "client_id = $1", ""},
	{"screening_round", "client_id = $1", ""},
	{"session_version", "session_id IN (SELECT session_id FROM training_session WHERE client_id = $1)", ""},
	{"set_entry", "client_id = $1", ""},
	{"sheet_link", "client_id = $1", "token_hash"},
	{"studio_event", "client_id = $1", ""},
	{"tolerance_plan", "client_id = $1", ""},
	{"training_session", "client_id = $1", ""},
	{"try_out", "client_id = $1", ""},
	{"verdict_override", "client_id = $1", ""},
}

// Records returns every row about a client as it is kept, by table: what the export
// promises to hold whatever the screens show.
func (t *Tx) Records(ctx context.Context, client any) (map[string][]json.RawMessage, error) {
	out := map[string][]json.RawMessage{}
	for _, r := range recordsOf {
		out[r.table] = []json.RawMessage{}
		rows, err := t.tx.Query(
			ctx,
			"SELECT to_jsonb(x) - $2::text - 'studio_id' FROM "+r.table+" x WHERE "+r.where,
			client,
			r.but,
		) // both are ours, no input
		if err != nil {
			return nil, err
		}
		for rows.Next() {
			var one json.RawMessage
			if err := rows.Scan(&one); err != nil {
				rows.Close()
				return nil, err
			}
			out[r.table] = append(out[r.table], one)
		}
		if err := rows.Err(); err != nil {
			return nil, err
		}
	}
	return out, nil
}
