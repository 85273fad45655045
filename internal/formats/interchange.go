package formats

import (
	"bufio"
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
)

// longestLine is how long a line of the interchange may be, bytes.
const longestLine = 1 << 20

// Lines answers every line of in with one line of out. A line that answer
// cannot read gets a one-line error with its number on errs and the rest is
// still answered; malformed says how many there were. err is that of reading or
// writing.
func Lines(in io.Reader, out, errs io.Writer, answer func(line []byte) (any, error)) (malformed int, err error) {
	reader := bufio.NewReaderSize(in, 64<<10)
	writer := bufio.NewWriter(out)
	defer func() { err = errors.Join(err, writer.Flush()) }()
	encoder := json.NewEncoder(writer)
	encoder.SetEscapeHTML(false)
	for number := 1; ; number++ {
		line, tooLong, readErr := readLine(reader)
		if readErr != nil && readErr != io.EOF {
			return malformed, readErr
		}
		var answerErr error
		switch trimmed := bytes.TrimSpace(line); {
		case tooLong:
			answerErr = fmt.Errorf("longer than %d bytes", longestLine)
		case len(trimmed) > 0:
			var a any
			if a, answerErr = answer(trimmed); answerErr == nil {
				if err := encoder.Encode(a); err != nil {
					return malformed, err
				}
			}
		}
		if answerErr != nil {
			malformed++
			fmt.Fprintf(errs, "line %d: %s\n", number, oneLine(answerErr))
		}
		if readErr == io.EOF {
			return malformed, nil
		}
	}
}

func readLine(r *bufio.Reader) (line []byte, tooLong bool, err error) {
	for {
		part, err := r.ReadSlice('\n')
		if !tooLong {
			line = append(line, part...)
		}
		if len(line) > longestLine {
			line, tooLong = nil, true
		}
		if err != bufio.ErrBufferFull {
			return line, tooLong, err
		}
	}
}

func oneLine(err error) string {
	return string(bytes.ReplaceAll([]byte(err.Error()), []byte("\n"), []byte(" ")))
}

// strict reads one JSON object; unknown fields, wrong types and anything after
// the object are errors, so that a misspelt field is never taken for absent.
func strict(line []byte, into any) error {
	d := json.NewDecoder(bytes.NewReader(line))
	d.DisallowUnknownFields()
	if err := d.Decode(into); err != nil {
		return err
	}
	if line[0] != '{' {
		return errors.New("not a JSON object")
	}
	if _, err := d.Token(); err != io.EOF {
		return errors.New("something follows the JSON object")
	}
	return nil
}

// refusal answers a set-up that cannot be computed.
type refusal struct {
	Name    string `json:"name"`
	Refused string `json:"refused"`
}

// unreachable answers a posture that cannot be taken.
type unreachable struct {
	Name    string `json:"name,omitempty"`
	Refused string `json:"refused"`
}

type posturesIn struct {
	Name string `json:"name"`
	arm.Posture
}

type momentArms struct {
	Elbow     float64 `json:"elbow"`
	Elevation float64 `json:"shoulder_elevation"`
	Rotation  float64 `json:"shoulder_rotation"`
	Forearm   float64 `json:"forearm_rotation"`
}

type headInPosture struct {
	Length     float64    `json:"length"`
	MomentArms momentArms `json:"moment_arms_cm"`
}

type postureOut struct {
	Name  string                   `json:"name,omitempty"`
	Heads map[string]headInPosture `json:"heads"`
}

// Posture answers a posture with each head's length and moment arms.
func Posture(line []byte) (any, error) {
	var in posturesIn
	if err := strict(line, &in); err != nil {
		return nil, err
	}
	if err := in.Check(); err != nil {
		return unreachable{in.Name, err.Error()}, nil
	}
	out := postureOut{in.Name, map[string]headInPosture{}}
	for i := range arm.Heads {
		h := &arm.Heads[i]
		r := h.MomentArms(in.Posture)
		out.Heads[h.ID] = headInPosture{h.Length(in.Posture), momentArms{r[arm.Elbow], r[arm.Elevation], r[arm.Rotation], r[arm.Forearm]}}
	}
	return out, nil
}

