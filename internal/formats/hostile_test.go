package formats_test

import (
	"archive/zip"
	"bytes"
	"fmt"
	"runtime"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/formats"
)

// workbook packs parts into what calls itself a workbook.
func workbook(t testing.TB, parts map[string]string) []byte {
	var b bytes.Buffer
	z := zip.NewWriter(&b)
	all := map[string]string{
		"[Content_Types].xml": `<?xml version="1.0"?>
			<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types">
			<Default Extension="xml" ContentType="application/xml"/>
			<Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/>
			<Override PartName="/xl/workbook.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml"/>
				<Override PartName="/xl/worksheets/sheet1.xml"
				ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml"/><Override PartName="/xl/sharedStrings.xml"
				ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sharedStrings+xml"/></Types>`,
		"_rels/.rels": `<?xml version="1.0"?>
			<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">
			<Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument"
				Target="xl/workbook.xml"/></Relationships>`,
		"xl/workbook.xml": `<?xml version="1.0"?>
			<workbook xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"
				xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><sheets><sheet name="S" sheetId="1" r:id="rId1"/>
				</sheets></workbook>`,
		"xl/_rels/workbook.xml.rels": `<?xml version="1.0"?>
			<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">
			<Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet"
				Target="worksheets/sheet1.xml"/><Relationship Id="rId2"
				Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/sharedStrings" Target="sharedStrings.xml"/></Relationships>`,
	}
	for name, text := range parts {
		all[name] = text
	}
	for name, text := range all {
		w, err := z.Create(name)
		require.NoError(t, err)
		_, err = w.Write([]byte(text))
		require.NoError(t, err)
	}
	require.NoError(t, z.Close())
	return b.Bytes()
}

func sheetOf(rows string) string {
	return `<?xml version="1.0"?><worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><sheetData>` +
		rows + `</sheetData></worksheet>`
}

// Small files that unpack to something huge, or point far away, are told in a moment
// and take little memory.
func TestHostileWorkbooks(t *testing.T) {
	cell := func(ref string) string { return `<c r="` + ref + `" t="inlineStr"><is><t>x</t></is></c>` }
	var far, wide, formulas strings.Builder
	for n := 1; n <= 1000; n++ {
		fmt.Fprintf(&far, `<row r="%d">%s</row>`, n, cell(fmt.Sprintf("XFD%d", n)))
		fmt.Fprintf(&formulas, `<row r="%d"><c r="A%d"><f>SUM(B1:XFD1048576)</f><v>1</v></c></row>`, n, n)
	}
	for range 40_000 {
		wide.WriteString(`<c t="inlineStr"><is><t>m</t></is></c>`)
	}
	for name, b := range map[string][]byte{
		"a cell in the last row and column": workbook(t,
			map[string]string{"xl/worksheets/sheet1.xml": sheetOf(`<row r="1">` + cell("A1") + `</row><row r="1048576">` +
				cell("XFD1048576") + `</row>`)}),
		"a cell in the last column, each row": workbook(t, map[string]string{"xl/worksheets/sheet1.xml": sheetOf(far.String())}),
		"40,000 columns": workbook(t,
			map[string]string{"xl/worksheets/sheet1.xml": sheetOf(`<row r="1">` + wide.String() + `</row>`)}),
		"formulas everywhere": workbook(t, map[string]string{"xl/worksheets/sheet1.xml": sheetOf(formulas.String())}),
		"shared strings without end": workbook(t,
			map[string]string{"xl/worksheets/sheet1.xml": sheetOf(`<row r="1"><c r="A1" t="s"><v>0</v></c></row>`),
				"xl/sharedStrings.xml": `<sst xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main">` +
					strings.Repeat("<si/>", 8<<20) + `</sst>`}),
		"a part that unpacks to a gigabyte": workbook(t, map[string]string{"xl/worksheets/sheet1.xml": sheetOf(strings.Repeat(" ", 200<<20))}),
		"no workbook":                       []byte("PK\x03\x04 nonsense"),
		"a workbook without its parts":      workbook(t, map[string]string{"xl/workbook.xml": ""}),
		"styles without end, within the bound": workbook(t, map[string]string{"xl/worksheets/sheet1.xml": sheetOf(""),
			"xl/styles.xml": `<styleSheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><cellXfs>` +
				strings.Repeat("<xf/>", 200_000) + `</cellXfs></styleSheet>`}),
	} {
		var got formats.PlanRead
		began := time.Now()
		peak := peakOf(func() { got = formats.ReadPlanXLSX(b) })
		took := time.Since(began)
		assert.Empty(t, got.Plan.Sessions, name)
		t.Logf("%s: %d kB, %v, %d MB at its peak", name, len(b)>>10, took, peak>>20)
		assert.Less(t, took, 20*time.Second, name) // ten times what it may take
		assert.Less(t, peak, uint64(300<<20), name)
	}
}

