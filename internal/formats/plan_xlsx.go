package formats

import (
	"fmt"
	"io"
	"strings"
	"unicode/utf8"

	"github.com/xuri/excelize/v2"
)

// headRow is where the slots' table begins; above it stand the session's own facts.
const headRow = 6

// WritePlanXLSX writes a plan as a workbook, one sheet a session: the session's
// facts on top, its slots below. Every cell is text or a number, never a formula.
func WritePlanXLSX(w io.Writer, p *Plan) error {
	f := excelize.NewFile()
	defer f.Close()
	bold, err := f.NewStyle(
		&excelize.Style{
			Font:      &excelize.Font{Bold: true},
			Fill:      excelize.Fill{Type: "pattern", Pattern: 1, Color: []string{"EFE8DC"}},
			Alignment: &excelize.Alignment{WrapText: true, Vertical: "top"},
		},
	)
	if err != nil {
		return err
	}
	title, err := f.NewStyle(&excelize.Style{Font: &excelize.Font{Bold: true, Size: 14}})
	if err != nil {
		return err
	}
	used := map[string]bool{}
	for i := range p.Sessions {
		s := &p.Sessions[i]
		sheet := sheetName(s, used)
		if i == 0 {
			err = f.SetSheetName("Sheet1", sheet)
		} else {
			_, err = f.NewSheet(sheet)
		}
		if err != nil {
			return err
		}
		put := func(col, row int, text string) {
			cell, cellErr := excelize.CoordinatesToCellName(col, row)
			if err == nil {
				err = cellErr
			}
			if err == nil {
				err = f.SetCellStr(sheet, cell, text)
			}
		}
		row := cells(&line{s: s, slot: &PlanSlot{}, row: &PlanRow{}})
		for k := range perSession {
			put(1, k+1, columns[k].label)
			put(2, k+1, row[k])
		}
		for k, c := range columns[perSession:] {
			put(k+1, headRow, c.label)
		}
		for j, l := range s.lines() {
			for k, text := range cells(&l)[perSession:] {
				put(k+1, headRow+1+j, text)
			}
		}
		last, _ := excelize.ColumnNumberToName(len(columns) - perSession)
		for _, do := range []func() error{
			func() error { return f.SetCellStyle(sheet, "A1", "A4", bold) },
			func() error { return f.SetCellStyle(sheet, "B1", "B1", title) },
			func() error { return f.SetCellStyle(sheet, "A6", last+"6", bold) },
			func() error { return f.SetColWidth(sheet, "A", "A", 26) },
			func() error { return f.SetColWidth(sheet, "B", "B", 44) },
			func() error { return f.SetColWidth(sheet, "C", "C", 26) },
			func() error { return f.SetColWidth(sheet, last, last, 50) },
			func() error {
				return f.SetPanes(sheet, &excelize.Panes{Freeze: true, YSplit: headRow, TopLeftCell: fmt.Sprintf("A%d", headRow+1),
					ActivePane: "bottomLeft"})
			},
			func() error {
				landscape, a4, wide, tall := "landscape", 9, 1, 0
				if err := f.SetPageLayout(sheet, &excelize.PageLayoutOptions{Orientation: &landscape, Size: &a4, FitToWidth: &wide,
					FitToHeight: &tall}); err != nil {
					return err
				}
				fit := true
				return f.SetSheetProps(sheet, &excelize.SheetPropsOptions{FitToPage: &fit})
			},
		} {
			if err == nil {
				err = do()
			}
		}
		if err != nil {
			return err
		}
	}
	return f.Write(w)
}

// sheetName makes a name a workbook takes: no sign it forbids, at most 31 long,
// none twice.
func sheetName(s *PlanSession, used map[string]bool) string {
	base := strings.Trim(strings.Map(func(r rune) rune {
		if strings.ContainsRune(`[]:*?/\`, r) {
			return '-'
		}
		return r
	}, s.Date+" "+s.Name), "' ")
	name := cut(base, 31)
	for n := 2; used[strings.ToLower(name)]; n++ {
		name = cut(base, 27) + fmt.Sprintf(" (%d)", n)
	}
	used[strings.ToLower(name)] = true
	return name
}

func cut(s string, n int) string {
	for utf8.RuneCountInString(s) > n {
		_, size := utf8.DecodeLastRuneInString(s)
		s = s[:len(s)-size]
	}
	return s
}
