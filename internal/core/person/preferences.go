package person

import (
	"fmt"
	"slices"
)

// AxisID names something that coaches do one way or another.
type AxisID string

// The axes.
const (
	AxisRange    AxisID = "range"
	AxisEffort   AxisID = "effort"
	AxisReps     AxisID = "reps"
	AxisOrder    AxisID = "order"
	AxisSpread   AxisID = "spread"
	AxisVariety  AxisID = "variety"
	AxisTempo    AxisID = "tempo"
	AxisTop      AxisID = "top"
	AxisFinish   AxisID = "finish"
	AxisOverhead AxisID = "overhead"
	AxisHold     AxisID = "hold"
	AxisSwing    AxisID = "swing"
)

// Choice is one way of an axis.
type Choice struct {
	ID    string
	Words string
	Why   string
}

// Axis is something that coaches do one way or another; the first choice is the
// default.
type Axis struct {
	ID      AxisID
	Label   string
	Acts    string // what it acts on, in words
	Choices []Choice
}

// Axes are all of them, in the order they are asked.
var Axes = []Axis{
	{AxisRange, "Range", "the elbow’s range of new slots", []Choice{
		{"full", "full", "covers long and short lengths"},
		{"guarded", "guarded", "kinder to the tendon: from a level forearm to an upright one"},
		{"long_partials", "long-range partials", "the load stays at long lengths"},
	}},
	{AxisEffort, "Effort", "the reserve of new rows, the methods that may be used", []Choice{
		{"reserve", "in reserve", "one to three reps left grow about as much and tire less"},
		{"limit", "to the limit on safe one-joint last sets", "a little more near the limit, where failing alone is safe"},
		{"beyond", "beyond the limit", "saves minutes, costs recovery"},
	}},
	{AxisReps, "Reps", "the bands of new rows", []Choice{
		{"middle", "middle", "8–12: fits most joints and steps"},
		{"heavy", "heavy", "5–8: for strength, where joints bear it"},
		{"high", "high", "12–20: lighter on joints, needs little weight"},
		{"light", "light-load", "20–35 to the limit: where there is little weight"},
		{"mixed", "mixed", "heavy with several joints, high with one"},
	}},
	{AxisOrder, "Order", "the finding on order, drafts", []Choice{
		{"several_first", "several joints first", "protects the heavy lifts"},
		{"priority_first", "priority first", "what matters most is done fresh"},
		{"isolate_first", "isolate first", "spares heavy loads, limits the press"},
	}},
	{AxisSpread, "Spread", "the days between hard work", []Choice{
		{"days", "two or three days", "48 hours apart suits most weeks"},
		{"daily", "often and little", "every day, at most 4 hard sets of a muscle group"},
		{"one_day", "one big day", "one day holds it all: late sets bring little more"},
	}},
	{AxisVariety, "Variety", "the finding on unchanged set-ups", []Choice{
		{"rotate", "rotate one or two each block", "adds what is missing, keeps what can be compared"},
		{"keep", "keep and progress", "progress shows best where nothing else changes"},
		{"often", "vary often", "for who needs it; load and effort grow, not surprise"},
	}},
	{AxisTempo, "Tempo", "the tempo of new rows", []Choice{
		{"controlled", "controlled", "no bounce; seconds matter little"},
		{"slow", "slow lowering", "three seconds down"},
		{"squeeze", "squeeze at the end", "one second held at the short end"},
		{"no_pause", "no pause", "steadily on, rest at neither end"},
	}},
	{AxisTop, "Top of the curl, end of the extension", "where new slots end", []Choice{
		{"demand", "by demand", "turns round where hardly anything pulls any more"},
		{"short", "stop short", "ten degrees before the end"},
		{"all", "all the way", "the whole range, idle part included"},
	}},
	{AxisFinish, "Finish of a lying extension", "the tilt of the arms", []Choice{
		{"tilted", "tilted", "the weight pulls to the end"},
		{"upright", "straight up", "the bones carry it at the end"},
	}},
	{AxisOverhead, "Upper arm overhead", "where the upper arm ends", []Choice{
		{"still", "still", "lengths and loads can be repeated"},
		{"help", "slight help", "one step: the long head also moves the shoulder"},
	}},
	{AxisHold, "Hold and wrist", "how new slots are held", []Choice{
		{"firm", "middle, firm, level", "the weight cannot shift"},
		{"loose", "loose", "moves no head"},
		{"thumb_over", "thumb over", "moves no head; never where a bar is over the body"},
		{"cupped", "cupped wrist", "trains the forearm; on pads only, with a wrist that bears it"},
	}},
	{AxisSwing, "Swing at the end", "the methods offered", []Choice{
		{"never", "never", "what the hips lift the arm does not"},
		{"after", "after strict reps", "extends the set, lowering still loaded"},
	}},
}

// Preferences are choices by axis; an axis that is not there is inherited.
type Preferences map[AxisID]string

// Check returns what is wrong, one error a field.
func (p Preferences) Check() []FieldError {
	var c checker
	for id, choice := range p {
		i := slices.IndexFunc(Axes, func(a Axis) bool { return a.ID == id })
		if i < 0 {
			c.fault(false, "preferences", "there is no axis %q", string(id))
			continue
		}
		c.fault(Axes[i].choice(choice) != nil, fmt.Sprintf("preferences.%s", id), "%q is no choice of %s", choice, Axes[i].Label)
	}
	return c.found
}

func (a *Axis) choice(id string) *Choice {
	for i := range a.Choices {
		if a.Choices[i].ID == id {
			return &a.Choices[i]
		}
	}
	return nil
}

// Preferred is what holds for a client, with where each choice comes from.
type Preferred map[AxisID]Held

// Held is a choice and whose it is: client, studio or the tool's default.
type Held struct {
	Choice *Choice
	Whose  string
}

// PreferredOf resolves a client's preferences over the studio's over the defaults.
func PreferredOf(client, studio Preferences) Preferred {
	out := Preferred{}
	for i := range Axes {
		a := &Axes[i]
		held := Held{&a.Choices[0], "default"}
		for _, of := range []struct {
			p     Preferences
			whose string
		}{{studio, "studio"}, {client, "client"}} {
			if c := a.choice(of.p[a.ID]); c != nil {
				held = Held{c, of.whose}
			}
		}
		out[a.ID] = held
	}
	return out
}

// Is says whether a choice holds; of no preferences at all the default does.
func (p Preferred) Is(id AxisID, choice string) bool {
	if held, ok := p[id]; ok {
		return held.Choice.ID == choice
	}
	for i := range Axes {
		if Axes[i].ID == id {
			return Axes[i].Choices[0].ID == choice
		}
	}
	return false
}
