package floor

import (
	"context"
	"crypto/rand"
	"encoding/base64"
	"net/http"
	"slices"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/entry"
	"musculus/internal/figure"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
	"musculus/internal/view"
)

// How many days around today a device keeps sessions for.
const (
	floorBack  = 1
	floorAhead = 2
)

// AroundView is what an account's device keeps: whose sessions are near, and the key with which
// it locks what nobody else may read.
type AroundView struct {
	Account  uuid.UUID    `json:"account"`
	Key      string       `json:"key"      doc:"32 bytes, base64"`
	MayPlan  bool         `json:"may_plan"`
	Right    figure.Slice `json:"right"`
	Sessions []OnFloor    `json:"sessions"` // today's first
}

// OnFloor is a session of these days.
type OnFloor struct {
	Client  uuid.UUID      `json:"client"`
	Session uuid.UUID      `json:"session"`
	Name    string         `json:"name"`
	Title   string         `json:"title"`
	When    string         `json:"when"`
	Today   bool           `json:"today"`
	Room    string         `json:"room"`
	Slice   view.SliceView `json:"slice"`
	Sets    int            `json:"sets"` // planned, of all arms
	Done    int            `json:"done"`
	Blocked string         `json:"blocked"`
}

type aroundOutput struct{ Body AroundView }

type readyOutput struct{ Body ReadyView }

type doneOutput struct{ Body DoneView }

func (s *place) registerFloor(api huma.API) {
	const path = "/clients/{client}/sessions/{session}/floor"
	huma.Register(api, op.Operation("floor-around", op.Everybody, http.MethodGet, "/floor", "Whose sessions are near"), s.around)
	huma.Register(
		api,
		op.Operation("floor-ready", op.Everybody, http.MethodGet, path, "A session as it is run, with nobody to ask"),
		s.ready,
	)
	huma.Register(
		api,
		op.Operation("floor-done", op.Everybody, http.MethodGet, path+"/done", "What was told of a session so far"),
		s.getDone,
	)
	huma.Register(
		api,
		op.Operation(
			"floor-tell",
			op.Everybody,
			http.MethodPost,
			path,
			"Tell what was done, what hurt, what was left out",
			op.Reads(mostTold),
		),
		s.tell,
	)
}

// mostTold bounds what a device tells at once, B.
const mostTold = 256 << 10

// aroundRead is what an account's floor begins with.
type aroundRead struct {
	key     []byte
	near    []store.Session
	clients []store.Client
	done    map[uuid.UUID][]entry.Entry
}

func (s *place) around(ctx context.Context, _ *struct{}) (*aroundOutput, error) {
	a, today := op.AccountOf(ctx), s.Day(ctx)
	fresh := make([]byte, 32)
	if _, err := rand.Read(fresh); err != nil {
		return nil, err
	}
	return op.Showing(ctx, s.Server, func(tx *store.Tx, r *aroundRead) (err error) {
		if r.key, err = tx.FloorKey(ctx, a.ID, fresh); err != nil {
			return err
		}
		if r.near, err = tx.SessionsOn(ctx, today-floorBack, today+floorAhead, op.Movements(ctx)); err != nil {
			return err
		}
		if r.clients, err = tx.Clients(ctx); err != nil {
			return err
		}
		var ids []uuid.UUID
		for i := range r.near {
			ids = append(ids, r.near[i].ID)
		}
		r.done, err = tx.EntriesOf(ctx, ids, op.Movements(ctx))
		return err
	}, func(r *aroundRead) (*aroundOutput, error) {
		out := AroundView{Account: a.ID, Key: base64.StdEncoding.EncodeToString(r.key), MayPlan: a.Role != store.Assistant,
			Right: figure.MakeSlice(false), Sessions: []OnFloor{}}
		for _, here := range []bool{true, false} { // today's first
			for i := range r.near {
				c := slices.IndexFunc(r.clients, func(c store.Client) bool { return c.ID == r.near[i].ClientID })
				if c < 0 || (r.near[i].On == today) != here {
					continue
				}
				v, err := s.near(&r.clients[c], &r.near[i], len(r.done[r.near[i].ID]), today)
				if err != nil {
					return nil, err
				}
				out.Sessions = append(out.Sessions, v)
			}
		}
		return &aroundOutput{out}, nil
	})
}

// near tells one session of these days.
func (s *place) near(c *store.Client, kept *store.Session, done int, today day.Day) (OnFloor, error) {
	v := OnFloor{Client: c.ID, Session: kept.ID, Name: c.Dossier.Name, Title: kept.Name, When: kept.On.FromToday(today),
		Today: kept.On == today, Room: c.Room().Name, Done: done, Blocked: s.Blocked(c)}
	if len(kept.Faults) > 0 {
		return v, nil
	}
	t, err := s.Trainee(c)
	if err != nil {
		return v, err
	}
	counted := t.Count(&kept.Session)
	v.Slice = view.SetsSlice("Effective sets in "+kept.Name, counted.Heads)
	for i := range kept.Slots {
		v.Sets += kept.Slots[i].Sets() * kept.Slots[i].Arms()
	}
	return v, nil
}

func (s *place) ready(ctx context.Context, in *op.SessionPath) (*readyOutput, error) {
	v, err := s.readyAs(ctx, *in, 0, false)
	return &readyOutput{v}, err
}

// readyAs makes a session ready as a version has it, 0 for the one that is kept; a client by
// her link does not see weights that are kept from her.
func (s *place) readyAs(ctx context.Context, at op.SessionPath, version int, byLink bool) (ReadyView, error) {
	return op.Showing(ctx, s.Server, func(tx *store.Tx, r *readyRead) (err error) {
		*r, err = s.readReady(ctx, tx, at, version)
		return err
	}, func(r *readyRead) (ReadyView, error) {
		return s.showReady(ctx, r, reader{byLink, byLink && r.c.Dossier.HideWeights}), nil
	})
}

func (s *place) getDone(ctx context.Context, in *op.SessionPath) (*doneOutput, error) {
	v, err := s.done(ctx, *in, reader{})
	return &doneOutput{v}, err
}