type loadIn struct {
	Kind   effort.LoadKind `json:"kind"`
	Pulley *[]float64      `json:"pulley"`
}

type setupIn struct {
	Name         string      `json:"name"`
	TrunkLean    float64     `json:"trunk_lean"`
	From         arm.Posture `json:"from"`
	To           arm.Posture `json:"to"`
	Load         *loadIn     `json:"load"`
	GripOffset   float64     `json:"grip_offset"`
	ArmSupported bool        `json:"arm_supported"`
	Tempo        *[]float64  `json:"tempo"`
	Stature      *float64    `json:"stature"`
	BodyMass     *float64    `json:"body_mass"`
}

// HeadOut is a head of a profile; mean length and zone are null for heads that
// do not drive the movement.
type HeadOut struct {
	Share      float64   `json:"share"`
	Plain      float64   `json:"plain"`
	Stretch    float64   `json:"stretch"`
	Squeeze    float64   `json:"squeeze"`
	MeanLength *float64  `json:"mean_length"`
	Shortest   float64   `json:"shortest"`
	Longest    float64   `json:"longest"`
	Zone       *arm.Zone `json:"zone"`
}

// ProfileOut is a profile as it is written.
type ProfileOut struct {
	Name     string             `json:"name"`
	LoadN    *float64           `json:"working_load_n,omitempty"`
	LoadNm   *float64           `json:"working_load_nm,omitempty"`
	Hardest  float64            `json:"hardest_at"`
	Curve    []float64          `json:"curve"`
	Idle     [][2]float64       `json:"idle"`
	Warnings []string           `json:"warnings,omitempty"`
	Heads    map[string]HeadOut `json:"heads"`
}

// WriteProfile puts a profile into its written form.
func WriteProfile(name string, p *effort.Profile) ProfileOut {
	out := ProfileOut{Name: name, Hardest: p.HardestAt(), Curve: p.Curve[:], Idle: p.Idle, Heads: map[string]HeadOut{}}
	if p.Load == effort.Cam {
		out.LoadNm = &p.Working
	} else {
		out.LoadN = &p.Working
	}
	if out.Idle == nil {
		out.Idle = [][2]float64{}
	}
	if p.PullsBack {
		out.Warnings = []string{"demand under −0.75 somewhere: there the load pulls the other way"}
	}
	for i := range p.Heads {
		h := &p.Heads[i]
		o := HeadOut{Share: h.Share, Plain: h.Plain, Stretch: h.Stretch, Squeeze: h.Squeeze, Shortest: h.Shortest, Longest: h.Longest}
		if h.Agonist {
			o.MeanLength, o.Zone = &h.Mean, &h.Zone
		}
		out.Heads[arm.Heads[i].ID] = o
	}
	return out
}

// Profiles answers set-ups with their profiles. It keeps the plain movements of
// the last body, since lines usually share one; it is not safe for concurrent use.
type Profiles struct{ last *effort.Yardstick }

