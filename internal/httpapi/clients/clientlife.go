package clients

import (
	"archive/zip"
	"context"
	"encoding/json"
	"errors"
	"io"
	"net/http"
	"os"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/entry"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

type addClientInput struct {
	Body struct {
		ID   uuid.UUID `json:"id"`
		Name string    `json:"name" maxLength:"80"`
	}
}

// DeletedView is a client that can still be brought back.
type DeletedView struct {
	ID       uuid.UUID `json:"id"`
	Name     string    `json:"name"`
	When     string    `json:"when"`
	ErasedOn string    `json:"erased_on"`
}

// EventView is what was done with a whole client.
type EventView struct {
	What string    `json:"what"`
	Who  string    `json:"who"` // the client, where the studio still knows the name
	By   string    `json:"by"`
	At   time.Time `json:"at"`
}

type deletedOutput struct {
	Body struct {
		Deleted  []DeletedView `json:"deleted"`
		Events   []EventView   `json:"events"`
		UndoDays int           `json:"undo_days"`
	}
}

type exportInput struct {
	Client uuid.UUID `path:"client"`
	Photos bool      `query:"photos" doc:"photos too; never unless asked"`
}

func (s *place) registerClientLife(api huma.API) {
	huma.Register(api, op.Operation("add-client", op.Planners, http.MethodPost, "/clients", "Add a client"), s.addClient)
	huma.Register(
		api,
		op.Operation("delete-client", op.Planners, http.MethodDelete, "/clients/{client}", "Delete a client; can be undone for a month"),
		s.deleteClient,
	)
	huma.Register(
		api,
		op.Operation("restore-client", op.Planners, http.MethodPost, "/clients/{client}/restore", "Bring a deleted client back"),
		s.restoreClient,
	)
	huma.Register(
		api,
		op.Operation(
			"deleted-clients",
			op.Planners,
			http.MethodGet,
			"/deleted-clients",
			"Who can still be brought back, and what was done",
		),
		s.deletedClients,
	)
	huma.Register(
		api,
		op.Operation(
			"erase-consented",
			op.Owners,
			http.MethodPost,
			"/clients/{client}/erase",
			"Erase what was kept by a consent that was withdrawn",
		),
		s.eraseConsented,
	)
	huma.Register(
		api,
		op.Operation(
			"export-client",
			op.Owners,
			http.MethodGet,
			"/clients/{client}/export",
			"Everything about a client as a file",
			op.Takes(60*time.Second),
		),
		s.exportClient,
	)
}

func (s *place) addClient(ctx context.Context, in *addClientInput) (*clientOutput, error) {
	d := person.NewDossier(strings.TrimSpace(in.Body.Name))
	d.Units = op.AccountOf(ctx).Units // until the client says otherwise
	if err := op.FieldFaults("body.", d.Check(s.Day(ctx))); err != nil {
		return nil, err
	}
	if err := s.InStudio(ctx, func(tx *store.Tx, a store.Account) error { return tx.AddClient(ctx, in.Body.ID, d, a.ID) }); err != nil {
		return nil, err
	}
	return s.getClient(ctx, &op.ClientInput{Client: in.Body.ID})
}

func (s *place) deleteClient(ctx context.Context, in *op.ClientInput) (*struct{}, error) {
	return nil, s.InStudio(ctx, func(tx *store.Tx, a store.Account) error { return tx.DeleteClient(ctx, in.Client, a.ID, s.Now()) })
}

func (s *place) restoreClient(ctx context.Context, in *op.ClientInput) (*struct{}, error) {
	return nil, s.InStudio(ctx, func(tx *store.Tx, a store.Account) error { return tx.RestoreClient(ctx, in.Client, a.ID) })
}

func (s *place) deletedClients(ctx context.Context, _ *struct{}) (*deletedOutput, error) {
	out := &deletedOutput{}
	out.Body.Deleted, out.Body.Events, out.Body.UndoDays = []DeletedView{}, []EventView{}, store.UndoDays
	return out, s.InStudio(ctx, func(tx *store.Tx, _ store.Account) error {
		names := map[uuid.UUID]string{}
		here, err := tx.Clients(ctx)
		if err != nil {
			return err
		}
		for _, c := range here {
			names[c.ID] = c.Dossier.Name
		}
		deleted, err := tx.DeletedClients(ctx)
		if err != nil {
			return err
		}
		for _, d := range deleted {
			names[d.ID] = d.Name
			out.Body.Deleted = append(
				out.Body.Deleted,
				DeletedView{d.ID, d.Name, day.At(d.At.In(store.ZoneOf(ctx))).FromToday(s.Day(ctx)), op.DateWords(d.ErasedOn)},
			)
		}
		events, err := tx.Events(ctx)
		for _, e := range events {
			out.Body.Events = append(out.Body.Events, EventView{e.What, names[e.Client], e.By, e.At})
		}
		return err
	})
}

// Exported is everything about a client, as the file holds it.
type Exported struct {
	Format     string         `json:"format"` // musculus-client 1
	ExportedOn string         `json:"exported_on"`
	Dossier    person.Dossier `json:"dossier"`
	Stance     string         `json:"stance"`
	Rooms      []person.Room  `json:"rooms"`
	// Records are every row about her as it is kept, by table: what is told above in
	// its order, and whatever it leaves out.
	Records    map[string][]json.RawMessage `json:"records"`
	Screenings []store.ScreeningRound       `json:"screenings"`
	Joints     []person.JointReport         `json:"joints"`
	Overrides  []store.Override             `json:"overrides"`
	Measured   []store.Measuring            `json:"measured"`
	Photos     []store.Photo                `json:"photos"` // lines; the files only where asked for
	Ratings    any                          `json:"ratings"`
	Emphasis   any                          `json:"emphasis"`
	TryOuts    []store.TryOut               `json:"try_outs"`
	Sessions   []store.Session              `json:"sessions"`
	Sets       []ExportedSet                `json:"sets"`
}

// ExportedSet is one logged set.
type ExportedSet struct {
	Session uuid.UUID  `json:"session"`
	Series  string     `json:"series"`
	Side    entry.Side `json:"side"`
	SetNo   int        `json:"set_no"`
	Reps    int        `json:"reps"`
	LoadKg  float64    `json:"load_kg"` // what one hand carried
	Reserve int        `json:"reserve"`
	Note    string     `json:"note"`
	DoneAt  time.Time  `json:"done_at"`
}

type eraseInput struct {
	Client uuid.UUID `path:"client"`
	Body   struct {
		What store.Consented `json:"what" enum:"health,body" doc:"health notes, or measures and photos"`
	}
}

// eraseConsented erases for good what was kept by a consent that was withdrawn.
func (s *place) eraseConsented(ctx context.Context, in *eraseInput) (*dossierOutput, error) {
	var gone []store.Photo
	out, err := s.answerDossier(ctx, in.Client, func(tx *store.Tx) error {
		c, err := tx.Client(ctx, in.Client)
		if err == nil && in.Body.What == store.Body {
			gone, err = tx.Photos(ctx, c.ID)
		}
		if err != nil {
			return err
		}
		done, err := tx.EraseConsented(ctx, c.ID, in.Body.What, op.AccountOf(ctx).ID)
		if err == nil && !done {
			err = op.Problem(http.StatusConflict, "the consent still holds: it is withdrawn first (Dossier, Consent)")
		}
		return err
	})
	for _, p := range gone {
		if err == nil {
			err = op.ProblemIf(s.Photos.Drop(op.AccountOf(ctx).Studio, p.ID))
		}
	}
	return out, err
}

func (s *place) exportClient(ctx context.Context, in *exportInput) (*huma.StreamResponse, error) {
	all := Exported{Format: "musculus-client 1", ExportedOn: s.Day(ctx).String()}
	if err := s.InStudio(ctx, func(tx *store.Tx, a store.Account) (err error) {
		if err := gather(ctx, tx, in.Client, &all, op.Movements(ctx)); err != nil {
			return err
		}
		if err := tx.AddEvent(ctx, in.Client, "exported", a.ID); err != nil {
			return err
		}
		all.Records, err = tx.Records(ctx, in.Client)
		return err
	}); err != nil {
		return nil, err
	}
	if !in.Photos {
		all.Photos = nil
	}
	a := op.AccountOf(ctx)
	studio := a.Studio
	s.NoteRead(ctx, in.Client, "export")
	s.NoteSecurity(ctx, studio, store.SecurityEvent{Account: &a.ID, What: "exported a client", About: in.Client.String()})
	return &huma.StreamResponse{Body: func(hc huma.Context) {
		hc.SetHeader("Content-Type", "application/zip")
		hc.SetHeader("Content-Disposition", `attachment; filename="client.zip"`)
		out := zip.NewWriter(hc.BodyWriter())
		file, err := out.Create("client.json")
		if err == nil {
			encoder := json.NewEncoder(file)
			encoder.SetIndent("", "  ")
			err = encoder.Encode(all)
		}
		for _, p := range all.Photos {
			if err == nil {
				err = s.addPhotoTo(out, studio, p)
			}
		}
		if err = errors.Join(err, out.Close()); err != nil {
			panic(http.ErrAbortHandler) // what is cut short must not look whole
		}
	}}, nil
}

func (s *place) addPhotoTo(out *zip.Writer, studio uuid.UUID, p store.Photo) error {
	from, err := s.Photos.Open(studio, p.ID, false)
	if errors.Is(err, os.ErrNotExist) {
		return nil
	}
	if err != nil {
		return err
	}
	defer from.Close()
	to, err := out.Create("photos/" + p.On.String() + "-" + p.Pose + "-" + p.ID.String() + ".jpg")
	if err != nil {
		return err
	}
	_, err = io.Copy(to, from)
	return err
}

// gather reads everything about a client.
func gather(ctx context.Context, tx *store.Tx, id uuid.UUID, all *Exported, c *movement.Catalogue) error {
	client, err := tx.Client(ctx, id)
	if err != nil {
		return err
	}
	all.Dossier, all.Stance, all.Joints = client.Dossier, client.Stance.Name, client.Joints
	for _, r := range client.Rooms {
		all.Rooms = append(all.Rooms, r.Room)
	}
	read := func(what func() error) {
		if err == nil {
			err = what()
		}
	}
	read(func() (err error) { all.Screenings, err = tx.Screenings(ctx, id); return })
	read(func() (err error) { all.Overrides, err = tx.Overrides(ctx, id); return })
	read(func() (err error) { all.Measured, err = tx.Measurings(ctx, id); return })
	read(func() (err error) { all.Photos, err = tx.Photos(ctx, id); return })
	read(func() (err error) { all.Ratings, err = tx.Ratings(ctx, id); return })
	read(func() (err error) { all.Emphasis, _, err = tx.Emphasis(ctx, id); return })
	read(func() (err error) { all.TryOuts, err = tx.TryOuts(ctx, id); return })
	read(func() (err error) { all.Sessions, err = tx.Sessions(ctx, id, op.Movements(ctx)); return })
	for _, session := range all.Sessions {
		read(func() error {
			sets, err := tx.SessionEntries(ctx, session.ID, c)
			for _, e := range sets {
				key := ""
				if e.SetUp.Movement != nil {
					key = e.SetUp.Key()
				}
				all.Sets = append(all.Sets, ExportedSet{e.SessionID, key, e.Side, e.SetNo, e.Reps, e.LoadKg, e.Reserve, e.Note, e.DoneAt})
			}
			return err
		})
	}
	return err
}
