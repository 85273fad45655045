package growth

import (
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"io"
	"mime/multipart"
	"net/http"
	"os"
	"slices"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"musculus/internal/core/day"
	"musculus/internal/core/priority"
	"musculus/internal/httpapi/op"
	"musculus/internal/photos"
	"musculus/internal/store"
)

// PhotoView is a photo's line.
type PhotoView struct {
	ID     uuid.UUID `json:"id"`
	On     string    `json:"on"`
	Pose   string    `json:"pose"`
	Width  int       `json:"width"`
	Height int       `json:"height"`
}

type photoInput struct {
	Client  uuid.UUID `path:"client"`
	RawBody multipart.Form
}

type photoPath struct {
	Client uuid.UUID `path:"client"`
	Photo  uuid.UUID `path:"photo"`
	Thumb  bool      `query:"thumb"`
}

func (s *place) registerPhotos(api huma.API) {
	huma.Register(
		api,
		op.Operation(
			"add-photo",
			op.Everybody,
			http.MethodPost,
			"/clients/{client}/photos",
			"Keep a photo (JPEG or PNG); place, time and device are taken out of it",
			op.Reads(photos.MostBytes+1<<20),
			op.Takes(30*time.Second),
		),
		s.addPhoto,
	)
	huma.Register(
		api,
		op.Operation("get-photo", op.Everybody, http.MethodGet, "/clients/{client}/photos/{photo}", "A photo, or its thumbnail"),
		s.getPhoto,
	)
	huma.Register(
		api,
		op.Operation("drop-photo", op.Planners, http.MethodDelete, "/clients/{client}/photos/{photo}", "Delete a photo for good"),
		s.dropPhoto,
	)
}

func viewPhoto(p store.Photo) PhotoView {
	return PhotoView{p.ID, p.On.Words(), p.Pose, p.Width, p.Height}
}

func (s *place) addPhoto(ctx context.Context, in *photoInput) (*measuresOutput, error) {
	value := func(name string) string { return strings.Join(in.RawBody.Value[name], "") }
	id, err := uuid.Parse(value("id"))
	if err != nil {
		return nil, op.FieldProblem("body.id", "not an id")
	}
	on, err := day.Parse(value("on"))
	if err != nil || on > s.Day(ctx) {
		return nil, op.FieldProblem("body.on", "the day it was taken, not in the future")
	}
	pose := value("pose")
	if !slices.Contains(priority.Views, pose) {
		return nil, op.FieldProblem("body.pose", "one of %s", strings.Join(priority.Views, ", "))
	}
	files := in.RawBody.File["photo"]
	if len(files) != 1 {
		return nil, op.FieldProblem("body.photo", "one picture at a time")
	}
	file, err := files[0].Open()
	if err != nil {
		return nil, op.ProblemOf(err)
	}
	defer file.Close()
	b, err := io.ReadAll(file)
	if err != nil {
		return nil, op.ProblemOf(err)
	}
	sum := sha256.Sum256(b)
	p := store.Photo{ID: id, On: on, Pose: pose, Digest: hex.EncodeToString(sum[:])}
	again, studio := false, op.AccountOf(ctx).Studio
	if err := s.InClient(ctx, in.Client, func(tx *store.Tx, _ store.Account, c *store.Client) error {
		if why := c.Dossier.MayMeasure(s.Day(ctx)); why != "" {
			return op.FieldProblem("body.body_consent", "%s", why)
		}
		was, err := tx.Photo(ctx, in.Client, id)
		if errors.Is(err, pgx.ErrNoRows) {
			return nil
		}
		again = err == nil
		p.Width, p.Height = was.Width, was.Height
		if again && was.Digest != "" && was != p {
			return store.ErrTaken
		}
		return err
	}); err != nil {
		return nil, err
	}
	if !again {
		if err := s.putPicture(ctx, studio, &p, b); err != nil {
			return nil, op.ProblemIf(err)
		}
	}
	return s.answerMeasures(ctx, in.Client, func(tx *store.Tx, a store.Account, c *store.Client) (err error) {
		if again {
			return nil
		}
		if why := c.Dossier.MayMeasure(s.Day(ctx)); why != "" { // withdrawn while the picture was read
			err = op.FieldProblem("body.body_consent", "%s", why)
		} else {
			err = tx.AddPhoto(ctx, in.Client, p, a.ID)
		}
		if err != nil {
			return errors.Join(err, s.Photos.Drop(studio, id))
		}
		return nil
	})
}

// putPicture keeps a picture's file, upright and stripped, and says how large it is;
// no connection waits for it.
func (s *place) putPicture(ctx context.Context, studio uuid.UUID, p *store.Photo, b []byte) (err error) {
	if there, err := s.Photos.Open(studio, p.ID, true); err == nil { // another client's: it stays as it is
		there.Close()
		return store.ErrTaken
	}
	p.Width, p.Height, err = s.Photos.Put(ctx, studio, p.ID, bytes.NewReader(b))
	var refused *photos.Refused
	if errors.As(err, &refused) {
		return op.FieldProblem("body.photo", "%s", refused.Reason)
	}
	return err
}

func (s *place) getPhoto(ctx context.Context, in *photoPath) (*huma.StreamResponse, error) {
	if err := s.InStudio(ctx, func(tx *store.Tx, _ store.Account) error {
		c, err := tx.Client(ctx, in.Client) // a deleted client's photos are out of sight too
		if err != nil {
			return err
		}
		if c.Dossier.MayMeasure(s.Day(ctx)) != "" { // kept, but not shown
			return store.ErrNotFound
		}
		_, err = tx.Photo(ctx, in.Client, in.Photo)
		return err
	}); err != nil {
		return nil, err
	}
	s.NoteRead(ctx, in.Client, "photos")
	file, err := s.Photos.Open(op.AccountOf(ctx).Studio, in.Photo, in.Thumb)
	if errors.Is(err, os.ErrNotExist) {
		return nil, op.Problem(http.StatusNotFound, "the picture’s file is gone")
	}
	if err != nil {
		return nil, op.ProblemOf(err)
	}
	return &huma.StreamResponse{Body: func(hc huma.Context) {
		defer file.Close()
		hc.SetHeader("Content-Type", "image/jpeg")
		if _, err := io.Copy(hc.BodyWriter(), file); err != nil {
			panic(http.ErrAbortHandler)
		}
	}}, nil
}

func (s *place) dropPhoto(ctx context.Context, in *photoPath) (*measuresOutput, error) {
	return s.answerMeasures(ctx, in.Client, func(tx *store.Tx, a store.Account, _ *store.Client) error {
		if err := tx.DropPhoto(ctx, in.Client, in.Photo); err != nil {
			return err
		}
		return s.Photos.Drop(a.Studio, in.Photo)
	})
}