// Answer computes one line.
func (a *Profiles) Answer(line []byte) (any, error) {
	var in setupIn
	if err := strict(line, &in); err != nil {
		return nil, err
	}
	setup := effort.Setup{TrunkLean: in.TrunkLean, From: in.From, To: in.To, GripOffset: in.GripOffset, ArmSupported: in.ArmSupported,
		Load: effort.Load{Kind: effort.Free}}
	if in.Load != nil {
		if in.Load.Kind != "" {
			setup.Load.Kind = in.Load.Kind
		}
		switch in.Load.Kind {
		case "", effort.Free, effort.Cable, effort.Cam:
		default:
			return nil, fmt.Errorf("load.kind: %q is not free, cable or cam", in.Load.Kind)
		}
		if in.Load.Pulley != nil {
			if copy(setup.Load.Pulley[:], *in.Load.Pulley); len(*in.Load.Pulley) != 3 {
				return nil, fmt.Errorf("load.pulley: %d numbers, not 3", len(*in.Load.Pulley))
			}
		} else if setup.Load.Kind == effort.Cable {
			return nil, errors.New("load.pulley: missing")
		}
	}
	if in.Tempo != nil {
		if copy(setup.Tempo[:], *in.Tempo); len(*in.Tempo) != 4 {
			return nil, fmt.Errorf("tempo: %d numbers, not 4", len(*in.Tempo))
		}
	}
	body := arm.DefaultBody
	if in.Stature != nil {
		body.Stature = *in.Stature
	}
	if in.BodyMass != nil {
		body.BodyMass = *in.BodyMass
	}
	if a.last == nil || a.last.Body() != body {
		y, err := effort.NewYardstick(body)
		if err != nil {
			return refusal{in.Name, err.Error()}, nil
		}
		a.last = y
	}
	p, err := a.last.Profile(setup)
	var refused *effort.Refused
	if errors.As(err, &refused) {
		return refusal{in.Name, refused.Reason}, nil
	} else if err != nil {
		return nil, err
	}
	return WriteProfile(in.Name, p), nil
}

type setupOut struct {
	TrunkLean    float64        `json:"trunk_lean"`
	From         arm.Posture    `json:"from"`
	To           arm.Posture    `json:"to"`
	Load         map[string]any `json:"load"`
	GripOffset   float64        `json:"grip_offset"`
	ArmSupported bool           `json:"arm_supported"`
}

type movementOut struct {
	ID       string                          `json:"id"`
	Name     string                          `json:"name"`
	Action   movement.Action                 `json:"action"`
	Family   string                          `json:"family"`
	Settings []movement.Setting              `json:"settings"`
	Default  map[movement.Key]movement.Value `json:"default"`
	SetUp    *setupOut                       `json:"set_up,omitempty"`
	Profile  *ProfileOut                     `json:"profile,omitempty"`
	Grade    string                          `json:"grade,omitempty"`
	Credits  map[string][3]float64           `json:"credits,omitempty"`
}

// WriteMovements writes the catalogue at its defaults, one object a movement.
func WriteMovements(w io.Writer, c *movement.Catalogue, y *effort.Yardstick) error {
	encoder := json.NewEncoder(w)
	encoder.SetEscapeHTML(false)
	for _, m := range c.Movements {
		s := m.Default()
		out := movementOut{
			ID:       m.ID,
			Name:     s.Name(),
			Action:   m.Action,
			Family:   m.Family.ID,
			Settings: m.Settings,
			Default:  map[movement.Key]movement.Value{},
		}
		for i := range m.Settings {
			out.Default[m.Settings[i].Key] = m.Settings[i].Default
		}
		if credits, graded := s.Credits(); graded {
			out.Grade, out.Credits = m.Graded.Grade, map[string][3]float64{}
			for i, c := range credits {
				out.Credits[arm.Heads[i].ID] = [3]float64{c.Low, c.Mid, c.High}
			}
		} else {
			p, err := s.Profile(y)
			if err != nil {
				return fmt.Errorf("%s: %w", m.ID, err)
			}
			e := s.Effort()
			load := map[string]any{"kind": e.Load.Kind}
			if e.Load.Kind == effort.Cable {
				load["pulley"] = e.Load.Pulley
			}
			profile := WriteProfile(out.Name, p)
			out.Profile = &profile
			out.SetUp = &setupOut{e.TrunkLean, e.From, e.To, load, e.GripOffset, e.ArmSupported}
		}
		if err := encoder.Encode(out); err != nil {
			return err
		}
	}
	return nil
}
