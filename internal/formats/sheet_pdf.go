package formats

import (
	"io"
	"strconv"
	"strings"

	"codeberg.org/go-pdf/fpdf"
	"golang.org/x/image/font/gofont/gobold"
	"golang.org/x/image/font/gofont/goitalic"
	"golang.org/x/image/font/gofont/goregular"

	"musculus/internal/figure"
)

// PDFSheet is one session as it is printed.
type PDFSheet struct {
	Client, Session, Where string // where and when
	Facts                  string // minutes, screening
	WarmUp                 string
	Caps, Cautions         []string
	Studio                 string
	Total                  []PDFHead
	Slots                  []PDFSlot
}

// PDFSlot is one line of it.
type PDFSlot struct {
	Title, Details, Dose, How, Stop string
	SetUp                           string // the numbers it is put together by
	Last                            string // what the last sets have of their own
	Find                            string // how an unknown load is found
	Combo                           string // at the first of several in turns: how they are
	InCombo                         bool
	Sets                            int // boxes to write in
	Arms                            []string
	Unit                            string
	Cues                            []string
	Pose                            figure.Pose
	Ribbon                          *figure.Ribbon // nil for graded work
	Heads                           []PDFHead
}

const (
	fontName = "go"
	pageEdge = 12.0 // mm
	headTall = 32.0
	slotTall = 52.0 // at most
	leastRow = 22.0
	poseWide = 52.0
	armWide  = 24.0 // at most, of it
	sideWide = 25.0
)

// WriteSheetPDF writes a sheet on A4, or on Letter; one page as long as each slot
// keeps a readable height.
func WriteSheetPDF(w io.Writer, s *PDFSheet, letter bool) error {
	size := "A4"
	if letter {
		size = "Letter"
	}
	p := &paper{Fpdf: fpdf.New("P", "mm", size, ""), scale: 1}
	p.AddUTF8FontFromBytes(fontName, "", goregular.TTF)
	p.AddUTF8FontFromBytes(fontName, "B", gobold.TTF)
	p.AddUTF8FontFromBytes(fontName, "I", goitalic.TTF)
	p.SetTitle(s.Client+", "+s.Session, true)
	p.SetAutoPageBreak(false, 0)
	p.SetMargins(pageEdge, pageEdge, pageEdge)
	p.AddPage()
	wide, tall := p.GetPageSize()
	right := figure.MakeSlice(false)

	y := pageEdge
	p.text(pageEdge, y+6, "B", 18, ink, s.Client)
	p.text(pageEdge, y+12.5, "B", 10.5, ink, s.Session)
	p.text(pageEdge, y+17.5, "", 9.5, ink, s.Where)
	p.text(pageEdge, y+22, "", 9, "#5d6470", s.Facts)
	warmUp := p.flow(pageEdge, y+23, wide-2*pageEdge-28, "", 9, "#5d6470", s.WarmUp)
	p.slice(&right, s.Total, wide-pageEdge-25, y-1, 25)
	y += max(headTall-6, 24+warmUp)
	for _, c := range s.Caps {
		y += p.flow(pageEdge, y, wide-2*pageEdge, "", 9, ink, c) + 0.6
	}
	p.SetDrawColor(30, 37, 48)
	p.SetLineWidth(0.5)
	p.Line(pageEdge, y, wide-pageEdge, y)
	y += 1.5

	foot := 4.0*float64(len(s.Cautions)) + 9
	for i, row := range p.rows(s.Slots, tall-pageEdge-foot-y, wide) {
		if y+row > tall-pageEdge-foot {
			p.AddPage()
			y = pageEdge
		}
		p.slot(&s.Slots[i], i+1, y, row, wide, &right)
		y += row
		p.SetDrawColor(200, 190, 170)
		p.SetLineWidth(0.15)
		p.Line(pageEdge, y, wide-pageEdge, y)
	}
	y = tall - pageEdge - foot + 2
	for _, c := range s.Cautions {
		y += p.flow(pageEdge, y, wide-2*pageEdge, "", 7.5, ink, c)
	}
	p.flow(
		pageEdge,
		y,
		wide-2*pageEdge,
		"I",
		7,
		"#5d6470",
		"The round picture is the right arm from above: the fuller a part, the more it gets. "+figure.Legend()+" The bar runs from "+
			"stretched to shortened: thick where it is hard. "+s.Studio,
	)
	return p.Output(w)
}

// scales are the letter sizes that are tried, the largest first: few slots are set
// in large letters, many in small ones, as long as they stay on one page.
var scales = []float64{1.2, 1.1, 1, 0.92, 0.85, 0.79}

// rows shares the page's height among the slots: each gets what its text needs and
// an equal part of what is left, up to a full row. It settles the letters' scale.
func (p *paper) rows(slots []PDFSlot, room, wide float64) []float64 {
	out := make([]float64, len(slots))
	need := func(scale float64) (sum float64) {
		p.scale = scale
		for i := range slots {
			out[i] = max(leastRow, 2+p.words(&slots[i], 0, textWide(wide), false))
			sum += out[i]
		}
		return sum
	}
	left := -1.0
	for _, scale := range scales {
		if left = room - need(scale); left >= 0 {
			break
		}
	}
	if left < 0 { // it takes more than a page in any case
		need(1)
		return out
	}
	for i := range out {
		out[i] = min(max(slotTall, out[i]), out[i]+left/float64(len(out)))
	}
	return out
}

// textX is where a slot's text begins, mm.
const textX = pageEdge + poseWide + 2

func textWide(wide float64) float64 { return wide - pageEdge - sideWide - textX - 2 }

