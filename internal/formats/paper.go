package formats

import (
	"math"
	"slices"
	"strconv"
	"strings"

	"codeberg.org/go-pdf/fpdf"

	"musculus/internal/core/arm"
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

// on is a path's points on the page.
func (at place) on(path figure.Path) []fpdf.PointType {
	flat := path.Flat()
	out := make([]fpdf.PointType, len(flat))
	for i, q := range flat {
		out[i].X, out[i].Y = at.at(q.X, q.Y)
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
func (p *paper) draw(path figure.Path, at place, width float64) {
	points := at.on(path)
	if len(points) == 0 {
		return
	}
	if path.R > 0 {
		p.Circle(points[0].X, points[0].Y, path.R*math.Abs(at.kx), "F")
		return
	}
	if width == 0 {
		p.Polygon(points, "F")
		return
	}
	p.SetLineWidth(width * math.Abs(at.kx))
	p.SetLineCapStyle("round")
	p.SetLineJoinStyle("round")
	p.MoveTo(points[0].X, points[0].Y)
	for _, q := range points[1:] {
		p.LineTo(q.X, q.Y)
	}
	if path.Closed {
		p.ClosePath()
	}
	p.DrawPath("D")
}

const white = "#ffffff"

// ink is what is written with.
var ink = figure.Paint("ink")

// posePaints are the names of the figure's colours; what is not named is ink.
var posePaints = map[string]string{
	"body": "figure", "trunk": "figure", "bench": "bench", "frame": "frame", "column": "frame", "floor": "frame",
	"ghost": "ghost", "ghost-hand": "ghost",
	"far": "far", "hair": "hair", "skin": "skin", "bone": "bone", "tendon": "tendon", "hand": "skin", "thumb": "hair",
	"down":        "soft",
	"ghost-cable": "ghost", "ghost-weight": "ghost-weight", "ghost-weight-bell": "ghost-weight", "weight": "weight", "weight-bell": "weight",
}

// holes are the parts of the figure that let the paper through.
var holes = []string{"pulley", "halo", "ghost-joint", "arm-joint", "weight-sleeve", "ghost-weight-sleeve"}

// posePaint is the colour of a part of the figure.
func posePaint(class string) string {
	if slices.Contains(holes, class) {
		return white
	}
	return figure.Paint(posePaints[class])
}

// pose draws the figure into a box of the page.
func (p *paper) pose(f *figure.Pose, x, y, w, h float64) {
	const inner = 0.86 // feet and a bench's end stand out of the box a little, as on screen
	k := math.Min(inner*w/f.Box[2], h/f.Box[3])
	at := place{x + (w-k*f.Box[2])/2 - k*f.Box[0], y + (h-k*f.Box[3])/2 - k*f.Box[1], k, k}
	p.ClipRect(x, y, w, h, false)
	defer p.ClipEnd()
	p.shapes(f.Shapes, at)
	p.colour(figure.Paint("weight"))
	p.SetDashPattern([]float64{0.6, 0.5}, 0)
	p.draw(f.Path, at, 0.2/k)
	p.SetDashPattern(nil, 0)
}

// nearer is how much of a close-up is seen on paper: less of the forearm, so that the heads are larger.
const nearer = 0.87

// closeUp draws the arm by itself into a box of the page, from its top.
func (p *paper) closeUp(c *figure.CloseUp, x, y, w, h float64) {
	k := math.Min(w/c.Box[2], h/(nearer*c.Box[3]))
	p.ClipRect(x, y, w, h, false)
	defer p.ClipEnd()
	p.shapes(c.Shapes, place{x + (w-k*c.Box[2])/2 - k*c.Box[0], y - k*c.Box[1], k, k})
}

// shapes draws a figure's lines, areas and letters in their order.
func (p *paper) shapes(of []figure.Shape, at place) {
	for i := range of {
		s := &of[i]
		switch s.Class {
		case "belly":
			p.belly(s, at)
		case "shaft": // a bone, outlined
			p.colour(figure.Paint("bone"))
			p.draw(s.Path, at, 0)
			p.colour(figure.Paint("hair"))
			p.SetLineWidth(0.1)
			if s.Path.R > 0 {
				on := at.on(s.Path)
				p.Circle(on[0].X, on[0].Y, s.Path.R*at.kx, "D")
				break
			}
			p.Polygon(at.on(s.Path), "D")
		case "letter":
			if h, ok := arm.HeadByID(s.Head); ok {
				p.letters(arm.Heads[h].Code, s.Path, at, s.Level > 0, 0.5)
			}
		case "down-word":
			p.letters("down", s.Path, at, false, 0)
		default:
			p.colour(posePaint(s.Class))
			p.draw(s.Path, at, s.Width)
		}
	}
}

// letters writes a word at a place, which lies so far along it, on a little white so that it stands on
// anything.
func (p *paper) letters(words string, path figure.Path, at place, bold bool, along float64) {
	on := at.on(path)[0]
	style, paint := "", "soft"
	if bold {
		style, paint = "B", "ink"
	}
	p.SetFont(fontName, style, 4.6)
	w := p.GetStringWidth(words)
	x := on.X - along*w
	p.SetFillColor(255, 255, 255)
	p.SetAlpha(0.75, "Normal")
	p.Rect(x-0.2, on.Y-0.85, w+0.4, 1.7, "F")
	p.SetAlpha(1, "Normal")
	p.SetTextColor(rgb(figure.Paint(paint)))
	p.Text(x, on.Y+0.58, words)
}

// belly draws a head on the arm: filled as the slice's regions are, hatched alike, outlined.
func (p *paper) belly(s *figure.Shape, at place) {
	p.colour(figure.Paint("skin")) // what lies under it is not seen
	p.Polygon(at.on(s.Path), "F")
	p.SetAlpha(0.16+0.84*s.Level, "Normal")
	p.colour(figure.HeadPaint(s.Head))
	points := at.on(s.Path)
	p.Polygon(points, "F")
	p.SetAlpha(1, "Normal")
	if s.Level > 0 { // told apart without colour, as on the slice
		x, y, size := boxOf(points)
		p.hatch(points, figure.HatchOf(s.Head), 0.45, x, y, size)
	}
	p.SetDrawColor(30, 37, 48)
	p.SetLineWidth(0.1)
	p.Polygon(points, "D")
}

// boxOf is the corner of what points lie in, and the longer side of it.
func boxOf(points []fpdf.PointType) (x, y, size float64) {
	x, y = points[0].X, points[0].Y
	right, low := x, y
	for _, p := range points {
		x, y, right, low = math.Min(x, p.X), math.Min(y, p.Y), math.Max(right, p.X), math.Max(low, p.Y)
	}
	return x, y, math.Max(right-x, low-y)
}

// PDFHead is how far one region of a slice is filled.
type PDFHead struct {
	ID      string
	Level   float64 // 0…1
	Leading bool
}

// slice draws the arm's cross-section, hatched so that it survives greyscale.
func (p *paper) slice(shape *figure.Slice, heads []PDFHead, x, y, size float64) {
	at := place{x, y, size, size}
	level := map[string]PDFHead{}
	for _, h := range heads {
		level[h.ID] = h
	}
	p.colour(figure.Paint("ground"))
	p.draw(shape.Outline, at, 0)
	for i := range shape.Regions {
		r := &shape.Regions[i]
		h := level[r.Head]
		points := at.on(r.Path)
		if h.Level > 0 {
			p.SetAlpha(0.16+0.84*h.Level, "Normal")
			p.colour(figure.HeadPaint(r.Head))
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
	p.colour(figure.Paint("soft"))
	p.draw(shape.Outline, at, 0.012)
	if size >= 10 {
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
	p.colour(figure.Paint("ribbon"))
	for _, s := range r.Solid {
		p.draw(s, at, 0)
	}
	for _, s := range r.Hollow {
		p.SetLineWidth(0.2)
		p.Polygon(at.on(s), "D")
	}
	p.SetDrawColor(224, 180, 90)
	p.SetLineWidth(0.5)
	p.Line(x+r.Tick*w, y, x+r.Tick*w, y+h)
}
