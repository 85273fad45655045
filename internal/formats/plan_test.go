package formats_test

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"fmt"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"github.com/xuri/excelize/v2"

	"musculus/internal/core/arm"
	"musculus/internal/core/day"
	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/figure"

	"musculus/internal/formats"
)

// slot is a slot of a plan with its rows.
func slot(j plan.SlotJSON, rows ...formats.PlanRow) formats.PlanSlot {
	return formats.PlanSlot{SlotJSON: j, Rows: rows}
}

// row is a row of a plan.
func row(d dose.Dose) formats.PlanRow { return formats.PlanRow{RowJSON: plan.RowJSON{Dose: d}} }

func aPlan() *formats.Plan {
	first := row(dose.Dose{Sets: 3, RepsLow: 8, RepsHigh: 12, Reserve: 1, RestS: 90, Tempo: effort.Tempo{3, 1, 1, 0}, Load: dose.Kg(14)})
	back := row(
		dose.Dose{
			Sets:     1,
			RepsLow:  15,
			RepsHigh: 20,
			Reserve:  2,
			RestS:    60,
			Load:     &dose.Load{Share: 0.6},
			Method:   dose.Use{ID: "drops", N: 2},
		},
	)
	held := row(dose.Dose{Sets: 1, SecondsLow: 20, SecondsHigh: 30, Reserve: 2, RestS: 60, Load: dose.StepsOff(-1)})
	held.Movement, held.Settings = "pushdown_bar", movement.Settings{movement.Hold: movement.Word("thumb_over")}
	return &formats.Plan{Format: formats.PlanFormat, Version: formats.PlanVersion, Sessions: []formats.PlanSession{
		{
			Name:      "Gallery day",
			Date:      "2026-11-27",
			Intent:    "heavy",
			WarmUpMin: 5,
			Combos:    []plan.Combo{{ID: "a", BetweenS: 20, AfterS: 90, Loads: plan.OneLoad}},
			Slots: []formats.PlanSlot{
				slot(
					plan.SlotJSON{
						Movement: "curl_reclined",
						Settings: movement.Settings{movement.Bench: movement.Num(60), movement.Hands: movement.Word("one")},
						Cues:     []string{"Let both arms hang like ropes", "Little fingers ride highest"},
					},
					first,
				),
				slot(
					plan.SlotJSON{
						Movement: "pushdown_rope",
						Settings: movement.Settings{},
						Cues:     []string{},
						Combo:    "a",
						Starts:   plan.StartsLeft,
						Locked:   true,
					},
					row(dose.Dose{Sets: 3, RepsLow: 10, RepsHigh: 12, Reserve: 2, RestS: 60, Load: dose.ToFind()}),
					back,
					held,
				),
				slot(
					plan.SlotJSON{Movement: "curl_neutral", Settings: movement.Settings{}, Cues: []string{}, Combo: "a"},
					row(dose.Dose{Sets: 2, RepsLow: 8, RepsHigh: 8, Reserve: 2, Load: &dose.Load{Combo: true}}),
				),
			},
		},
		{
			Name:      "=cmd|calc",
			Date:      "2026-11-29",
			WarmUpMin: 2.5,
			Slots: []formats.PlanSlot{
				slot(
					plan.SlotJSON{Movement: "lying_bar", Settings: movement.Settings{}, Cues: []string{}},
					row(dose.Dose{Sets: 2, RepsLow: 8, RepsHigh: 8, Reserve: 2, RestS: 120}),
				),
			},
		},
	}}
}

// Every format gives back what was written, and keeps spreadsheets from taking
// text for a formula.
func TestAPlanComesBackFromEveryFormat(t *testing.T) {
	for name, f := range map[string]struct {
		write func(*bytes.Buffer) error
		read  func([]byte) formats.PlanRead
	}{
		"json": {func(b *bytes.Buffer) error { return formats.WritePlanJSON(b, aPlan()) }, formats.ReadPlanJSON},
		"csv":  {func(b *bytes.Buffer) error { return formats.WritePlanCSV(b, aPlan()) }, formats.ReadPlanCSV},
		"xlsx": {func(b *bytes.Buffer) error { return formats.WritePlanXLSX(b, aPlan()) }, formats.ReadPlanXLSX},
	} {
		var b bytes.Buffer
		require.NoError(t, f.write(&b), name)
		got := f.read(b.Bytes())
		assert.Empty(t, got.Problems, name)
		assert.Empty(t, got.Unknown, name)
		want, have := aPlan().Sessions, got.Plan.Sessions
		assert.Equal(t, bare(want), bare(have), name)
		if name == "csv" {
			assert.Contains(t, b.String(), "'=cmd|calc", "no spreadsheet runs it")
		}
		if name == "json" {
			s, err := jsonschema.NewCompiler().Compile(filepath.Join(root, "docs/formats/plan.schema.json"))
			require.NoError(t, err)
			var content any
			require.NoError(t, json.Unmarshal(b.Bytes(), &content))
			assert.NoError(t, s.Validate(content))
		}
	}
}

