// Package request is what is known of a request before any operation is reached: its id,
// where it came from, and what it took, which is told in one line of the log.
package request

import (
	"context"
	"crypto/rand"
	"log/slog"
	"net/http"
	"time"

	"musculus/internal/store"
)

// Header names a request in its answer, in its problem and in the log, so
// that what a coach reads out finds its line.
const Header = "X-Request-Id"

// Trace is what is told of a request in the log once it is answered.
type Trace struct {
	ID        string
	Operation string
	Studio    string
	spent     *store.Spent
}

type traceKey struct{}

// TraceOf is the request's trace; one that is not logged where there is none.
func TraceOf(ctx context.Context) *Trace {
	if t, ok := ctx.Value(traceKey{}).(*Trace); ok {
		return t
	}
	return &Trace{}
}

// Traced gives every request an id and logs it in one line, with what it took.
func Traced(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		ctx, spent := store.Watch(r.Context())
		t := &Trace{ID: rand.Text()[:12], spent: spent}
		w.Header().Set(Header, t.ID)
		began := time.Now()
		status := &statusWriter{ResponseWriter: w, status: http.StatusOK}
		defer func() {
			slog.LogAttrs(
				ctx,
				levelOf(status.status),
				"request",
				slog.String("id", t.ID),
				slog.String("operation", t.Operation),
				slog.String("method", r.Method),
				slog.Int("status", status.status),
				slog.String("studio", t.Studio),
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
