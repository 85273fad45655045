package httpapi

import (
	"context"
	"fmt"
	"net/http"
	"slices"
	"sort"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/person"
	"musculus/internal/core/week"
	"musculus/internal/store"
)

// ClientCard is one client on the wall.
type ClientCard struct {
	ID        uuid.UUID  `json:"id"`
	Name      string     `json:"name"`
	About     string     `json:"about"`
	Wish      string     `json:"wish"`
	Room      string     `json:"room"`
	Slice     SliceView  `json:"slice"` // what to aim for; without an emphasis the next session's effective sets
	First     string     `json:"first"` // which heads come first, empty without an emphasis
	Session   *uuid.UUID `json:"session"`
	SessionAs string     `json:"session_name"`
	PlannedOn string     `json:"planned_on"`
	When      string     `json:"when"` // today, in 2 days …
	Today     bool       `json:"today"`
	Minutes   float64    `json:"minutes"`
	Findings  int        `json:"findings"` // stops and warnings
	Most      string     `json:"most"`     // the head that gets most, in words
	Trained   string     `json:"trained"`  // when a set was last logged, in words
	Screened  bool       `json:"screened"`
	Blocked   string     `json:"blocked"` // why no sheet may be issued, empty if one may
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
	Open  bool   `json:"open"`  // can be worked in
	Holds string `json:"holds"` // what it will hold, while it cannot
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
	ID       uuid.UUID     `json:"id"`
	Name     string        `json:"name"`
	About    string        `json:"about"`
	Wish     string        `json:"wish"`
	Room     string        `json:"room"`
	Minutes  int           `json:"minutes"`
	Screened string        `json:"screened"`
	Blocked  string        `json:"blocked"` // why no sheet may be issued, empty if one may
	Slice    SliceView     `json:"slice"`
	Knots    []Knot        `json:"knots"`
	Sessions []SessionLine `json:"sessions"`
	Current  *uuid.UUID    `json:"current"` // the session to open
}

type clientInput struct {
	Client uuid.UUID `path:"client"`
}

type clientOutput struct{ Body ClientView }

func (s *server) registerClients(api huma.API) {
	huma.Register(api, operation("list-clients", http.MethodGet, "/clients", "The wall of clients"), s.listClients)
	huma.Register(api, operation("get-client", http.MethodGet, "/clients/{client}", "One client with the thread"), s.getClient)
}

// trainee is what the core needs of a client.
func (s *server) trainee(c *store.Client) (*week.Trainee, error) {
	y, err := s.yardstick(c.Dossier.Body())
	if err != nil {
		return nil, err
	}
	return &week.Trainee{Yardstick: y, Room: c.Room(), Caps: s.caps(c), Stance: c.Stance, Fence: s.fence(c)}, nil
}

// informed is the trainee with what her log says of each series.
func (s *server) informed(ctx context.Context, tx *store.Tx, c *store.Client) (*week.Trainee, error) {
	t, err := s.trainee(c)
	if err == nil { // a client back after longer is another one
		t.Own, err = tx.Own(ctx, c.ID, s.now(), movements(ctx))
	}
	return t, err
}

// blocked says why a client may not train today, "" if she may.
func (s *server) blocked(c *store.Client) string {
	if c == nil {
		return ""
	}
	if standing := c.Standing(s.dayOf(c)); !standing.MayTrain() {
		return standing.Heading()
	}
	return ""
}

// caps is what a client's doses may not go beyond today.
func (s *server) caps(c *store.Client) person.Caps {
	standing := c.Standing(s.dayOf(c))
	return person.CapsOf(standing.Caps)
}

// fence is what keeps a client from set-ups today; nil without a client.
func (s *server) fence(c *store.Client) *person.Fence {
	if c == nil {
		return nil
	}
	return &person.Fence{Scores: person.ScoresOf(c.Joints), Mobility: c.Dossier.Mobility, Caps: s.caps(c), Overrides: c.Overrides}
}

// current picks the session to open: the next one not before today, else the
// last one.
func current(sessions []store.Session, today day.Day) *store.Session {
	for i := range sessions {
		if sessions[i].On >= today {
			return &sessions[i]
		}
	}
	if n := len(sessions); n > 0 {
		return &sessions[n-1]
	}
	return nil
}

// day is today as the core counts.
func (s *server) day(ctx context.Context) day.Day { return day.At(s.now().In(store.ZoneOf(ctx))) }

// dayOf is today where a client trains.
func (s *server) dayOf(c *store.Client) day.Day { return day.At(s.now().In(c.Zone)) }

func dateWords(t time.Time) string { return t.Format("2 January 2006") }

func (s *server) listClients(ctx context.Context, _ *struct{}) (*clientsOutput, error) {
	out := &clientsOutput{}
	out.Body.Clients = []ClientCard{}
	err := s.inStudio(ctx, func(tx *store.Tx, _ store.Account) error {
		clients, err := tx.Clients(ctx)
		if err != nil {
			return err
		}
		sessions, err := tx.Sessions(ctx, uuid.Nil, movements(ctx))
		if err != nil {
			return err
		}
		trained, err := tx.LastTraining(ctx)
		if err != nil {
			return err
		}
		of := map[uuid.UUID][]store.Session{}
		for _, one := range sessions {
			of[one.ClientID] = append(of[one.ClientID], one)
		}
		for i := range clients {
			card, err := s.card(ctx, &clients[i], of[clients[i].ID])
			if err != nil {
				return err
			}
			emphasis, _, err := tx.Emphasis(ctx, clients[i].ID)
			if err != nil {
				return err
			}
			if emphasis != nil {
				card.Slice, card.First = emphasisSlice(&clients[i], emphasis, s.day(ctx)), firstWords(emphasis, "", s.day(ctx))
			}
			card.Trained = s.trainedWords(ctx, trained[card.ID])
			out.Body.Clients = append(out.Body.Clients, card)
		}
		return nil
	})
	sort.SliceStable(out.Body.Clients, func(i, j int) bool { // today's first, then by day
		a, b := out.Body.Clients[i], out.Body.Clients[j]
		if a.Today != b.Today {
			return a.Today
		}
		return a.PlannedOn < b.PlannedOn
	})
	return out, err
}