// bare is sessions with empty and none as one.
func bare(sessions []formats.PlanSession) []formats.PlanSession {
	for i := range sessions {
		for j := range sessions[i].Slots {
			s := &sessions[i].Slots[j]
			s.ID = nil
			if len(s.Settings) == 0 {
				s.Settings = nil
			}
			if len(s.Cues) == 0 {
				s.Cues = nil
			}
			for k := range s.Rows {
				if s.Rows[k].ID = nil; len(s.Rows[k].Settings) == 0 {
					s.Rows[k].Settings = nil
				}
			}
		}
	}
	return sessions
}

func TestRowsAreReadAsPeopleWriteThem(t *testing.T) {
	got := formats.ReadPlanCSV(
		[]byte(
			"\xef\xbb\xbfSession;Date;Movement;Sets;Reps from;Load, kg a hand;Mood\nMonday;25.11.2026;curl_reclined;3;8;12,5 " +
				"kg;fine\nMonday;25.11.2026;lying_bar;3;8;;\n",
		),
	)
	assert.Empty(t, got.Problems)
	assert.Equal(t, []string{"Mood"}, got.Unknown, "told by name")
	require.Len(t, got.Plan.Sessions, 1)
	s := got.Plan.Sessions[0]
	assert.Equal(t, "2026-11-25", s.Date)
	assert.Equal(t, 12.5, *s.Slots[0].Rows[0].Load.Kg)
	assert.Equal(t, 8, s.Slots[0].Rows[0].RepsHigh)
	assert.Nil(t, s.Slots[1].Rows[0].Load)
	head := "session,date,movement,sets,reps_low,load_kg,rest_s\n"
	for row, where := range map[string]string{
		"A,11/25/2026,lying_bar,3,8,,90":      "read one way only",
		"A,2026-11-25,lying_bar,3,8,30 lb,90": "is in pounds; what one hand carries is told in kg",
		"A,2026-11-25,lying_bar,three,8,,90":  `"three" is no number`,
		"A,2026-11-25,lying_bar,2.5,8,,90":    "no whole number",
		"A,2026-11-25,,3,8,,90":               "no movement",
		"A,2026-11-25,lying_bar,3,8,1e99,90":  "no number",
		"A,2026-11-25,lying_bar,3,8,=1+1,90":  "no number",
		"A,2026-13-45,lying_bar,3,8,,90":      "read one way only",
	} {
		got := formats.ReadPlanCSV([]byte(head + row + "\n"))
		require.Len(t, got.Problems, 1, row)
		assert.Contains(t, got.Problems[0].Reason, where, row)
		assert.NotEmpty(t, got.Problems[0].Where)
	}
	assert.Contains(t, formats.ReadPlanCSV([]byte("a,b\n1,2\n")).Problems[0].Reason, "missing")
	assert.NotEmpty(t, formats.ReadPlanCSV(nil).Problems)
	assert.Contains(
		t,
		formats.ReadPlanCSV([]byte(head + strings.Repeat("A,2026-11-25,lying_bar,3,8,,90\n", 20_000))).Problems[0].Reason,
		"more than 1000 rows",
	)
}

func TestWhatIsNoPlanIsToldSo(t *testing.T) {
	assert.Contains(t, formats.ReadPlanJSON([]byte("{")).Problems[0].Reason, "no plan in JSON")
	assert.Contains(t, formats.ReadPlanJSON([]byte(`{"format":"other"}`)).Problems[0].Reason, "is not")
	assert.Contains(t, formats.ReadPlanJSON([]byte(`{"format":"musculus-plan","version":7}`)).Problems[0].Reason, "version 7")
	assert.Equal(
		t,
		[]string{"mood"},
		formats.ReadPlanJSON(
			[]byte(`{"format":"musculus-plan","version":1,"sessions":[{"name":"A","date":"2026-11-25","mood":"fine","slots":[]}]}`),
		).Unknown,
	)
	assert.Contains(t, formats.ReadPlanXLSX([]byte("text")).Problems[0].Reason, "no workbook")
	// A small file that unpacks to a huge one.
	var b bytes.Buffer
	var whole bytes.Buffer
	require.NoError(t, formats.WritePlanXLSX(&whole, aPlan()))
	from, err := zip.NewReader(bytes.NewReader(whole.Bytes()), int64(whole.Len()))
	require.NoError(t, err)
	to := zip.NewWriter(&b)
	for _, f := range from.File {
		w, err := to.Create(f.Name)
		require.NoError(t, err)
		if strings.HasSuffix(f.Name, "sheet1.xml") {
			for range 60 {
				_, err = w.Write(make([]byte, 1<<20))
				require.NoError(t, err)
			}
		}
	}
	require.NoError(t, to.Close())
	assert.Less(t, b.Len(), 200<<10)
	assert.NotEmpty(t, formats.ReadPlanXLSX(b.Bytes()).Problems)
	// A formula is told, not evaluated.
	f, err := excelize.OpenReader(bytes.NewReader(whole.Bytes()))
	require.NoError(t, err)
	require.NoError(t, f.SetCellFormula(f.GetSheetList()[0], "D7", "=1+2"))
	b.Reset()
	require.NoError(t, f.Write(&b))
	got := formats.ReadPlanXLSX(b.Bytes())
	require.NotEmpty(t, got.Problems)
	assert.Contains(t, fmt.Sprint(got.Problems), "holds a formula")
}

