package store

import (
	"fmt"
	"time"

	"github.com/jackc/pgx/v5/pgtype"

	"musculus/internal/core/day"
)

// A date of the database is a day of the core, without a driver's type in between.
type (
	dayRead  day.Day
	dayWrite day.Day
)

// ScanDate reads a date of the database.
func (d *dayRead) ScanDate(v pgtype.Date) error {
	if !v.Valid || v.InfinityModifier != pgtype.Finite {
		return fmt.Errorf("%v is no day", v)
	}
	*d = dayRead(day.At(v.Time))
	return nil
}

// DateValue writes a date for the database.
func (d dayWrite) DateValue() (pgtype.Date, error) {
	y, m, dom := day.Day(d).Date()
	return pgtype.Date{Time: time.Date(y, time.Month(m), dom, 0, 0, 0, 0, time.UTC), Valid: true}, nil
}

// speakDays teaches a connection's types the core's day.
func speakDays(m *pgtype.Map) {
	m.TryWrapScanPlanFuncs = append([]pgtype.TryWrapScanPlanFunc{func(target any) (pgtype.WrappedScanPlanNextSetter, any, bool) {
		d, ok := target.(*day.Day)
		if !ok {
			return nil, nil, false
		}
		return &scanDay{}, (*dayRead)(d), true
	}}, m.TryWrapScanPlanFuncs...)
	m.TryWrapEncodePlanFuncs = append([]pgtype.TryWrapEncodePlanFunc{func(value any) (pgtype.WrappedEncodePlanNextSetter, any, bool) {
		d, ok := value.(day.Day)
		if !ok {
			return nil, nil, false
		}
		return &encodeDay{}, dayWrite(d), true
	}}, m.TryWrapEncodePlanFuncs...)
	m.RegisterDefaultPgType(day.Day(0), "date")
	m.RegisterDefaultPgType((*day.Day)(nil), "date")
}

type scanDay struct{ next pgtype.ScanPlan }

func (p *scanDay) SetNext(next pgtype.ScanPlan) { p.next = next }

func (p *scanDay) Scan(src []byte, target any) error {
	return p.next.Scan(src, (*dayRead)(target.(*day.Day)))
}

type encodeDay struct{ next pgtype.EncodePlan }

func (p *encodeDay) SetNext(next pgtype.EncodePlan) { p.next = next }

func (p *encodeDay) Encode(value any, buf []byte) ([]byte, error) {
	return p.next.Encode(dayWrite(value.(day.Day)), buf)
}
