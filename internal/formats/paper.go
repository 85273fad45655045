package formats

import (
	"math"
	"strconv"
	"strings"

	"codeberg.org/go-pdf/fpdf"

	"musculus/internal/figure"
)

// paper draws the pictures' geometry on a page: a picture's box goes to a place of
// the page, in mm.
type paper struct {
	*fpdf.Fpdf
	scale float64 // of a slot's letters
}

// place is how a picture's box lies on the page.
type place struct {
	x, y   float64 // mm, of the box's origin
	kx, ky float64 // mm a box unit
}

func (p place) at(x, y float64) (float64, float64) { return p.x + x*p.kx, p.y + y*p.ky }

// outline is a path's points; a disc's are its centre and radius instead.
type outline struct {
	points []fpdf.PointType
	closed bool
	r      float64 // of a disc, in box units; its centre is the only point
}

// outlineOf reads the paths that package figure writes: lines, and discs as two
// arcs.
func outlineOf(path string) outline {
	var out outline
	number := func(s string) float64 {
		x, err := strconv.ParseFloat(s, 64)
		if err != nil {
			return 0
		}
		return x
	}
	for i := 0; i < len(path); {
		command := path[i]
		end := i + 1
		for end < len(path) && !strings.ContainsRune("MLaZ", rune(path[end])) {
			end++
		}
		args := strings.Fields(path[i+1 : end])
		switch {
		case (command == 'M' || command == 'L') && len(args) >= 2:
			out.points = append(out.points, fpdf.PointType{X: number(args[0]), Y: number(args[1])})
		case command == 'a' && out.r == 0 && len(args) >= 2 && len(out.points) == 1:
			out.r = number(args[0])
			out.points[0].X += out.r
		case command == 'Z':
			out.closed = true
		}
		i = end
	}
	return out
}

func (p *paper) colour(hex string) {
	r, g, b := rgb(hex)
	p.SetFillColor(r, g, b)
	p.SetDrawColor(r, g, b)
}

func rgb(hex string) (r, g, b int) {
	n, err := strconv.ParseUint(strings.TrimPrefix(hex, "#"), 16, 32)
	if err != nil {
		return 0, 0, 0
	}
	return int(n >> 16), int(n >> 8 & 255), int(n & 255)
}

// draw fills or strokes a path; width in box units, 0 fills.
func (p *paper) draw(path string, at place, width float64) {
	o := outlineOf(path)
	if len(o.points) == 0 {
		return
	}
	if o.r > 0 {
		x, y := at.at(o.points[0].X, o.points[0].Y)
		p.Circle(x, y, o.r*math.Abs(at.kx), "F")
		return
	}
	for i := range o.points {
		o.points[i].X, o.points[i].Y = at.at(o.points[i].X, o.points[i].Y)
	}
	if width == 0 {
		p.Polygon(o.points, "F")
		return
	}
	p.SetLineWidth(width * math.Abs(at.kx))
	p.SetLineCapStyle("round")
	p.SetLineJoinStyle("round")
	p.MoveTo(o.points[0].X, o.points[0].Y)
	for _, q := range o.points[1:] {
		p.LineTo(q.X, q.Y)
	}
	if o.closed {
		p.ClosePath()
	}
	p.DrawPath("D")
}

// poseColours are the figure's on paper; what is not named is ink.
var poseColours = map[string]string{
	"body": "#d9cfbc", "trunk": "#d9cfbc", "bench": "#a8946f", "frame": "#cabb9e", "column": "#cabb9e", "floor": "#cabb9e", "pulley": "#ffffff", "ghost": "#b9b4aa", "ghost-hand": "#b9b4aa",
	"ghost-cable": "#b9b4aa", "ghost-joint": "#ffffff", "arm-joint": "#ffffff", "ghost-weight": "#98a8a6", "ghost-weight-bell": "#98a8a6", "weight": "#0f6b66", "weight-bell": "#0f6b66",
	"weight-sleeve": "#ffffff", "ghost-weight-sleeve": "#ffffff",
}

const ink = "#1e2530"

// pose draws the figure into a box of the page.
func (p *paper) pose(f *figure.Pose, x, y, w, h float64) {
	const inner = 0.86 // feet and a bench's end stand out of the box a little, as on screen
	k := math.Min(inner*w/f.Box[2], h/f.Box[3])
	at := place{x + (w-k*f.Box[2])/2 - k*f.Box[0], y + (h-k*f.Box[3])/2 - k*f.Box[1], k, k}
	p.ClipRect(x, y, w, h, false)
	defer p.ClipEnd()
	for _, s := range f.Shapes {
		colour := poseColours[s.Class]
		if colour == "" {
			colour = ink
		}
		p.colour(colour)
		p.draw(s.Path, at, s.Width)
	}
	p.colour("#0f6b66")
	p.SetDashPattern([]float64{0.6, 0.5}, 0)
	p.draw(f.Path, at, 0.2/k)
	p.SetDashPattern(nil, 0)
}

