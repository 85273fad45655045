package op

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"runtime/debug"
	"slices"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"

	"musculus/internal/core/text"
	"musculus/internal/httpapi/request"
)

// What an operation reads, bytes, how long it may take, unless it is registered for more; what a slow line adds to that.
const (
	MostBody = 256 << 10
	mostTime = 10 * time.Second
	slowLine = 20 * time.Second
)

// Bound holds every operation to its limits: what is read, what the JSON in it may
// hold, how long it may take.
func Bound(api huma.API) func(huma.Context, func(huma.Context)) {
	return func(hc huma.Context, next func(huma.Context)) {
		l := termsOf(hc.Operation())
		refuse := refuser(api, hc)
		r, w := humachi.Unwrap(hc)
		r.Body = http.MaxBytesReader(w, r.Body, l.body)
		if readsJSON(hc.Operation()) {
			b, err := io.ReadAll(r.Body)
			var tooLarge *http.MaxBytesError
			switch {
			case errors.As(err, &tooLarge):
				refuse(Problem(http.StatusRequestEntityTooLarge, fmt.Sprintf("more than the %d kB that are read here", l.body>>10)))
				return
			case err != nil:
				refuse(Problem(http.StatusBadRequest, "the request could not be read to its end"))
				return
			}
			if at, why := text.JSONFault(b, mayHaveLines); why != "" {
				location := strings.TrimSuffix("body."+at, ".")
				refuse(Problem(http.StatusUnprocessableEntity, location+" "+why, &huma.ErrorDetail{Location: location, Message: why}))
				return
			}
			r.Body = io.NopCloser(bytes.NewReader(b))
		}
		ctx, cancel := context.WithTimeout(hc.Context(), l.time)
		defer cancel()
		next(huma.WithContext(hc, ctx))
	}
}

// readsJSON says whether an operation's body is JSON, and nothing else.
func readsJSON(op *huma.Operation) bool {
	if op.RequestBody == nil {
		return false
	}
	_, ok := op.RequestBody.Content["application/json"]
	return ok && len(op.RequestBody.Content) == 1
}

// linesIn are the fields whose texts may have several lines.
var linesIn = []string{"text", "note", "notes", "present", "was", "value"}

func mayHaveLines(field string) bool { return slices.Contains(linesIn, field) }

// Answering sends an answer's head only with its body, so that what goes wrong while it is written is told as a failure
// and never as half of a success, and tells the front end how long the server itself took.
func Answering(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		w.Header().Set("Cache-Control", "no-store")
		held := &heldWriter{ResponseWriter: w, began: time.Now()}
		defer func() {
			failed := recover()
			if failed == http.ErrAbortHandler {
				panic(failed)
			}
			if failed == nil {
				held.send()
				return
			}
			slog.Error("panic", "id", request.TraceOf(r.Context()).ID, "what", fmt.Sprint(failed), "stack", string(debug.Stack()))
			if held.sent {
				panic(http.ErrAbortHandler) // what is cut short must not look whole
			}
			clear(held.Header())
			held.Header().Set(request.Header, request.TraceOf(r.Context()).ID)
			WriteProblem(held, Problem(http.StatusInternalServerError, "something went wrong here; it was noted and nothing was written"))
		}()
		next.ServeHTTP(held, r)
	})
}

type heldWriter struct {
	http.ResponseWriter
	began  time.Time
	status int
	sent   bool
}

func (h *heldWriter) WriteHeader(status int) {
	if status < 200 {
		h.ResponseWriter.WriteHeader(status)
		return
	}
	if h.status == 0 { // a second status counts nothing
		h.status = status
	}
}

// send sends the head, once.
func (h *heldWriter) send() {
	if h.sent || h.status == 0 {
		return
	}
	h.sent = true
	h.Header().Set("Server-Timing", fmt.Sprintf("app;dur=%.3f", float64(time.Since(h.began).Microseconds())/1000))
	h.ResponseWriter.WriteHeader(h.status)
}

func (h *heldWriter) Write(b []byte) (int, error) {
	h.WriteHeader(http.StatusOK)
	h.send()
	return h.ResponseWriter.Write(b)
}

func (h *heldWriter) Unwrap() http.ResponseWriter { return h.ResponseWriter }

// WholeJSON writes JSON only once all of it is there.
func WholeJSON(write func(io.Writer, any) error) func(io.Writer, any) error {
	return func(w io.Writer, v any) error {
		var b bytes.Buffer
		if err := write(&b, v); err != nil {
			panic(fmt.Errorf("an answer that cannot be written: %w", err)) // see answering
		}
		_, err := w.Write(b.Bytes())
		return err
	}
}
