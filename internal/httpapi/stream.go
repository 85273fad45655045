package httpapi

import (
	"encoding/json"
	"fmt"
	"net/http"
	"time"

	"github.com/go-chi/chi/v5"
	"github.com/google/uuid"

	"musculus/internal/httpapi/op"
	"musculus/internal/live"
)

// One stream of events a browser: that something was told of a session, and nothing of what.
// It is outside the ordinary bounds of time; who may no longer listen is let go at the next
// beat.
const (
	beat      = 10 * time.Second
	mostOfOne = 10 * time.Minute // then the browser comes again
)

// said is one event as it is sent.
type said struct {
	Client  uuid.UUID `json:"client,omitzero"`
	Session uuid.UUID `json:"session,omitzero"`
	Gap     bool      `json:"gap,omitempty"`
}

// streams adds the streams of accounts and of links.
func streams(r chi.Router, s *op.Server, hub *live.Hub) {
	r.Get("/live", func(w http.ResponseWriter, r *http.Request) {
		stream(w, r, hub, func() (func(live.Told) bool, error) {
			a, err := s.SignedIn(r.Context())
			return func(t live.Told) bool { return t.Studio == a.Studio }, err
		})
	})
	r.Get("/links/{token}/live", func(w http.ResponseWriter, r *http.Request) {
		stream(w, r, hub, func() (func(live.Told) bool, error) {
			opened, err := s.Store.OpenLink(r.Context(), chi.URLParam(r, "token"), s.Now())
			if err == nil && (opened.Over != "" || !opened.MayLog) {
				err = op.Problem(http.StatusForbidden, "this link does not log")
			}
			return func(t live.Told) bool { return t.Client == opened.Client }, err
		})
	})
}

// stream sends what somebody may hear of what is told, until she may not, or goes.
func stream(w http.ResponseWriter, r *http.Request, hub *live.Hub, may func() (func(live.Told) bool, error)) {
	hears, err := may()
	if err != nil {
		op.WriteProblem(w, op.ProblemOf(err))
		return
	}
	told, stop := hub.Watch()
	defer stop()
	out := http.NewResponseController(w)
	_ = out.SetWriteDeadline(time.Time{}) // a test's recorder has none
	_ = out.SetReadDeadline(time.Time{})  // one that passed would end it
	h := w.Header()
	h.Set("Content-Type", "text/event-stream")
	h.Set("Cache-Control", "no-store")
	h.Set("X-Accel-Buffering", "no")
	send := func(s said) bool {
		b, err := json.Marshal(s)
		if err == nil {
			_, err = fmt.Fprintf(w, "data: %s\n\n", b)
		}
		return err == nil && out.Flush() == nil
	}
	beats, end := time.NewTicker(beat), time.NewTimer(mostOfOne)
	defer beats.Stop()
	defer end.Stop()
	for ok := send(said{Gap: true}); ok; {
		select {
		case <-r.Context().Done():
			return
		case <-hub.Closed():
			return
		case <-end.C:
			return
		case <-beats.C:
			if hears, err = may(); err != nil {
				return
			}
			if _, err := fmt.Fprint(w, ": still here\n\n"); err != nil || out.Flush() != nil {
				return
			}
		case t := <-told:
			switch {
			case t.Gap && (t.Studio == uuid.Nil || hears(t)):
				ok = send(said{Gap: true})
			case !t.Gap && hears(t):
				ok = send(said{Client: t.Client, Session: t.Session})
			}
		}
	}
}