// peakOf is how much the heap grows at most while something runs, bytes.
func peakOf(do func()) uint64 {
	var m runtime.MemStats
	runtime.GC()
	runtime.ReadMemStats(&m)
	before, peak := m.HeapAlloc, m.HeapAlloc
	done, stopped := make(chan struct{}), make(chan struct{})
	go func() {
		defer close(stopped)
		for {
			select {
			case <-done:
				return
			case <-time.After(2 * time.Millisecond):
				var m runtime.MemStats
				runtime.ReadMemStats(&m)
				peak = max(peak, m.HeapAlloc)
			}
		}
	}()
	do()
	close(done)
	<-stopped
	return peak - before
}

// A table of 40,000 columns names the first fifty nobody knows and counts the rest.
func TestManyColumnsAreCounted(t *testing.T) {
	var head strings.Builder
	head.WriteString("session,date,movement,sets,reps_low")
	for i := range 40_000 {
		fmt.Fprintf(&head, ",x%d", i)
	}
	got := formats.ReadPlanCSV([]byte(head.String() + "\nA,2026-11-25,lying_bar,3,8\n"))
	assert.Len(t, got.Unknown, 51)
	assert.Equal(t, "and 39950 more", got.Unknown[50])
	require.Len(t, got.Plan.Sessions, 1)
	var fields strings.Builder
	for i := range 10_000 {
		fmt.Fprintf(&fields, `"f%d":1,`, i)
	}
	json := formats.ReadPlanJSON([]byte(`{"format":"musculus-plan","version":1,` + fields.String() + `"sessions":[]}`))
	assert.Len(t, json.Unknown, 51)
}

// What cannot be kept is told at its place, and not echoed.
func TestSignsThatCannotBeKept(t *testing.T) {
	csv := formats.ReadPlanCSV([]byte("session,date,movement,sets,reps_low,cues\nA\x00B,2026-11-25,lying_bar,3,8,\x1b[31mred\n"))
	require.Len(t, csv.Problems, 2)
	assert.Contains(t, csv.Problems[0].Where, "row 2")
	json := formats.ReadPlanJSON(
		[]byte(
			`{"format":"musculus-plan","version":1,"sessions":[{"name":"A\u0000","date":"2026-11-25",
				"slots":[{"movement":"lying_bar","load_kg":1e305}]}]}`,
		),
	)
	require.NotEmpty(t, json.Problems)
	assert.Equal(t, "sessions[0].name", json.Problems[0].Where)
}

func fuzzReader(f *testing.F, read func([]byte) formats.PlanRead, seeds ...[]byte) {
	for _, s := range seeds {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, b []byte) {
		got := read(b)
		if len(got.Unknown) > 60 || len(got.Problems) > 250 {
			t.Fatalf("%d unknown, %d problems", len(got.Unknown), len(got.Problems))
		}
	})
}

func written(f *testing.F, write func(*bytes.Buffer) error) []byte {
	var b bytes.Buffer
	require.NoError(f, write(&b))
	return b.Bytes()
}

func FuzzReadPlanJSON(f *testing.F) {
	fuzzReader(
		f,
		formats.ReadPlanJSON,
		written(f, func(b *bytes.Buffer) error { return formats.WritePlanJSON(b, aPlan()) }),
		[]byte(`{"format":"musculus-plan","version":1,"sessions":[{}]}`),
	)
}

func FuzzReadPlanCSV(f *testing.F) {
	fuzzReader(
		f,
		formats.ReadPlanCSV,
		written(f, func(b *bytes.Buffer) error { return formats.WritePlanCSV(b, aPlan()) }),
		[]byte("session;date;movement;sets;reps_low\nA;25.11.2026;lying_bar;3;8"),
	)
}

func FuzzReadPlanXLSX(f *testing.F) {
	fuzzReader(f, formats.ReadPlanXLSX, written(f, func(b *bytes.Buffer) error { return formats.WritePlanXLSX(b, aPlan()) }))
}

// Lines of the interchange, whatever is in them.
func FuzzInterchange(f *testing.F) {
	for _, s := range []string{`{"elbow_flexion": 20}`,
		`{"name":"x","from":{"elbow_flexion":10},"to":{"elbow_flexion":90},"load":{"kind":"cable","pulley":[1,0,0]}}`, "nonsense\n{}"} {
		f.Add([]byte(s))
	}
	f.Fuzz(func(t *testing.T, b []byte) {
		var p formats.Profiles
		for _, answer := range []func([]byte) (any, error){formats.Posture, p.Answer, formats.Series} {
			var out, errs bytes.Buffer
			if _, err := formats.Lines(bytes.NewReader(b), &out, &errs, answer); err != nil {
				t.Fatal(err)
			}
		}
	})
}
