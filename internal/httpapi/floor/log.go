package floor

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/entry"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

type logOutput struct{ Body LogView }

type logSetInput struct {
	op.SessionPath
	Body struct {
		ID uuid.UUID `json:"id" doc:"made by the sender; sending it again logs once"`
		SetTold
		DoneAt *time.Time `json:"done_at,omitempty" doc:"when it was done, by the device's clock; absent: just now"`
		Waited bool       `json:"waited,omitempty" doc:"it was entered without network and waited on the device"`
	}
}

func (s *place) registerLog(api huma.API) {
	const path = "/clients/{client}/sessions/{session}/log"
	huma.Register(api, op.Operation("get-log", op.Everybody, http.MethodGet, path, "What was done"), s.getLog)
	huma.Register(api, op.Operation("log-set", op.Everybody, http.MethodPost, path, "Log a set"), s.logSet)
}

func (s *place) getLog(ctx context.Context, in *op.SessionPath) (*logOutput, error) {
	return s.answerLog(ctx, *in, func(*store.Tx, store.Account, *store.Client, store.Session) error { return nil })
}

// answerLog shows a session's log as it is after do.
func (s *place) answerLog(
	ctx context.Context,
	at op.SessionPath,
	do func(*store.Tx, store.Account, *store.Client, store.Session) error,
) (*logOutput, error) {
	return op.Showing(ctx, s.Server, func(tx *store.Tx, r *logRead) error {
		c, err := tx.Client(ctx, at.Client)
		if err != nil {
			return err
		}
		kept, err := tx.Session(ctx, at.Client, at.Session, op.Movements(ctx))
		if err != nil {
			return err
		}
		if err = do(tx, op.AccountOf(ctx), &c, kept); err != nil {
			return err
		}
		*r, err = readLog(ctx, tx, &c, kept)
		return err
	}, func(r *logRead) (*logOutput, error) {
		v, err := s.showLog(ctx, r)
		return &logOutput{v}, err
	})
}

func (s *place) logSet(ctx context.Context, in *logSetInput) (*logOutput, error) {
	return s.answerLog(ctx, in.SessionPath, func(tx *store.Tx, a store.Account, c *store.Client, kept store.Session) error {
		done := s.Now()
		if in.Body.DoneAt != nil {
			if done = *in.Body.DoneAt; done.After(s.Now().Add(clockSlack)) || done.Before(s.Now().Add(-longestWait)) {
				return op.FieldProblem("body.done_at", "not in the last %d days", int(longestWait.Hours()/24))
			}
		}
		e := entry.Entry{ID: in.Body.ID, DoneAt: done}
		return s.keepSet(ctx, tx, c, &kept, &in.Body.SetTold, &e, told{by: store.Teller{Account: a.ID}, waited: in.Body.Waited, at: "body."})
	})
}
