package sheet

import (
	"bytes"
	"context"
	"fmt"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/formats"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
	"musculus/internal/view"
)

type pdfInput struct {
	op.SessionPath
	Letter bool `query:"letter"`
}

type linkPDFInput struct {
	Token   string    `path:"token" maxLength:"100"`
	Session uuid.UUID `path:"session"`
	Letter  bool      `query:"letter"`
}

// sheetPDF is the sheet as it is planned now. Paper leaves like a link does: what
// must not be issued is not printed either.
func (s *place) sheetPDF(ctx context.Context, in *pdfInput) (*huma.StreamResponse, error) {
	out, err := s.answerSheet(ctx, in.Client, func(tx *store.Tx, c *store.Client) (store.Session, error) {
		kept, err := tx.Session(ctx, in.Client, in.Session, op.Movements(ctx))
		if err != nil {
			return kept, err
		}
		t, err := s.Informed(ctx, tx, c)
		if err == nil {
			err = s.mayLeave(t, c, &kept)
		}
		return kept, err
	})
	if err != nil {
		return nil, err
	}
	return pdfOf(&out.Body, in.Letter)
}

// linkPDF is a sheet as it left.
func (s *place) linkPDF(ctx context.Context, in *linkPDFInput) (*huma.StreamResponse, error) {
	opened, err := s.openLink(ctx, &openInput{Token: in.Token})
	if err != nil {
		return nil, err
	}
	for i := range opened.Body.Sheets {
		if opened.Body.Sheets[i].Session == in.Session {
			return pdfOf(&opened.Body.Sheets[i].Sheet, in.Letter)
		}
	}
	return nil, op.Problem(http.StatusNotFound, "no such sheet was sent")
}

func pdfOf(v *SheetView, letter bool) (*huma.StreamResponse, error) {
	if v.Blocked != "" {
		return nil, op.Problem(http.StatusUnprocessableEntity, v.Blocked)
	}
	var b bytes.Buffer
	if err := formats.WriteSheetPDF(&b, paperOf(v), letter); err != nil {
		return nil, op.ProblemOf(err)
	}
	return &huma.StreamResponse{Body: func(hc huma.Context) {
		hc.SetHeader("Content-Type", "application/pdf")
		hc.SetHeader("Content-Disposition", `inline; filename="sheet.pdf"`)
		if _, err := hc.BodyWriter().Write(b.Bytes()); err != nil {
			panic(http.ErrAbortHandler)
		}
	}}, nil
}

// warmUpWords tells the whole warm-up: the general one, then the ramp.
func warmUpWords(v *SheetView) string {
	if v.Ramp == "" {
		return v.WarmUp
	}
	return v.WarmUp + ", then " + v.Ramp
}

// paperOf lays a sheet out for paper.
func paperOf(v *SheetView) *formats.PDFSheet {
	heads := func(s *view.SliceView) []formats.PDFHead {
		var out []formats.PDFHead
		for _, h := range s.Heads {
			out = append(out, formats.PDFHead{ID: h.ID, Level: h.Level, Leading: h.Leading})
		}
		return out
	}
	out := &formats.PDFSheet{
		Client:   v.Client,
		Session:  v.Session,
		Where:    v.Date + " · " + v.Room,
		Facts:    fmt.Sprintf("%.0f minutes", v.Minutes),
		WarmUp:   warmUpWords(v),
		Caps:     v.Caps,
		Cautions: v.Cautions,
		Studio:   v.Studio,
		Total:    heads(&v.Total),
	}
	for i := range v.Slots {
		s := &v.Slots[i]
		how := []string{s.Effort, s.Rest, s.Tempo}
		for _, more := range []string{s.Ends, s.Range, s.Starts, s.Grips} {
			if more != "" {
				how = append(how, more)
			}
		}
		out.Slots = append(
			out.Slots,
			formats.PDFSlot{
				Title:   s.Title,
				Details: s.Details,
				SetUp:   strings.Join(s.SetUp, " · "),
				Last:    s.Last,
				Find:    s.How,
				Combo:   s.Combo,
				InCombo: s.InCombo,
				Sets:    s.Boxes.Sets,
				Arms:    s.Boxes.Arms,
				Unit:    s.Boxes.Unit,
				Dose:    s.Sets + " · " + s.Load,
				How:     strings.Join(how, " · "),
				Stop:    strings.Join(append([]string{s.Stop + ". Upper arm: " + s.Arm + "."}, s.Keeps...), " "),
				Cues:    s.Cues,
				Pose:    s.Pose,
				Ribbon:  s.Ribbon,
				Heads:   heads(&s.Slice),
			},
		)
	}
	return out
}
