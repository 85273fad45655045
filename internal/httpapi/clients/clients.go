package clients

import (
	"context"
	"fmt"
	"net/http"
	"sort"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/decide"
	"musculus/internal/core/priority"
	"musculus/internal/core/week"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
	"musculus/internal/view"
)

// ClientCard is one client on the wall.
type ClientCard struct {
	ID        uuid.UUID      `json:"id"`
	Name      string         `json:"name"`
	About     string         `json:"about"`
	Wish      string         `json:"wish"`
	Room      string         `json:"room"`
	Stance    string         `json:"stance"` // id of whose reading of the rules the numbers follow
	Slice     view.SliceView `json:"slice"`  // what to aim for; without an emphasis the next session's effective sets
	First     string         `json:"first"`  // which heads come first, empty without an emphasis
	Session   *uuid.UUID     `json:"session"`
	SessionAs string         `json:"session_name"`
	PlannedOn string         `json:"planned_on"`
	When      string         `json:"when"` // today, in 2 days …
	Today     bool           `json:"today"`
	Minutes   float64        `json:"minutes"`
	Findings  int            `json:"findings"` // stops and warnings
	Most      string         `json:"most"`     // the head that gets most, in words
	Trained   string         `json:"trained"`  // when a set was last logged, in words
	Screened  bool           `json:"screened"`
	Blocked   string         `json:"blocked"` // why no sheet may be issued, empty if one may
}

type clientsOutput struct {
	Body struct {
		Clients []ClientCard `json:"clients"`
	}
}

// Knot is one step of the thread.
type Knot struct {
	Key   string `json:"key" enum:"dossier,priorities,week,sheet,log,trend"`
	Label string `json:"label"`
	State string `json:"state"`
}

// SessionLine is a session in a list.
type SessionLine struct {
	ID        uuid.UUID `json:"id"`
	Name      string    `json:"name"`
	PlannedOn string    `json:"planned_on"`
	When      string    `json:"when"`
	Slots     int       `json:"slots"`
	Logged    int       `json:"logged"` // sets
}

// ClientView is one client with the thread.
type ClientView struct {
	ID       uuid.UUID      `json:"id"`
	Name     string         `json:"name"`
	About    string         `json:"about"`
	Wish     string         `json:"wish"`
	Room     string         `json:"room"`
	Minutes  int            `json:"minutes"`
	Screened string         `json:"screened"`
	Blocked  string         `json:"blocked"` // why no sheet may be issued, empty if one may
	Slice    view.SliceView `json:"slice"`
	Knots    []Knot         `json:"knots"`
	Sessions []SessionLine  `json:"sessions"`
	Current  *uuid.UUID     `json:"current"` // the session to open
}

type clientOutput struct{ Body ClientView }

func (s *place) registerClients(api huma.API) {
	huma.Register(api, op.Operation("list-clients", op.Everybody, http.MethodGet, "/clients", "The wall of clients"), s.listClients)
	huma.Register(
		api,
		op.Operation("get-client", op.Everybody, http.MethodGet, "/clients/{client}", "One client with the thread"),
		s.getClient,
	)
}

// wall is what the list of clients is made of.
type wall struct {
	clients  []store.Client
	current  map[uuid.UUID]*store.Session
	trained  map[uuid.UUID]time.Time
	emphases map[uuid.UUID]*priority.Emphasis
}

func (s *place) listClients(ctx context.Context, _ *struct{}) (*clientsOutput, error) {
	return op.Showing(ctx, s.Server, func(tx *store.Tx, w *wall) (err error) {
		if w.clients, err = tx.Clients(ctx); err != nil {
			return err
		}
		if w.current, err = tx.CurrentSessions(ctx, nil, s.Day(ctx), op.Movements(ctx)); err != nil {
			return err
		}
		if w.trained, err = tx.LastTraining(ctx); err != nil {
			return err
		}
		w.emphases, err = tx.Emphases(ctx)
		return err
	}, func(w *wall) (*clientsOutput, error) {
		out := &clientsOutput{}
		out.Body.Clients = []ClientCard{}
		for i := range w.clients {
			c := &w.clients[i]
			card, err := s.card(ctx, c, w.current[c.ID])
			if err != nil {
				return nil, err
			}
			if e := w.emphases[c.ID]; e != nil {
				card.Slice, card.First = view.EmphasisSlice(&c.Dossier, e, s.Day(ctx)), firstWords(e, "", s.Day(ctx))
			}
			card.Trained = s.trainedWords(ctx, w.trained[c.ID])
			out.Body.Clients = append(out.Body.Clients, card)
		}
		sort.SliceStable(out.Body.Clients, func(i, j int) bool { // today's first, then by day
			a, b := out.Body.Clients[i], out.Body.Clients[j]
			if a.Today != b.Today {
				return a.Today
			}
			return a.PlannedOn < b.PlannedOn
		})
		return out, nil
	})
}

