package clients

import (
	"context"
	"strings"

	"github.com/google/uuid"

	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

// dossierRead is what a dossier is shown from.
type dossierRead struct {
	c      store.Client
	rooms  []store.Room
	rounds []store.ScreeningRound
	reads  []store.Read
}

func readDossier(ctx context.Context, tx *store.Tx, id uuid.UUID, r *dossierRead) (err error) {
	if r.c, err = tx.Client(ctx, id); err != nil {
		return err
	}
	if r.rooms, err = tx.Rooms(ctx); err != nil {
		return err
	}
	if op.AccountOf(ctx).Role != store.Assistant {
		if r.reads, err = tx.ReadTrail(ctx, id); err != nil {
			return err
		}
	}
	r.rounds, err = tx.Screenings(ctx, id)
	return err
}

// answerDossier shows a dossier as it is after do.
func (s *place) answerDossier(ctx context.Context, client uuid.UUID, do func(*store.Tx) error) (*dossierOutput, error) {
	return op.Showing(ctx, s.Server, func(tx *store.Tx, r *dossierRead) error {
		if err := do(tx); err != nil {
			return err
		}
		return readDossier(ctx, tx, client, r)
	}, func(r *dossierRead) (*dossierOutput, error) {
		v, err := s.showDossier(ctx, r)
		return &dossierOutput{v}, err
	})
}

func (s *place) showDossier(ctx context.Context, r *dossierRead) (out DossierView, err error) {
	c, rooms, rounds := &r.c, r.rooms, r.rounds
	today := s.Day(ctx)
	out = DossierView{
		ID:        c.ID,
		Dossier:   c.Dossier,
		Says:      c.Dossier.Says(today),
		Standing:  viewStanding(c.Standing(today)),
		Caps:      []string{},
		Rounds:    []string{},
		WishKinds: []WishView{},
		Wishes:    []WishView{},
		Studio:    []RoomName{},
		Questions: []QuestionView{},
		Joints:    viewJoints(c.Joints),
		Opened:    []string{},
		Mobility:  c.Dossier.Mobility.Says(),
		Health:    person.NoDiagnosis,
	}
	for _, k := range person.WishKinds {
		out.WishKinds = append(out.WishKinds, viewWish(&k))
	}
	for _, w := range c.Dossier.Wishes {
		v := WishView{Heads: []string{}}
		if kinds := person.WishHeads(w.Text); len(kinds) > 0 {
			v = viewWish(kinds[0])
		}
		out.Wishes = append(out.Wishes, v)
	}
	for _, r := range rooms {
		out.Studio = append(out.Studio, RoomName{r.ID, r.Name})
	}
	for _, id := range c.Standing(today).Caps {
		out.Caps = append(out.Caps, id.Words())
	}
	for _, q := range person.Questions {
		out.Questions = append(out.Questions, QuestionView{q.ID, q.Text, q.Says, q.Level.ID(), q.Clears})
	}
	if c.Dossier.HealthConsent == nil { // out of sight until it is erased or allowed again
		out.Hidden, rounds = len(rounds), nil
	}
	out.MayMeasure = c.Dossier.MayMeasure(today)
	for i, r := range rounds {
		if i == 0 {
			out.Asked = &RoundView{r.On.String(), r.On.Words(), r.By, r.Answers}
		}
		out.Rounds = append(out.Rounds, r.On.Words())
	}
	if op.AccountOf(ctx).Role == store.Assistant { // what they come to is seen, not what was answered
		out.AnswersHidden, out.Asked, out.Rounds, out.Standing.Said = true, nil, []string{}, []SaidView{}
	}
	out.Opened = viewReads(r.reads)
	out.Verdicts, err = s.verdicts(ctx, c)
	return out, err
}

var readWords = map[string]string{"dossier": "the dossier", "photos": "photos", "export": "all of it as a file,"}

// viewReads tells who opened what, a line a day: "26 November 2026: the dossier by Wren; photos by Jory".
func viewReads(reads []store.Read) []string {
	out := []string{}
	for i := 0; i < len(reads); {
		line, day := reads[i].On.Words()+": ", reads[i].On
		for first := true; i < len(reads) && reads[i].On == day; i, first = i+1, false {
			if !first {
				line += "; "
			}
			line += readWords[reads[i].What] + " by " + reads[i].Name
		}
		out = append(out, line)
	}
	return out
}

func viewWish(k *person.WishKind) WishView {
	v := WishView{k.Says, k.Heads, k.Note}
	if v.Heads == nil {
		v.Heads = []string{}
	}
	return v
}

func viewStanding(st person.Standing) StandingView {
	out := StandingView{Level: st.Level.ID(), Heading: st.Heading(), MayTrain: st.MayTrain(), Said: []SaidView{}}
	for _, said := range st.Said {
		out.Said = append(out.Said, SaidView{said.Level.ID(), said.Words})
	}
	return out
}

// viewJoints lists every joint of both sides, with what was reported.
func viewJoints(reports []person.JointReport) []JointView {
	out := []JointView{}
	for _, j := range movement.Joints {
		for _, side := range []person.Side{person.Left, person.Right} {
			v := JointView{Joint: string(j), Name: j.Words(), Side: string(side), Reports: []JointPoint{}}
			for _, r := range reports { // oldest first
				if r.Joint == j && r.Side == side {
					v.Reports = append(v.Reports, JointPoint{r.On.String(), r.On.Words(), r.Score, r.Provokes, r.Outside})
					score := r.Score
					v.Score, v.Sore = &score, person.Soreness(score)
				}
			}
			out = append(out, v)
		}
	}
	return out
}

// verdicts rules on the whole catalogue for a client.
func (s *place) verdicts(ctx context.Context, c *store.Client) (VerdictCount, error) {
	out := VerdictCount{Lines: []VerdictLine{}}
	t, err := s.Trainee(c)
	if err != nil {
		return out, err
	}
	for _, m := range op.Movements(ctx).Movements {
		set := m.Default()
		v := t.Fence.Judge(set, t.Profile(set)) // a body that cannot do it is still judged by the joints
		if _, ok := t.Room.Way(set); !ok {
			out.Lacking++
		}
		switch v.Ruling {
		case person.Allowed:
			out.Allowed++
			continue
		case person.Modify:
			out.Modify++
		default:
			out.Avoid++
		}
		words := make([]string, len(v.Reasons))
		for i, r := range v.Reasons {
			words[i] = r.Words
		}
		out.Lines = append(out.Lines, VerdictLine{m.ID, set.Title(), string(v.Ruling), strings.Join(words, " "), v.Overridden})
	}
	return out, nil
}
