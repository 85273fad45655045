package formats

import (
	"bytes"
	"fmt"
	"io"
	"strings"
	"unicode/utf8"

	"github.com/xuri/excelize/v2"
)

// What a workbook may unpack to, bytes.
const (
	mostUnpacked = 24 << 20
	mostXML      = 8 << 20
)

// headRow is where the slots' table begins; above it stand the session's own facts.
const headRow = 6

// WritePlanXLSX writes a plan as a workbook, one sheet a session: the session's
// facts on top, its slots below. Every cell is text or a number, never a formula.
func WritePlanXLSX(w io.Writer, p *Plan) error {
	f := excelize.NewFile()
	defer f.Close()
	bold, err := f.NewStyle(&excelize.Style{Font: &excelize.Font{Bold: true}, Fill: excelize.Fill{Type: "pattern", Pattern: 1, Color: []string{"EFE8DC"}}, Alignment: &excelize.Alignment{WrapText: true, Vertical: "top"}})
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
		row := cells(s, &PlanSlot{})
		for k := range perSession {
			put(1, k+1, columns[k].label)
			put(2, k+1, row[k])
		}
		for k, c := range columns[perSession:] {
			put(k+1, headRow, c.label)
		}
		for j := range s.Slots {
			for k, text := range cells(s, &s.Slots[j])[perSession:] {
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
				return f.SetPanes(sheet, &excelize.Panes{Freeze: true, YSplit: headRow, TopLeftCell: fmt.Sprintf("A%d", headRow+1), ActivePane: "bottomLeft"})
			},
			func() error {
				landscape, a4, wide, tall := "landscape", 9, 1, 0
				if err := f.SetPageLayout(sheet, &excelize.PageLayoutOptions{Orientation: &landscape, Size: &a4, FitToWidth: &wide, FitToHeight: &tall}); err != nil {
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

// ReadPlanXLSX reads a workbook laid out as WritePlanXLSX does. Formulas are not
// evaluated: a cell that holds one is told.
func ReadPlanXLSX(b []byte) PlanRead {
	var out PlanRead
	f, err := excelize.OpenReader(bytes.NewReader(b), excelize.Options{UnzipSizeLimit: mostUnpacked, UnzipXMLSizeLimit: mostXML})
	if err != nil {
		out.problem("the file", "is no workbook that can be read, or unpacks to more than %d MB", mostUnpacked>>20)
		return out
	}
	defer f.Close()
	for _, sheet := range f.GetSheetList() {
		table, err := f.GetRows(sheet, excelize.Options{RawCellValue: true})
		if err != nil {
			out.problem("sheet "+sheet, "cannot be read: %v", err)
			continue
		}
		if len(table) > MostRows+headRow {
			out.Plan.Sessions = nil
			out.problem("sheet "+sheet, "has more than %d rows; split it", MostRows)
			return out
		}
		readSheet(f, sheet, table, &out)
	}
	out.bound()
	return out
}

func readSheet(f *excelize.File, sheet string, table [][]string, out *PlanRead) {
	s := PlanSession{}
	facts := map[string]string{}
	head := -1
	for n, row := range table {
		if len(row) == 0 {
			continue
		}
		if id := columnOf(row[0]); id == "movement" {
			head = n
			break
		} else if id != "" && len(row) > 1 {
			facts[id] = strings.TrimSpace(unsafe(row[1]))
		}
	}
	if head < 0 {
		if len(table) > 0 {
			out.problem("sheet "+sheet, "has no table of slots: a row that begins with “%s”", columns[perSession].label)
		}
		return
	}
	r := start(out, table[head], "sheet "+sheet, "movement", "sets", "reps_low")
	if r == nil {
		return
	}
	s.Name, s.Date, s.Intent = facts["session"], facts["date"], facts["intent"]
	s.WarmUpMin = r.number(facts["warm_up_min"], "sheet "+sheet, "warm_up_min")
	for n := head + 1; n < len(table); n++ {
		where := fmt.Sprintf("sheet %s, row %d", sheet, n+1)
		for col := range table[n] {
			cell, err := excelize.CoordinatesToCellName(col+1, n+1)
			if err != nil {
				continue
			}
			if formula, err := f.GetCellFormula(sheet, cell); err == nil && formula != "" {
				out.problem(where, "%s holds a formula; nothing is evaluated here, write its value", cell)
				table[n][col] = ""
			}
		}
		r.add(table[n], where, &s)
	}
	out.Plan.Sessions = append(out.Plan.Sessions, s)
}
