package studio

import (
	"context"
	"fmt"
	"net/http"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

// RoomView is a room with what it allows.
type RoomView struct {
	ID      uuid.UUID     `json:"id"`
	Mark    string        `json:"mark"` // to be sent back when it is changed
	Form    RoomForm      `json:"form"`
	More    []string      `json:"more"` // what is there that the form does not hold: it stays as it is
	Gaps    []string      `json:"gaps"`
	Allows  int           `json:"allows"`
	Of      int           `json:"of"`
	Missing []MissingView `json:"missing"` // what would allow more, the most first
	Clients []string      `json:"clients"` // who trains there
}

// MissingView is one thing a room lacks and how many movements wait for it.
type MissingView struct {
	What  string `json:"what"`
	Waits int    `json:"waits"`
}

type roomsOutput struct {
	Body struct {
		Rooms    []RoomView        `json:"rooms"`
		Stations map[string]string `json:"stations"` // what may stand in a room besides, by id
	}
}

type roomInput struct {
	Room uuid.UUID `path:"room"`
	Body struct {
		Mark string   `json:"mark" maxLength:"40" doc:"as it was read; empty for a new room"`
		Form RoomForm `json:"form"`
	}
}

type roomOutput struct{ Body RoomView }

func (s *place) registerRooms(api huma.API) {
	huma.Register(api, op.Operation("rooms", op.Everybody, http.MethodGet, "/rooms", "The studio's rooms"), s.rooms)
	huma.Register(api, op.Operation("put-room", op.Planners, http.MethodPut, "/rooms/{room}", "Add or change a room"), s.putRoom)
}

// roomsRead is what rooms are shown from.
type roomsRead struct {
	rooms   []store.Room
	clients []store.Client
}

func (r *roomsRead) read(ctx context.Context, tx *store.Tx) (err error) {
	if r.rooms, err = tx.Rooms(ctx); err == nil {
		r.clients, err = tx.Clients(ctx)
	}
	return err
}

func (r *roomsRead) of(id uuid.UUID) int {
	return slices.IndexFunc(r.rooms, func(one store.Room) bool { return one.ID == id })
}

func (s *place) rooms(ctx context.Context, _ *struct{}) (*roomsOutput, error) {
	return op.Showing(ctx, s.Server, func(tx *store.Tx, r *roomsRead) error { return r.read(ctx, tx) },
		func(r *roomsRead) (*roomsOutput, error) {
			out := &roomsOutput{}
			out.Body.Rooms, out.Body.Stations = []RoomView{}, map[string]string{}
			for id, name := range person.Stations() {
				out.Body.Stations[string(id)] = name
			}
			for _, one := range r.rooms {
				out.Body.Rooms = append(out.Body.Rooms, viewRoom(ctx, one, r.clients))
			}
			return out, nil
		})
}

func (s *place) putRoom(ctx context.Context, in *roomInput) (*roomOutput, error) {
	room, err := readRoom(&in.Body.Form)
	if err != nil {
		return nil, err
	}
	return op.Showing(ctx, s.Server, func(tx *store.Tx, r *roomsRead) error {
		if err := r.read(ctx, tx); err != nil {
			return err
		}
		if at := r.of(in.Room); at >= 0 {
			keepBeyond(&room, r.rooms[at].Things)
		}
		if in.Body.Mark == "" {
			if err := tx.AddRoom(ctx, in.Room, room); err != nil {
				return err
			}
		} else {
			done, err := tx.PutRoom(ctx, store.Room{ID: in.Room, Mark: in.Body.Mark, Room: room})
			if err != nil {
				return err
			}
			if !done {
				return op.Problem(http.StatusConflict, "somebody changed this room in between, or it is gone; nothing was written, look again")
			}
		}
		return r.read(ctx, tx)
	}, func(r *roomsRead) (*roomOutput, error) {
		at := r.of(in.Room)
		if at < 0 {
			return nil, store.ErrNotFound
		}
		return &roomOutput{viewRoom(ctx, r.rooms[at], r.clients)}, nil
	})
}

func viewRoom(ctx context.Context, r store.Room, clients []store.Client) RoomView {
	out := RoomView{ID: r.ID, Mark: r.Mark, Form: formOf(&r.Room), More: []string{}, Gaps: []string{}, Missing: []MissingView{},
		Clients: []string{}}
	for _, t := range beyondTheForm(r.Things) {
		out.More = append(out.More, t.Words())
	}
	for i := range r.Things {
		if t := &r.Things[i]; t.Kind == person.Belt || t.Kind == movement.Dumbbell && t.Count < 2 {
			continue
		}
		for _, g := range person.Gaps(r.Things[i].LoadsKg()) {
			words := fmt.Sprintf("%s: from %g straight to %g kg (%.0f %% more)", r.Things[i].Name(), g[0], g[1], 100*(g[1]/g[0]-1))
			out.Gaps = append(out.Gaps, words)
		}
	}
	waits := map[string]int{}
	for _, m := range op.Movements(ctx).Movements {
		out.Of++
		way, _ := r.Way(m.Default())
		missing := r.Missing(way)
		if len(missing) == 0 {
			out.Allows++
		}
		for _, what := range missing {
			waits[what]++
		}
	}
	for what, n := range waits {
		out.Missing = append(out.Missing, MissingView{what, n})
	}
	slices.SortFunc(out.Missing, func(a, b MissingView) int {
		if a.Waits != b.Waits {
			return b.Waits - a.Waits
		}
		return strings.Compare(a.What, b.What)
	})
	for i := range clients {
		if slices.Contains(clients[i].Dossier.Rooms, r.ID.String()) {
			out.Clients = append(out.Clients, clients[i].Dossier.Name)
		}
	}
	return out
}
