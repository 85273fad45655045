package op

import (
	"context"
	"crypto/rand"
	"log/slog"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"musculus/internal/store"
)

// requestHeader names a request in its answer, in its problem and in the log, so
// that what a coach reads out finds its line.
const requestHeader = "X-Request-Id"

// trace is what is told of a request in the log once it is answered.
type trace struct {
	id        string
	operation string
	studio    string
	spent     *store.Spent
}

type traceKey struct{}

// traceOf is the request's trace; one that is not logged where there is none.
func traceOf(ctx context.Context) *trace {
	if t, ok := ctx.Value(traceKey{}).(*trace); ok {
		return t
	}
	return &trace{}
}

// Traced gives every request an id and logs it in one line, with what it took.
func Traced(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		ctx, spent := store.Watch(r.Context())
		t := &trace{id: rand.Text()[:12], spent: spent}
		w.Header().Set(requestHeader, t.id)
		began := time.Now()
		status := &statusWriter{ResponseWriter: w, status: http.StatusOK}
		defer func() {
			slog.LogAttrs(
				ctx,
				levelOf(status.status),
				"request",
				slog.String("id", t.id),
				slog.String("operation", t.operation),
				slog.String("method", r.Method),
				slog.Int("status", status.status),
				slog.String("studio", t.studio),
				slog.Float64(
					"ms",
					ms(time.Since(began)),
				),
				slog.Float64("database_ms", ms(spent.Time())),
				slog.Int64("queries", spent.Queries()),
			)
		}()
		next.ServeHTTP(status, r.WithContext(context.WithValue(ctx, traceKey{}, t)))
	})
}

func ms(d time.Duration) float64 { return float64(d.Microseconds()) / 1000 }

func levelOf(status int) slog.Level {
	if status >= http.StatusInternalServerError {
		return slog.LevelError
	}
	return slog.LevelInfo
}

type statusWriter struct {
	http.ResponseWriter
	status int
}

func (s *statusWriter) WriteHeader(status int) {
	s.status = status
	s.ResponseWriter.WriteHeader(status)
}

func (s *statusWriter) Unwrap() http.ResponseWriter { return s.ResponseWriter }

// Named puts the operation into the request's trace.
func Named(ctx huma.Context, next func(huma.Context)) {
	traceOf(ctx.Context()).operation = ctx.Operation().OperationID
	next(ctx)
}

// stamp puts the request's id into a problem, whichever of them it is.
func stamp(id string, v any) {
	at := "/requests/" + id
	switch p := v.(type) {
	case *huma.ErrorModel:
		p.Instance = at
	case *AskProblem:
		p.Instance = at
	case *StaleProblem:
		p.Instance = at
	case *ClashProblem:
		p.Instance = at
	case *unexpected:
		p.Instance = at
		slog.Error("unexpected", "id", id, "err", p.cause.Error())
	}
}

// Stamped stamps what an operation answers.
func Stamped(ctx huma.Context, _ string, v any) (any, error) {
	stamp(traceOf(ctx.Context()).id, v)
	return v, nil
}

// refuser answers a request with a problem before its operation is reached.
func refuser(api huma.API, ctx huma.Context) func(huma.StatusError) {
	return func(p huma.StatusError) {
		stamp(traceOf(ctx.Context()).id, p)
		ctx.SetHeader("Content-Type", "application/problem+json")
		ctx.SetStatus(p.GetStatus())
		_ = api.Marshal(ctx.BodyWriter(), "application/json", p)
	}
}
