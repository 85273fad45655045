package person

import (
	"slices"
	"time"

	"musculus/internal/core/day"
)

// Recorded is a health record with the moment it was entered.
type Recorded struct {
	At     time.Time
	Day    day.Day // of that moment, where the studio is
	Round  *Screening
	Report *JointReport
}

// StoppedSince is the moment from which a client may not train, by the records in
// any order; zero where she never might. It is asked for one who may not today.
func StoppedSince(d *Dossier, records []Recorded, today day.Day) time.Time {
	records = slices.Clone(records)
	slices.SortStableFunc(records, func(a, b Recorded) int { return a.At.Compare(b.At) })
	mayTrain := func(upTo int, on day.Day) bool {
		var last *Screening
		var joints []JointReport
		for _, r := range records[:upTo] {
			if r.Round != nil && (last == nil || r.Round.On >= last.On) {
				last = r.Round
			}
			if r.Report != nil {
				joints = append(joints, *r.Report)
			}
		}
		st := StandingOf(d, last, joints, on)
		return st.MayTrain()
	}
	for n := len(records); n > 0; n-- {
		if on := records[n-1].Day; mayTrain(n, on) {
			// It came with time alone: an ache that did not ease.
			for ; on <= today; on++ {
				if !mayTrain(n, on) {
					return time.Unix(int64(on)*24*60*60, 0)
				}
			}
		}
		if on := records[n-1].Day; mayTrain(n-1, on) {
			return records[n-1].At
		}
	}
	return time.Time{}
}