// cardKey is what a card is made from.
type cardKey struct {
	client  store.Mark
	stance  string
	session *store.Session // as it was read, nil for none
	zone    string
	today   day.Day
}

// A card is remembered for as long as a client's record may be: what was erased leaves
// the memory.
const (
	mostCards     = 2000
	rememberCards = 10 * time.Minute
)

// card is a client on the wall with the session to open, nil for none; when she
// trained is left to whoever asks.
func (s *place) card(ctx context.Context, c *store.Client, next *store.Session) (ClientCard, error) {
	key := cardKey{c.Mark, op.StanceKey(c.Stance), next, c.Zone.String(), s.Day(ctx)}
	return s.cards.Of(ctx, key, func(context.Context) (ClientCard, error) { return s.makeCard(c, next, key.today) })
}

func (s *place) makeCard(c *store.Client, next *store.Session, today day.Day) (ClientCard, error) {
	out := ClientCard{
		ID:       c.ID,
		Name:     c.Dossier.Name,
		About:    c.Dossier.About,
		Wish:     c.Dossier.Wish(),
		Room:     c.Room().Name,
		Stance:   c.Stance.ID,
		Screened: c.Screening != nil,
	}
	out.Blocked = s.Blocked(c)
	if next == nil {
		out.Slice = view.SetsSlice("No session planned", week.Totals{}.Heads)
		out.When = "no session planned"
		return out, nil
	}
	t, err := s.Trainee(c)
	if err != nil {
		return out, err
	}
	counted := t.Count(&next.Session)
	out.Slice = view.SetsSlice("Effective sets in "+next.Name, counted.Heads)
	out.Most = mostWords(out.Slice.Heads)
	out.Session, out.SessionAs, out.PlannedOn = &next.ID, next.Name, next.On.String()
	out.When, out.Today = next.On.FromToday(today), next.On == today
	out.Minutes = view.Round4(counted.Minutes)
	for _, f := range t.Findings(&next.Session, counted, c.Dossier.Minutes) {
		if f.Severity != week.Note {
			out.Findings++
		}
	}
	return out, nil
}

// mostWords names the heads that get most; those within a tenth of a set are
// even.
func mostWords(heads []view.HeadView) string {
	most := 0.0
	for _, h := range heads {
		most = max(most, h.Value)
	}
	var names []string
	for _, h := range heads {
		if h.Value > 0 && h.Value > most-0.1 {
			names = append(names, h.Name)
		}
	}
	if len(names) == 0 {
		return ""
	}
	return fmt.Sprintf("%s: %.1f sets", strings.Join(names, "; "), most)
}

// trainedWords tells when a set was last logged.
func (s *place) trainedWords(ctx context.Context, at time.Time) string {
	if at.IsZero() {
		return "nothing logged yet"
	}
	return "trained " + day.At(at).FromToday(s.Day(ctx))
}

// clientRead is what a client's page is made of.
type clientRead struct {
	client   store.Client
	lines    []store.SessionLine
	logged   map[uuid.UUID]store.Logged
	current  *store.Session
	emphasis *priority.Emphasis
	reading  decide.Reading // of her log, as it was last read
	measured []store.Measuring
	week     op.WeekRead
	issues   []store.Issue
	links    []store.Link
}

