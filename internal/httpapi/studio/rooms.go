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

// RoomForm is a room as it is typed: steps as "2–20 by 2, 25, 30".
type RoomForm struct {
	Name     string     `json:"name" maxLength:"80"`
	Pairs    string     `json:"pairs" maxLength:"400"`   // dumbbells there are two of
	Singles  string     `json:"singles" maxLength:"400"` // dumbbells there is one of
	Bars     []BarForm  `json:"bars" maxItems:"4"`
	Cable    *CableForm `json:"cable,omitempty"`
	Bench    *BenchForm `json:"bench,omitempty"`
	Pads     bool       `json:"pads"`
	Slopes   string     `json:"slopes" maxLength:"200"`
	Pins     bool       `json:"pins"`
	Rails    bool       `json:"rails"`
	Partner  bool       `json:"partner"`
	DipBars  bool       `json:"dip_bars"`
	DipLoads string     `json:"dip_loads" maxLength:"400"`
	Others   []string   `json:"others" maxItems:"20"`
}

// BarForm is a bar with its mass and what it can be loaded to.
type BarForm struct {
	Kind  string  `json:"kind" enum:"bar_straight,bar_cambered"`
	OwnKg float64 `json:"own_kg"`
	Loads string  `json:"loads" maxLength:"400"`
}

// CableForm is the room's cable columns.
type CableForm struct {
	Columns     int      `json:"columns"`
	Stack       string   `json:"stack" maxLength:"400"`
	Ratio       float64  `json:"ratio"`
	Attachments []string `json:"attachments" maxItems:"10"`
	LowM        float64  `json:"low_m"`
	HighM       float64  `json:"high_m"`
}

// BenchForm is the room's bench.
type BenchForm struct {
	Min     float64 `json:"min_deg"`
	Max     float64 `json:"max_deg"`
	Notches string  `json:"notches" maxLength:"200"`
}

// RoomView is a room with what it allows.
type RoomView struct {
	ID      uuid.UUID     `json:"id"`
	Mark    string        `json:"mark"` // to be sent back when it is changed
	Form    RoomForm      `json:"form"`
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
		at := slices.IndexFunc(r.rooms, func(one store.Room) bool { return one.ID == in.Room })
		if at < 0 {
			return nil, store.ErrNotFound
		}
		return &roomOutput{viewRoom(ctx, r.rooms[at], r.clients)}, nil
	})
}

// readRoom reads what was typed; every field that is wrong is told.
func readRoom(f *RoomForm) (person.Room, error) {
	var wrong []person.FieldError
	list := func(field, text string, parse func(string) ([]float64, error)) []float64 {
		out, err := parse(text)
		if err != nil {
			wrong = append(wrong, person.FieldError{Field: field, Reason: err.Error()})
		}
		return out
	}
	r := person.Room{Name: strings.TrimSpace(f.Name), Pads: f.Pads, Pins: f.Pins, Rails: f.Rails, Partner: f.Partner, DipBars: f.DipBars}
	for _, kg := range list("pairs", f.Pairs, person.ParseSteps) {
		r.Dumbbells = append(r.Dumbbells, person.Dumbbell{Kg: kg, Count: 2})
	}
	for _, kg := range list("singles", f.Singles, person.ParseSteps) {
		r.Dumbbells = append(r.Dumbbells, person.Dumbbell{Kg: kg, Count: 1})
	}
	for i, b := range f.Bars {
		r.Bars = append(
			r.Bars,
			person.Bar{
				Kind:  movement.ImplementID(b.Kind),
				OwnKg: b.OwnKg,
				Loads: list(fmt.Sprintf("bars[%d].loads", i), b.Loads, person.ParseSteps),
			},
		)
	}
	if c := f.Cable; c != nil {
		r.Cable = &person.Cable{
			Columns: c.Columns,
			Stack:   list("cable.stack", c.Stack, person.ParseSteps),
			Ratio:   c.Ratio,
			LowM:    c.LowM,
			HighM:   c.HighM,
		}
		for _, a := range c.Attachments {
			r.Cable.Attachments = append(r.Cable.Attachments, movement.ImplementID(a))
		}
	}
	if b := f.Bench; b != nil {
		r.Bench = &person.Bench{Min: b.Min, Max: b.Max, Notches: list("bench.notches", b.Notches, person.ParseAngles)}
	}
	if f.Pads {
		r.Slopes = list("slopes", f.Slopes, person.ParseAngles)
	}
	if f.DipBars {
		r.DipLoads = list("dip_loads", f.DipLoads, person.ParseSteps)
	}
	for _, o := range f.Others {
		r.Others = append(r.Others, movement.ImplementID(o))
	}
	if len(wrong) == 0 {
		wrong = r.Check()
	}
	return r, op.FieldFaults("body.form.", wrong)
}

func viewRoom(ctx context.Context, r store.Room, clients []store.Client) RoomView {
	form := RoomForm{
		Name:     r.Name,
		Bars:     []BarForm{},
		Pads:     r.Pads,
		Slopes:   person.StepWords(r.Slopes),
		Pins:     r.Pins,
		Rails:    r.Rails,
		Partner:  r.Partner,
		DipBars:  r.DipBars,
		DipLoads: person.StepWords(r.DipLoads),
		Others:   []string{},
	}
	out := RoomView{ID: r.ID, Mark: r.Mark, Gaps: []string{}, Missing: []MissingView{}, Clients: []string{}}
	gaps := func(what string, steps []float64) {
		for _, g := range person.Gaps(steps) {
			out.Gaps = append(out.Gaps, fmt.Sprintf("%s: from %g straight to %g kg (%.0f %% more)", what, g[0], g[1], 100*(g[1]/g[0]-1)))
		}
	}
	var pairs, singles []float64
	for _, d := range r.Dumbbells {
		if d.Count >= 2 {
			pairs = append(pairs, d.Kg)
		} else {
			singles = append(singles, d.Kg)
		}
	}
	form.Pairs, form.Singles = person.StepWords(pairs), person.StepWords(singles)
	gaps("dumbbells", pairs)
	for _, b := range r.Bars {
		form.Bars = append(form.Bars, BarForm{string(b.Kind), b.OwnKg, person.StepWords(b.Loads)})
		gaps(movement.ChoiceWords(movement.Implement, string(b.Kind)), b.Loads)
	}
	if c := r.Cable; c != nil {
		form.Cable = &CableForm{
			Columns:     c.Columns,
			Stack:       person.StepWords(c.Stack),
			Ratio:       c.Ratio,
			Attachments: []string{},
			LowM:        c.LowM,
			HighM:       c.HighM,
		}
		for _, a := range c.Attachments {
			form.Cable.Attachments = append(form.Cable.Attachments, string(a))
		}
		gaps("cable stack", c.Stack)
	}
	if b := r.Bench; b != nil {
		form.Bench = &BenchForm{b.Min, b.Max, person.StepWords(b.Notches)}
	}
	for _, o := range r.Others {
		form.Others = append(form.Others, string(o))
	}
	out.Form = form
	waits := map[string]int{}
	for _, m := range op.Movements(ctx).Movements {
		out.Of++
		missing := r.Missing(m.Default())
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
