package formats

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"strings"
)

// WritePlanCSV writes a plan as CSV, one line a row of a slot. Text that a spreadsheet would
// take for a formula is written behind an apostrophe.
func WritePlanCSV(w io.Writer, p *Plan) error {
	out := csv.NewWriter(w)
	var head []string
	for _, c := range columns {
		head = append(head, c.id)
	}
	if err := out.Write(head); err != nil {
		return err
	}
	for i := range p.Sessions {
		for _, l := range p.Sessions[i].lines() {
			row := cells(&l)
			for k := range row {
				row[k] = Safe(row[k])
			}
			if err := out.Write(row); err != nil {
				return err
			}
		}
	}
	out.Flush()
	return out.Error()
}

// ReadPlanCSV reads a plan written as CSV: commas, semicolons or tabs. Cells are
// taken as they stand; nothing in them is evaluated.
func ReadPlanCSV(b []byte) PlanRead {
	var out PlanRead
	b = bytes.TrimPrefix(b, []byte("\xef\xbb\xbf"))
	first, _, _ := bytes.Cut(b, []byte("\n"))
	in := csv.NewReader(bytes.NewReader(b))
	in.FieldsPerRecord = -1
	in.LazyQuotes = true
	for _, sep := range []rune{';', '\t'} {
		if strings.Count(string(first), string(sep)) > strings.Count(string(first), string(in.Comma)) {
			in.Comma = sep
		}
	}
	head, err := in.Read()
	if err != nil {
		out.problem("the file", "is empty or no table")
		return out
	}
	r := start(&out, head, "row 1", "session", "date", "movement", "sets", "reps_low")
	if r == nil {
		return out
	}
	for n := 2; ; n++ {
		row, err := in.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			out.problem(fmt.Sprintf("row %d", n), "cannot be read: %v", err)
			break
		}
		if n > MostRows+1 {
			out.Plan.Sessions = nil
			out.problem("the file", "has more than %d rows; split it", MostRows)
			return out
		}
		r.add(row, fmt.Sprintf("row %d", n), nil)
	}
	out.bound()
	return out
}
