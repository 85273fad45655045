package clients

import (
	"fmt"
	"strings"

	"musculus/internal/core/arm"
	"musculus/internal/core/day"
	"musculus/internal/core/priority"
	"musculus/internal/store"
)

// issueWords tells how far a session's sheet has come: issued, opened, changed
// since; planned is what stands there before.
func issueWords(kept *store.Session, issues []store.Issue, links []store.Link, planned string) string {
	if len(issues) == 0 {
		return planned
	}
	if kept.Version != issues[0].SessionVersion {
		return "changed since it was issued"
	}
	for _, l := range links {
		if l.OpenedAt != nil && l.OpenedAt.After(issues[0].At) {
			return "issued, opened"
		}
	}
	return "issued, not opened yet"
}

// firstWords tells which heads come first, and until when.
func firstWords(e *priority.Emphasis, wish string, today day.Day) string {
	if e == nil {
		if wish == "" {
			return "nothing wished yet"
		}
		return "wished: " + wish
	}
	var first []string
	for h := range arm.HeadCount {
		if e.Of(arm.HeadIndex(h), today) == priority.Prioritise {
			first = append(first, arm.Heads[h].Code)
		}
	}
	switch {
	case e.Until != nil && *e.Until < today:
		return "emphasis over since " + e.Until.Words()
	case len(first) == 0:
		return "nothing comes first"
	}
	return fmt.Sprintf("%s first until %s", strings.Join(first, " and "), e.Until.Words())
}

// knots are the six steps of the work, each with its own state.
func knots(card *ClientCard, v *ClientView, sets int) []Knot {
	plan := "nothing planned"
	switch {
	case card.Session != nil && card.Findings > 0:
		plan = fmt.Sprintf("%d to mend", card.Findings)
	case card.Session != nil:
		plan = "nothing to mend"
	}
	sheet := "nothing to print yet"
	if card.Session != nil {
		sheet = fmt.Sprintf("%s, %.0f min", card.When, card.Minutes)
	}
	log := "nothing logged yet"
	if sets > 0 {
		log = fmt.Sprintf("%d sets, %s", sets, card.Trained)
	}
	return []Knot{
		{Key: "dossier", Label: "Dossier"},
		{Key: "priorities", Label: "Priorities"},
		{Key: "week", Label: "Week", State: plan},
		{Key: "sheet", Label: "Sheet", State: sheet},
		{Key: "log", Label: "Log", State: log},
		{Key: "trend", Label: "Trend"},
	}
}