func (p *paper) slot(s *PDFSlot, number int, y, row, wide float64, right *figure.Slice) {
	p.text(pageEdge, y+6, "B", 12, ink, strconv.Itoa(number))
	if s.InCombo { // a bracket over those in turns
		p.SetDrawColor(138, 75, 42)
		p.SetLineWidth(0.9)
		p.Line(pageEdge-2.5, y+0.6, pageEdge-2.5, y+row-0.6)
	}
	room := poseWide - 6
	if c := s.Pose.Close; c != nil {
		w := min(armWide, (row-2)*c.Box[2]/(nearer*c.Box[3]))
		p.closeUp(c, pageEdge+5+room-w, y+1, w, row-2)
		room -= w + 1
	}
	p.pose(&s.Pose, pageEdge+5, y+1, room, row-2)
	p.words(s, y+1.2, textWide(wide), true)
	side := min(sideWide-6, row-10)
	p.slice(right, s.Heads, wide-pageEdge-side-2, y+1.5, side)
	if s.Ribbon != nil {
		p.ribbon(s.Ribbon, wide-pageEdge-side-2, y+2.5+side, side, 4)
	}
}

// words writes a slot's text from y on, or only measures it; it returns how tall it
// is, mm.
func (p *paper) words(s *PDFSlot, y, w float64, write bool) float64 {
	at := y
	add := func(style string, size float64, hex, text string) {
		if text == "" {
			return
		}
		size *= p.scale
		if write {
			at += p.flow(textX, at, w, style, size, hex, text)
		} else {
			at += p.flowTall(w, style, size, text)
		}
	}
	if s.Combo != "" {
		add("B", 8, "#8a4b2a", "In turns, "+s.Combo)
	}
	add("B", 11, ink, s.Title)
	add("", 8.5, "#5d6470", s.Details)
	add("", 8.5, ink, s.SetUp)
	add("B", 10, ink, s.Dose)
	if s.Last != "" {
		add("B", 8.5, "#8a4b2a", "Last: "+s.Last)
	}
	add("", 8, ink, s.Find)
	add("", 8.5, ink, s.How)
	if len(s.Cues) > 0 {
		add("I", 9, ink, "• "+strings.Join(s.Cues, "   • "))
	}
	add("", 7.5, "#5d6470", "The set ends at: "+s.Stop)
	if s.Sets > 0 {
		if write {
			p.boxes(s, textX, at+0.8, w)
		}
		at += 0.8 + boxTall*float64(max(len(s.Arms), 1)) + 0.6
	}
	return at - y
}

// Boxes to write in, mm.
const (
	boxTall   = 5.2
	boxWide   = 13.0
	leastBox  = 7.0
	labelWide = 11.0
	feltWide  = 26.0
)

// boxes draws a box a set, for each arm where arms have their own, and a line for how it
// felt.
func (p *paper) boxes(s *PDFSlot, x, y, w float64) {
	p.SetDrawColor(120, 124, 132)
	p.SetLineWidth(0.2)
	each := min(boxWide, max(leastBox, (w-labelWide-feltWide)/float64(s.Sets)))
	for i, arm := range s.Arms {
		top := y + boxTall*float64(i)
		label := s.Unit + " × reps"
		if arm != "" {
			label = arm
		}
		p.text(x, top+3.6, "", 6.5, "#5d6470", label)
		for n := range s.Sets {
			left := x + labelWide + each*float64(n)
			if left+each > x+w {
				break
			}
			p.Rect(left, top, each, boxTall-0.6, "D")
			p.Line(left+each/2-0.6, top+boxTall-1.4, left+each/2+0.6, top+0.8) // load / reps
		}
	}
	from := x + labelWide + each*float64(s.Sets) + 2
	if from+12 < x+w {
		p.text(from, y+3.6, "", 6.5, "#5d6470", "felt")
		p.Line(from+5.5, y+boxTall-1.2, x+w, y+boxTall-1.2)
	}
}

func (p *paper) font(style string, size float64, hex string) {
	p.SetFont(fontName, style, size)
	r, g, b := rgb(hex)
	p.SetTextColor(r, g, b)
}

// text writes one line with its foot at y.
func (p *paper) text(x, y float64, style string, size float64, hex, text string) {
	p.font(style, size, hex)
	p.Text(x, y, text)
}

// lines breaks text into lines at its plain spaces only, so that what is held
// together by others ("40° → 130°") stays so.
func (p *paper) lines(text string, w float64) []string {
	var out []string
	line := ""
	for _, word := range strings.Split(text, " ") {
		longer := word
		if line != "" {
			longer = line + " " + word
		}
		switch {
		case p.GetStringWidth(longer) <= w:
			line = longer
		case line == "" || p.GetStringWidth(word) > w: // one word wider than the column
			parts := p.SplitText(longer, w)
			out, line = append(out, parts[:len(parts)-1]...), parts[len(parts)-1]
		default:
			out, line = append(out, line), word
		}
	}
	return append(out, line)
}

// lineTall is a line's height for its letters' size in points, mm.
func lineTall(size float64) float64 { return size * 0.43 }

// flowTall is how tall text comes out in a column, mm.
func (p *paper) flowTall(w float64, style string, size float64, text string) float64 {
	p.SetFont(fontName, style, size)
	return lineTall(size) * float64(max(len(p.lines(text, w)), 1))
}

// flow writes text in a column and returns how tall it came out, mm.
func (p *paper) flow(x, y, w float64, style string, size float64, hex, text string) float64 {
	p.font(style, size, hex)
	lines := p.lines(text, w)
	for i, l := range lines {
		p.Text(x, y+lineTall(size)*(float64(i)+0.85), l)
	}
	return lineTall(size) * float64(max(len(lines), 1))
}
