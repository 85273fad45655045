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
	Facts                  string // minutes, warm-up, screening
	Caps, Cautions         []string
	Studio                 string
	Total                  []PDFHead
	Slots                  []PDFSlot
}

// PDFSlot is one line of it.
type PDFSlot struct {
	Title, Details, Dose, How, Stop string
	Cues                            []string
	Pose                            figure.Pose
	Ribbon                          *figure.Ribbon // nil for graded work
	Heads                           []PDFHead
}

const (
	fontName = "go"
	pageEdge = 12.0 // mm
	headTall = 32.0
	slotTall = 44.0 // at most
	leastRow = 24.0 // below this a sheet goes on to a second page
	poseWide = 44.0
	sideWide = 30.0
)

// WriteSheetPDF writes a sheet on A4, or on Letter; one page as long as each slot
// keeps a readable height.
func WriteSheetPDF(w io.Writer, s *PDFSheet, letter bool) error {
	size := "A4"
	if letter {
		size = "Letter"
	}
	p := &paper{fpdf.New("P", "mm", size, "")}
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
	p.slice(&right, s.Total, wide-pageEdge-25, y-1, 25)
	y += headTall - 6
	for _, c := range s.Caps {
		y += p.flow(pageEdge, y, wide-2*pageEdge, "", 9, ink, c) + 0.6
	}
	p.SetDrawColor(30, 37, 48)
	p.SetLineWidth(0.5)
	p.Line(pageEdge, y, wide-pageEdge, y)
	y += 1.5

	foot := 4.0*float64(len(s.Cautions)) + 5
	row := slotTall
	if n := len(s.Slots); n > 0 {
		row = min(slotTall, (tall-pageEdge-foot-y)/float64(n))
	}
	row = max(row, leastRow)
	for i := range s.Slots {
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
	p.flow(pageEdge, y, wide-2*pageEdge, "I", 7, "#5d6470", "The round picture is the right arm from above: the fuller a part, the more it gets. The bar runs from stretched to shortened: thick where it is hard. "+s.Studio)
	return p.Output(w)
}

func (p *paper) slot(s *PDFSlot, number int, y, row, wide float64, right *figure.Slice) {
	p.text(pageEdge, y+6, "B", 12, ink, strconv.Itoa(number))
	p.pose(&s.Pose, pageEdge+5, y+1, poseWide-6, row-2)
	x := pageEdge + poseWide + 2
	w := wide - pageEdge - sideWide - x - 2
	at := y + 1.2
	at += p.flow(x, at, w, "B", 11, ink, s.Title)
	if s.Details != "" {
		at += p.flow(x, at, w, "", 8.5, "#5d6470", s.Details)
	}
	at += p.flow(x, at, w, "B", 10, ink, s.Dose)
	at += p.flow(x, at, w, "", 8.5, ink, s.How)
	if len(s.Cues) > 0 {
		at += p.flow(x, at, w, "I", 9, ink, "• "+strings.Join(s.Cues, "   • "))
	}
	if at < y+row-4 {
		p.flow(x, at, w, "", 7.5, "#5d6470", "The set ends at: "+s.Stop)
	}
	side := min(sideWide-6, row-10)
	p.slice(right, s.Heads, wide-pageEdge-side-2, y+1.5, side)
	if s.Ribbon != nil {
		p.ribbon(s.Ribbon, wide-pageEdge-side-2, y+2.5+side, side, 4)
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

// flow writes text in a column and returns how tall it came out, mm.
func (p *paper) flow(x, y, w float64, style string, size float64, hex, text string) float64 {
	p.font(style, size, hex)
	line := size * 0.43
	lines := p.SplitText(text, w)
	for i, l := range lines {
		p.Text(x, y+line*(float64(i)+0.85), l)
	}
	return line * float64(max(len(lines), 1))
}
