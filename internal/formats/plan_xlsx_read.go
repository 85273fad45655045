package formats

import (
	"archive/zip"
	"bytes"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"path"
	"strings"

	"github.com/xuri/excelize/v2"

	"musculus/internal/core/text"
)

// What a workbook may unpack to, bytes: all of it, a sheet, any other part. A few
// kilobytes of a workbook can unpack to gigabytes of empty cells.
const (
	mostUnpacked = 12 << 20
	mostSheet    = 4 << 20
	mostPart     = 1 << 20
	mostParts    = 300
)

// ReadPlanXLSX reads a workbook laid out as WritePlanXLSX does, sheet by sheet as a
// stream. Formulas are not evaluated: a cell that holds one is told.
func ReadPlanXLSX(b []byte) PlanRead {
	var out PlanRead
	z, err := unpacked(b)
	if err != nil {
		out.problem("the file", "%v", err)
		return out
	}
	f, err := excelize.OpenReader(bytes.NewReader(b), excelize.Options{UnzipSizeLimit: mostUnpacked, UnzipXMLSizeLimit: mostUnpacked})
	if err != nil {
		out.problem("the file", "is no workbook that can be read")
		return out
	}
	defer f.Close()
	sheets := f.GetSheetList()
	if len(sheets) > MostSessions {
		out.problem("the file", "has %d sheets, more than %d; split it", len(sheets), MostSessions)
		return out
	}
	parts := sheetParts(z)
	for _, sheet := range sheets {
		table, err := readTable(f, sheet)
		if err != nil {
			out.problem("sheet "+short(sheet), "%v", err)
			continue
		}
		readSheet(sheet, table, formulas(z, parts[sheet]), &out)
	}
	out.bound()
	return out
}

// unpacked opens a workbook that keeps within its bounds.
func unpacked(b []byte) (*zip.Reader, error) {
	z, err := zip.NewReader(bytes.NewReader(b), int64(len(b)))
	if err != nil {
		return nil, errors.New("is no workbook that can be read")
	}
	var all uint64
	for _, part := range z.File {
		most := uint64(mostPart)
		if strings.HasPrefix(part.Name, "xl/worksheets/") {
			most = mostSheet
		}
		if all += part.UncompressedSize64; part.UncompressedSize64 > most || all > mostUnpacked {
			return nil, fmt.Errorf("unpacks to more than %d MB, or a sheet of it to more than %d MB", mostUnpacked>>20, mostSheet>>20)
		}
	}
	if len(z.File) > mostParts {
		return nil, fmt.Errorf("has %d parts, more than %d", len(z.File), mostParts)
	}
	return z, nil
}

// readTable reads a sheet's first columns, row by row.
func readTable(f *excelize.File, sheet string) ([][]string, error) {
	rows, err := f.Rows(sheet)
	if err != nil {
		return nil, errors.New("cannot be read")
	}
	defer rows.Close()
	var out [][]string
	filled := 0
	for rows.Next() {
		if len(out) == mostLooked {
			return nil, fmt.Errorf("has more than %d rows; split it", mostLooked)
		}
		row, err := rows.Columns(excelize.Options{RawCellValue: true})
		if err != nil {
			return nil, errors.New("cannot be read")
		}
		if len(row) > 0 {
			if filled++; filled > MostRows+headRow {
				return nil, fmt.Errorf("has more than %d rows; split it", MostRows)
			}
		}
		out = append(out, append([]string(nil), row[:min(len(row), mostColumns)]...)) // the rest may go
	}
	return out, nil
}

// sheetParts finds the part of each sheet by its name.
func sheetParts(z *zip.Reader) map[string]string {
	var book struct {
		Sheets []struct {
			Name string `xml:"name,attr"`
			ID   string `xml:"http://schemas.openxmlformats.org/officeDocument/2006/relationships id,attr"`
		} `xml:"sheets>sheet"`
	}
	var rels struct {
		Of []struct {
			ID     string `xml:"Id,attr"`
			Target string `xml:"Target,attr"`
		} `xml:"Relationship"`
	}
	out := map[string]string{}
	if readPart(z, "xl/workbook.xml", func(d *xml.Decoder) error { return d.Decode(&book) }) != nil ||
		readPart(z, "xl/_rels/workbook.xml.rels", func(d *xml.Decoder) error { return d.Decode(&rels) }) != nil {
		return out
	}
	for _, s := range book.Sheets {
		for _, r := range rels.Of {
			if r.ID == s.ID {
				out[s.Name] = strings.TrimPrefix(path.Join("xl", strings.TrimPrefix(r.Target, "/xl")), "/")
			}
		}
	}
	return out
}

func readPart(z *zip.Reader, name string, read func(*xml.Decoder) error) error {
	part, err := z.Open(name)
	if err != nil {
		return err
	}
	defer part.Close()
	return read(xml.NewDecoder(io.LimitReader(part, mostSheet)))
}

// formulas lists the cells of a sheet that hold one, "B7": looked for once.
func formulas(z *zip.Reader, part string) map[string]bool {
	out := map[string]bool{}
	_ = readPart(z, part, func(d *xml.Decoder) error { // what cannot be read holds none
		cell := ""
		for {
			t, err := d.RawToken()
			if err != nil {
				return err
			}
			start, ok := t.(xml.StartElement)
			switch {
			case !ok:
			case start.Name.Local == "c":
				cell = ""
				for _, a := range start.Attr {
					if a.Name.Local == "r" {
						cell = a.Value
					}
				}
			case start.Name.Local == "f" && cell != "" && len(out) < MostRows:
				out[cell] = true
			}
		}
	})
	return out
}

func readSheet(sheet string, table [][]string, formulas map[string]bool, out *PlanRead) {
	s := PlanSession{}
	facts := map[string]string{}
	head := -1
	place := "sheet " + short(sheet)
	for n, row := range table {
		if len(row) == 0 {
			continue
		}
		if id := columnOf(row[0]); id == "movement" {
			head = n
			break
		} else if id != "" && len(row) > 1 {
			fact := strings.TrimSpace(unsafe(row[1]))
			if why := text.Fault(fact, true); why != "" {
				out.problem(place+", "+id, "%s", why)
				fact = ""
			}
			facts[id] = fact
		}
	}
	if head < 0 {
		if len(table) > 0 {
			out.problem(place, "has no table of slots: a row that begins with “%s”", columns[perSession].label)
		}
		return
	}
	r := start(out, table[head], place, "movement", "sets", "reps_low")
	if r == nil {
		return
	}
	s.Name, s.Date, s.Intent = facts["session"], facts["date"], facts["intent"]
	s.WarmUpMin = r.number(facts["warm_up_min"], place, "warm_up_min")
	for n := head + 1; n < len(table); n++ {
		where := fmt.Sprintf("%s, row %d", place, n+1)
		for col := range table[n] {
			if cell, err := excelize.CoordinatesToCellName(col+1, n+1); err == nil && formulas[cell] {
				out.problem(where, "%s holds a formula; nothing is evaluated here, write its value", cell)
				table[n][col] = ""
			}
		}
		r.add(table[n], where, &s)
	}
	out.Plan.Sessions = append(out.Plan.Sessions, s)
}