func TestTheCalendar(t *testing.T) {
	var b bytes.Buffer
	on := day.Of(2026, 11, 27)
	require.NoError(
		t,
		formats.WriteCalendar(
			&b,
			"Aurelio Finch",
			[]formats.CalendarSession{{ID: "x", Name: "Gallery day", Where: "The Sail Loft", Says: "36 minutes", Date: on}},
			time.Date(2026, 11, 27, 0, 0, 0, 0, time.UTC),
		),
	)
	for _, line := range []string{"BEGIN:VCALENDAR", "DTSTART;VALUE=DATE:20261127", "DTEND;VALUE=DATE:20261128",
		"SUMMARY:Gallery day", "LOCATION:The Sail Loft", "END:VCALENDAR"} {
		assert.Contains(t, b.String(), line)
	}
}

// A sheet of as many slots as a session has room for is drawn with every movement's
// figure; few slots are one page on either paper, many go on to a second one.
func TestASheetOnPaper(t *testing.T) {
	y, err := effort.NewYardstick(arm.DefaultBody)
	require.NoError(t, err)
	sheet := func(n int) *formats.PDFSheet {
		s := &formats.PDFSheet{
			Client:  "Aurelio Finch",
			Session: "Gallery day",
			Where:   "27 November 2026 · The Sail Loft",
			Cautions: []string{"Breathe out on the effort. Pain over 3 of 10, or rising, ends the set; tell your coach.",
				"Chest pain, fainting, severe breathlessness or sudden weakness: stop and call emergency services.",
				"This sheet is no diagnosis and no treatment; local rules and licensed practice come first."},
			Caps: []string{"At least 3 in reserve."},
		}
		for i := range n {
			set := movement.Shipped.Movements[i*4%len(movement.Shipped.Movements)].Default()
			p, err := set.Profile(y)
			slot := formats.PDFSlot{
				Title:   set.Title(),
				Details: set.Details(),
				SetUp:   "bench at 45° · hands 48 cm apart, a thumb outside the smooth part, 42 cm",
				Dose:    "2 × 8–12; then 1 × 8–12, drops, 2 rungs after the first · bar 30 kg",
				Last:    "1 × 8–12, drops, 2 rungs after the first, to the limit",
				How:     "stop with 2 reps left · rest 90 s · controlled, no bounce · from a straight elbow to a fully bent one",
				Sets:    5,
				Arms:    []string{"left", "right"}[:1+i%2],
				Unit:    "kg",
				Cues:    []string{"Elbows stay under the shoulders"},
				Stop:    "second rep with trunk or elbow help. Upper arm: fixed. To get out, walk the handle back to the stack.",
				Heads:   []formats.PDFHead{{ID: "biceps_long", Level: 0.8, Leading: true}},
			}
			if err == nil && set.Movement.Computed() {
				r := figure.MakeRibbon(p)
				slot.Ribbon = &r
			} else {
				p = nil
			}
			slot.Pose = figure.MakePose(set, arm.DefaultBody, p, nil)
			s.Slots = append(s.Slots, slot)
		}
		return s
	}
	for _, c := range []struct {
		slots, pages int
		letter       bool
	}{{0, 1, false}, {4, 1, false}, {6, 1, true}, {6, 1, false}, {20, 5, false}} {
		var b bytes.Buffer
		require.NoError(t, formats.WriteSheetPDF(&b, sheet(c.slots), c.letter))
		assert.Equal(t, c.pages, strings.Count(b.String(), "/Type /Page\n"), "%d slots", c.slots)
	}
}
