package decide

import (
	"fmt"
	"strings"

	"musculus/internal/core/plan"
	"musculus/internal/core/text"
)

// What a lighter week is.
const (
	hardFrom      = 9
	fallsFor      = 2
	fallingSeries = 2
)

// Whole is what is proposed for the client as a whole, before anything about one series; nil for
// nothing.
func Whole(c *Client, all []*Series) *Proposal {
	for _, rule := range []func(*Client, []*Series) *Proposal{screen, doses, lighterWeek, elsewhere, emphasis} {
		p := rule(c, all)
		if p == nil {
			continue
		}
		for i := range c.Taken {
			t := &c.Taken[i]
			late := c.since(t)
			if t.Undone || t.Kind != p.Kind {
				continue
			}
			if t.NotNow && late < backAfter || !t.NotNow && int(c.Today-t.On) < seenFor(p.Kind) {
				return nil
			}
		}
		return p
	}
	return nil
}

// seenFor is for how many days something that was taken is not asked again.
func seenFor(k Kind) int {
	if k == LighterWeek || k == Screen {
		return 7
	}
	return 28 // it is asked for as long as it is news, and no longer
}

// since is how many sessions were felt after an answer.
func (c *Client) since(t *Taken) (n int) {
	for i := range c.Felt {
		if c.Felt[i].On > t.On {
			n++
		}
	}
	return n
}

func screen(c *Client, _ []*Series) *Proposal {
	if c.Blocked == "" {
		return nil
	}
	return &Proposal{Kind: Screen, Says: "Look at the screening before anything else", Why: []string{c.Blocked}}
}

func doses(c *Client, _ []*Series) *Proposal {
	switch {
	case len(c.Begun) > 0:
		return &Proposal{Kind: Doses, Says: "Bring the sheets to what holds now", Why: c.Begun}
	case len(c.Ended) > 0:
		return &Proposal{Kind: Doses, Says: "The doses may return, a step at a time", Why: c.Ended}
	}
	return nil
}

func lighterWeek(c *Client, all []*Series) *Proposal {
	if c.Lighter {
		return nil
	}
	var falling []string
	for _, s := range all {
		if s.fallsFor() >= fallsFor {
			falling = append(falling, s.SetUp.Short())
		}
	}
	why := ""
	n := len(c.Felt)
	switch {
	case len(falling) >= fallingSeries:
		why = text.Capital(strings.Join(falling, " and ")) + " fall, each for two sessions or more."
	case n >= 2 && c.Felt[n-1].Poor && c.Felt[n-2].Poor && c.Felt[n-1].Hard >= hardFrom && c.Felt[n-2].Hard >= hardFrom:
		why = fmt.Sprintf(
			"Sleep and stress were said to be poor twice, with sessions %d and %d of 10 hard.",
			c.Felt[n-2].Hard,
			c.Felt[n-1].Hard,
		)
	case c.Budget != "":
		why = c.Budget
	case c.Calendar != "":
		why = c.Calendar
	default:
		return nil
	}
	return &Proposal{
		Kind:  LighterWeek,
		Says:  fmt.Sprintf("A lighter week: half the sets, the same loads, %d left", plan.LighterReserve),
		Why:   []string{why},
		Steps: Steps{Halve: true, Reserve: plan.LighterReserve},
	}
}

func elsewhere(c *Client, _ []*Series) *Proposal {
	if len(c.Duplicates) == 0 {
		return nil
	}
	return &Proposal{
		Kind: LessDirect,
		Says: "Direct sets that presses and pulls elsewhere came to give go first",
		Why:  c.Duplicates,
	}
}

func emphasis(c *Client, _ []*Series) *Proposal {
	if c.Emphasis == "" {
		return nil
	}
	return &Proposal{Kind: NewEmphasis, Says: "Say what comes next", Why: []string{c.Emphasis}}
}