func (s *place) getClient(ctx context.Context, in *op.ClientInput) (*clientOutput, error) {
	return op.Showing(ctx, s.Server, func(tx *store.Tx, r *clientRead) error { return s.readClient(ctx, tx, in.Client, r) },
		func(r *clientRead) (*clientOutput, error) { return s.showClient(ctx, r) })
}

func (s *place) readClient(ctx context.Context, tx *store.Tx, id uuid.UUID, r *clientRead) (err error) {
	if r.client, err = tx.Client(ctx, id); err != nil {
		return err
	}
	if r.lines, err = tx.SessionLines(ctx, id); err != nil {
		return err
	}
	if r.logged, err = tx.LoggedSessions(ctx, id); err != nil {
		return err
	}
	if r.emphasis, _, err = tx.Emphasis(ctx, id); err != nil {
		return err
	}
	if r.measured, err = s.Measurings(ctx, tx, &r.client); err != nil {
		return err
	}
	if r.reading, _, err = tx.Reading(ctx, id, s.DayOf(&r.client)); err != nil {
		return err
	}
	current, err := tx.CurrentSessions(ctx, &id, s.Day(ctx), op.Movements(ctx))
	if r.current = current[id]; err != nil || r.current == nil {
		return err
	}
	span, err := tx.SpanOf(ctx, id, r.current.On)
	if err != nil {
		return err
	}
	kept, err := tx.SessionsBetween(ctx, id, span.From, span.Last(), op.Movements(ctx))
	if err != nil {
		return err
	}
	if r.week, err = s.ReadWeekOf(ctx, tx, &r.client, span, kept); err != nil {
		return err
	}
	if r.issues, err = tx.Issues(ctx, id, r.current.ID, op.Movements(ctx)); err != nil || len(r.issues) == 0 {
		return err
	}
	r.links, err = tx.Links(ctx, id)
	return err
}

func (s *place) showClient(ctx context.Context, r *clientRead) (*clientOutput, error) {
	c := &r.client
	card, err := s.card(ctx, c, r.current)
	if err != nil {
		return nil, err
	}
	out := &clientOutput{
		ClientView{
			ID:       c.ID,
			Name:     c.Dossier.Name,
			About:    c.Dossier.About,
			Wish:     c.Dossier.Wish(),
			Room:     c.Room().Name,
			Minutes:  c.Dossier.Minutes,
			Slice:    card.Slice,
			Current:  card.Session,
			Sessions: []SessionLine{},
			Screened: "not screened",
			Blocked:  card.Blocked,
		},
	}
	v := &out.Body
	if c.Screening != nil {
		v.Screened = "screened " + s.Ago(ctx, c.Screening.On)
	}
	sets := 0
	var last time.Time
	for _, one := range r.lines {
		v.Sessions = append(
			v.Sessions,
			SessionLine{one.ID, one.Name, one.On.String(), one.On.FromToday(s.Day(ctx)), one.Slots, r.logged[one.ID].Sets},
		)
		sets += r.logged[one.ID].Sets
		if at := r.logged[one.ID].LastAt; at.After(last) {
			last = at
		}
	}
	card.Trained = s.trainedWords(ctx, last)
	if r.emphasis != nil {
		v.Slice = view.EmphasisSlice(&c.Dossier, r.emphasis, s.Day(ctx))
	}
	if card.Session != nil {
		audited, err := s.AuditRead(ctx, &r.week, 0)
		if err != nil {
			return nil, err
		}
		card.Findings = toMend(&audited)
	}
	v.Knots = knots(&card, v, sets)
	v.Knots[0].State = v.Screened
	if n := len(r.measured); n > 0 {
		v.Knots[0].State += ", measured " + s.Ago(ctx, r.measured[n-1].On)
	}
	v.Knots[5].State = r.reading.Words()
	v.Knots[1].State = firstWords(r.emphasis, v.Wish, s.Day(ctx))
	if card.Session != nil {
		v.Knots[3].State = issueWords(r.current, r.issues, r.links, v.Knots[3].State)
	}
	return out, nil
}

// toMend counts what is wrong with a week and was not let stand.
func toMend(a *op.AuditedWeek) (n int) {
	for _, f := range a.Found {
		if _, ok := a.Accepted[f.Key]; !ok && f.Severity != week.Note {
			n++
		}
	}
	return n
}
