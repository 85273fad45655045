package floor

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/httpapi/bylink"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

// LinkPath is a session by a link.
type LinkPath struct {
	Token   string    `path:"token"   maxLength:"100"`
	Session uuid.UUID `path:"session"`
}

type linkTellInput struct {
	LinkPath
	Body ToldBody
}

func (s *place) registerLink(api huma.API) {
	const path = "/links/{token}/floor/{session}"
	huma.Register(
		api,
		op.Operation("link-ready", op.Anybody, http.MethodGet, path, "A client's session as it is run, by her link"),
		s.linkReady,
	)
	huma.Register(
		api,
		op.Operation("link-done", op.Anybody, http.MethodGet, path+"/done", "What was told of it so far"),
		s.linkDone,
	)
	huma.Register(
		api,
		op.Operation("link-tell", op.Anybody, http.MethodPost, path, "Tell what was done, by her link", op.Reads(mostTold)),
		s.linkTell,
	)
}

// Holder is who holds a link that may log: where her sessions are, and as whom she tells.
type Holder struct {
	At      op.SessionPath
	Version int // what her last sheet was made of
	by      teller
}

// holder lets in who holds a link that may log, to a session whose sheet has left.
func (s *place) holder(ctx context.Context, in *LinkPath) (context.Context, Holder, error) {
	ctx, opened, _, err := bylink.Open(ctx, s.Server, in.Token)
	switch {
	case err != nil:
		return ctx, Holder{}, err
	case !opened.MayLog:
		return ctx, Holder{}, op.Problem(http.StatusForbidden, "this link shows sessions; it does not log them")
	}
	h := Holder{
		At: op.SessionPath{Client: opened.Client, Session: in.Session},
		by: teller{Teller: store.Teller{Link: &opened.Link}},
	}
	return ctx, h, s.InClient(ctx, opened.Client, func(tx *store.Tx, _ store.Account, c *store.Client) (err error) {
		h.by.hidden = c.Dossier.HideWeights
		if h.Version, err = tx.SentVersion(ctx, opened.Client, in.Session); err == store.ErrNotFound {
			return op.Problem(http.StatusNotFound, "no such sheet was sent")
		}
		return err
	})
}

func (s *place) linkReady(ctx context.Context, in *LinkPath) (*readyOutput, error) {
	ctx, h, err := s.holder(ctx, in)
	if err != nil {
		return nil, err
	}
	v, err := s.readyAs(ctx, h.At, h.Version, true)
	return &readyOutput{v}, err
}

func (s *place) linkDone(ctx context.Context, in *LinkPath) (*doneOutput, error) {
	ctx, h, err := s.holder(ctx, in)
	if err != nil {
		return nil, err
	}
	v, err := s.done(ctx, h.At, h.by.reads())
	v.Version = h.Version
	return &doneOutput{v}, err
}

func (s *place) linkTell(ctx context.Context, in *linkTellInput) (*tellOutput, error) {
	ctx, h, err := s.holder(ctx, &in.LinkPath)
	if err != nil {
		return nil, err
	}
	out, err := s.take(ctx, h.At, &in.Body, h.by)
	if err == nil {
		out.Body.Done.Version = h.Version
	}
	return out, err
}