func (s *server) card(ctx context.Context, c *store.Client, sessions []store.Session) (ClientCard, error) {
	out := ClientCard{ID: c.ID, Name: c.Dossier.Name, About: c.Dossier.About, Wish: c.Dossier.Wish(), Room: c.Room().Name, Screened: c.Screening != nil}
	out.Blocked = s.blocked(c)
	next := current(sessions, s.day(ctx))
	if next == nil {
		out.Slice = setsSlice("No session planned", week.Totals{}.Heads)
		out.When = "no session planned"
		return out, nil
	}
	t, err := s.trainee(c)
	if err != nil {
		return out, err
	}
	counted := week.Count(&next.Session, t.Yardstick, t.Stance)
	out.Slice = setsSlice("Effective sets in "+next.Name, counted.Heads)
	out.Most = mostWords(out.Slice.Heads)
	out.Session, out.SessionAs, out.PlannedOn = &next.ID, next.Name, next.On.String()
	out.When, out.Today = next.On.FromToday(s.day(ctx)), next.On == s.day(ctx)
	out.Minutes = round4(counted.Minutes)
	for _, f := range t.Findings(&next.Session, counted, c.Dossier.Minutes) {
		if f.Severity != week.Note {
			out.Findings++
		}
	}
	return out, nil
}

// weekFindings counts what is wrong with the week of one of the client's sessions.
func (s *server) weekFindings(ctx context.Context, tx *store.Tx, c *store.Client, sessions []store.Session, of uuid.UUID) (int, error) {
	at := slices.IndexFunc(sessions, func(x store.Session) bool { return x.ID == of })
	from := sessions[at].On.Monday()
	var kept []store.Session
	for _, one := range sessions {
		if d := one.On; d >= from && d < from+7 {
			kept = append(kept, one)
		}
	}
	audited, err := s.auditWeek(ctx, tx, c, from, kept, 0)
	return audited.graveFindings(), err
}

// mostWords names the heads that get most; those within a tenth of a set are
// even.
func mostWords(heads []HeadView) string {
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
func (s *server) trainedWords(ctx context.Context, at time.Time) string {
	if at.IsZero() {
		return "nothing logged yet"
	}
	return "trained " + day.At(at).FromToday(s.day(ctx))
}

func (s *server) getClient(ctx context.Context, in *clientInput) (*clientOutput, error) {
	out := &clientOutput{}
	err := s.inClient(ctx, in.Client, func(tx *store.Tx, _ store.Account, c *store.Client) error {
		sessions, err := tx.Sessions(ctx, c.ID, movements(ctx))
		if err != nil {
			return err
		}
		logged, err := tx.LoggedSessions(ctx, c.ID)
		if err != nil {
			return err
		}
		card, err := s.card(ctx, c, sessions)
		if err != nil {
			return err
		}
		v := &out.Body
		*v = ClientView{ID: c.ID, Name: c.Dossier.Name, About: c.Dossier.About, Wish: c.Dossier.Wish(), Room: c.Room().Name, Minutes: c.Dossier.Minutes, Slice: card.Slice, Current: card.Session, Sessions: []SessionLine{}}
		v.Screened = "not screened"
		if c.Screening != nil {
			v.Screened = "screened " + s.ago(ctx, c.Screening.On)
		}
		sets := 0
		var last time.Time
		for _, one := range sessions {
			v.Sessions = append(v.Sessions, SessionLine{one.ID, one.Name, one.On.String(), one.On.FromToday(s.day(ctx)), len(one.Slots), logged[one.ID].Sets})
			sets += logged[one.ID].Sets
			if at := logged[one.ID].LastAt; at.After(last) {
				last = at
			}
		}
		card.Trained = s.trainedWords(ctx, last)
		emphasis, _, err := tx.Emphasis(ctx, c.ID)
		if err != nil {
			return err
		}
		measured, err := s.measurings(ctx, tx, c)
		if err != nil {
			return err
		}
		if emphasis != nil {
			v.Slice = emphasisSlice(c, emphasis, s.day(ctx))
		}
		v.Blocked = card.Blocked
		if card.Session != nil {
			if card.Findings, err = s.weekFindings(ctx, tx, c, sessions, *card.Session); err != nil {
				return err
			}
		}
		v.Knots = knots(&card, v, sets)
		v.Knots[0].State = v.Screened
		if n := len(measured); n > 0 {
			v.Knots[0].State += ", measured " + s.ago(ctx, measured[n-1].On)
		}
		if card.Session != nil {
			if v.Knots[3].State, err = s.issueWords(ctx, tx, c.ID, *card.Session, v.Knots[3].State); err != nil {
				return err
			}
		}
		v.Knots[1].State = firstWords(emphasis, v.Wish, s.day(ctx))
		return nil
	})
	return out, err
}