// PDFHead is how far one region of a slice is filled.
type PDFHead struct {
	ID      string
	Level   float64 // 0…1
	Leading bool
}

var headColours = map[string]string{"biceps_long": "#b9602a", "biceps_short": "#d9a441", "brachialis": "#7c8b3b", "brachioradialis": "#3e7a5e", "triceps_long": "#38599c", "triceps_lateral": "#76589e", "triceps_medial": "#7e9bbd"}

// slice draws the arm's cross-section, hatched so that it survives greyscale.
func (p *paper) slice(shape *figure.Slice, heads []PDFHead, x, y, size float64) {
	at := place{x, y, size, size}
	level := map[string]PDFHead{}
	for _, h := range heads {
		level[h.ID] = h
	}
	p.colour("#efe8dc")
	p.draw(shape.Outline, at, 0)
	for i := range shape.Regions {
		r := &shape.Regions[i]
		h := level[r.Head]
		points := outlineOf(r.Path).points
		for j := range points {
			points[j].X, points[j].Y = at.at(points[j].X, points[j].Y)
		}
		if h.Level > 0 {
			p.SetAlpha(0.16+0.84*h.Level, "Normal")
			p.colour(headColours[r.Head])
			p.Polygon(points, "F")
			p.SetAlpha(1, "Normal")
			p.hatch(points, r.Hatch, math.Max(r.Pitch*size, 0.5), x, y, size)
		}
		p.SetDrawColor(255, 255, 255)
		p.SetLineWidth(0.25)
		p.Polygon(points, "D")
	}
	for i := range shape.Regions {
		r := &shape.Regions[i]
		if level[r.Head].Leading {
			p.colour(ink)
			p.draw(r.Path, at, 0.02)
		}
	}
	p.SetFillColor(255, 255, 255)
	p.SetDrawColor(90, 95, 105)
	p.SetLineWidth(0.25)
	bx, by := at.at(shape.Bone.X, shape.Bone.Y)
	p.Circle(bx, by, shape.BoneR*size, "FD")
	p.colour("#5d6470")
	p.draw(shape.Outline, at, 0.012)
	if size >= 16 {
		p.SetFont(fontName, "B", 5)
		for i := range shape.Regions {
			r := &shape.Regions[i]
			lx, ly := at.at(r.Label.X, r.Label.Y)
			w := p.GetStringWidth(r.Code)
			p.SetFillColor(255, 255, 255)
			p.SetAlpha(0.75, "Normal")
			p.Rect(lx-w/2-0.3, ly-1.1, w+0.6, 2.1, "F")
			p.SetAlpha(1, "Normal")
			p.SetTextColor(30, 37, 48)
			p.Text(lx-w/2, ly+0.6, r.Code)
		}
	}
}

// hatch draws parallel lines inside a region.
func (p *paper) hatch(points []fpdf.PointType, degrees, pitch, x, y, size float64) {
	p.ClipPolygon(points, false)
	p.SetDrawColor(30, 37, 48)
	p.SetLineWidth(0.08)
	p.SetAlpha(0.5, "Normal")
	sin, cos := math.Sincos(degrees * math.Pi / 180)
	cx, cy, reach := x+size/2, y+size/2, size
	for d := -reach; d <= reach; d += pitch {
		ox, oy := cx-d*sin, cy+d*cos
		p.Line(ox-reach*cos, oy-reach*sin, ox+reach*cos, oy+reach*sin)
	}
	p.SetAlpha(1, "Normal")
	p.ClipEnd()
}

// ribbon draws the range from stretched to shortened.
func (p *paper) ribbon(r *figure.Ribbon, x, y, w, h float64) {
	at := place{x, y, w, h}
	p.colour("#26323d")
	for _, s := range r.Solid {
		p.draw(s, at, 0)
	}
	for _, s := range r.Hollow {
		o := outlineOf(s)
		for i := range o.points {
			o.points[i].X, o.points[i].Y = at.at(o.points[i].X, o.points[i].Y)
		}
		p.SetLineWidth(0.2)
		p.Polygon(o.points, "D")
	}
	p.SetDrawColor(224, 180, 90)
	p.SetLineWidth(0.5)
	p.Line(x+r.Tick*w, y, x+r.Tick*w, y+h)
}
