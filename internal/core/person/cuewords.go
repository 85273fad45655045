package person

import (
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"
)

// ask is what words of a cue ask for, and which caps forbid it.
type ask struct {
	words *regexp.Regexp
	what  string // "holding the breath"
	// closed says whether the caps forbid it at all; a long hold, how long is too long.
	closed func(c *Caps) bool
}

// longHold is the one of the asks that depends on what its words found.
const longHold = "a long hold"

func method(id string) func(*Caps) bool {
	return func(c *Caps) bool { return slices.Contains(c.Closed, id) }
}

func words(pattern string) *regexp.Regexp { return regexp.MustCompile(`\b(?:` + pattern + `)\b`) }

// asks are the words people use for what caps forbid, as they write them in cues.
var asks = []ask{
	{
		words(
			`hold(?:ing|s)? (?:your |the |her |his |my )?(?:breath|air)|breath holds?|breathe? held|` +
				`keep the air in|do not breathe|dont breathe|no breathing|brace hard and push`,
		),
		"holding the breath",
		func(c *Caps) bool { return c.NoBreathHold },
	},
	{
		words(
			`(?:hold|held|pause|squeeze|freeze|stay|count)[a-z ]*? (\d+|four|five|six|seven|eight|nine|ten|` +
				`fifteen|twenty|thirty|half a|a)(?:[-–](\d+))? ?(?:s|sec|secs|second|seconds|minute|minutes)`,
		),
		longHold,
		func(c *Caps) bool { return c.MostHoldS > 0 },
	},
	{
		words(
			`failure|fail|failing|all out|to the limit|max(?:ed)? out|nothing left|no reps? left|` +
				`not (?:one )?more rep|until you (?:cannot|cant|drop)|till you (?:cannot|cant|drop)|burn it out|` +
				`as many as (?:you can|possible)|amrap|empty the tank|burn ?outs?|last drop`,
		),
		"going to the limit",
		func(c *Caps) bool { return c.MinReserve > 0 },
	},
	{words(`drop ?sets?|strip ?sets?|drops|lighter at once and go on|strip the (?:bar|weight)`), "drops", method("drops")},
	{words(`rest[- ]pauses?`), "rest-pause", method("rest_pause")},
	{words(`twenty ?ones?|21s|thirds`), "thirds", method("thirds")},
	{
		words(`forced reps?|(?:partner|spotter|coach) (?:helps?|pulls?|lifts?)[a-z ]*|assisted reps?`),
		"assisted last reps",
		method("assisted"),
	},
	{
		words(`negatives?|overload(?:ed)? (?:on )?the (?:way down|lowering)|heavier on the way down`),
		"loaded lowering",
		method("loaded_lowering"),
	},
	{
		words(
			`swing(?:s|ing)?|cheat(?:s|ing)?|heave|throw (?:it|the weight)|body english|jerk (?:it|the weight)|` +
				`use (?:your )?(?:hips|legs|back|momentum)|with momentum|bounce (?:it|the (?:weight|bar))`,
		),
		"swinging",
		method("strict_then_swing"),
	},
	{
		words(`half reps?|top half only|lock ?out partials?|partials? at the top`),
		"strong-range partials",
		method("partials_strong"),
	},
	{words(`hold the last(?: rep)?|last[- ]rep hold`), "a last-rep hold", method("last_rep_hold")},
	{words(`hold one arm|other arm holds`), "a static hold", method("static_hold")},
	{words(`super ?sets?|giant sets?`), "a superset of one muscle", method("superset_same")},
	{words(`no rests?|without (?:a )?rest|skip the rest|straight into|straight on to`), "no rest",
		func(c *Caps) bool { return c.MinRestS > 0 }},
	{words(`flat on (?:your|the) back|lie flat`), "lying flat", func(c *Caps) bool { return c.NoFlatOnBack }},
	{words(`on (?:your|the) (?:chest|belly|stomach)|face down`), "lying on the chest", func(c *Caps) bool { return c.NoProne }},
}

var numberWords = map[string]float64{
	"four":    4,
	"five":    5,
	"six":     6,
	"seven":   7,
	"eight":   8,
	"nine":    9,
	"ten":     10,
	"fifteen": 15,
	"twenty":  20,
	"thirty":  30,
	"half a":  30,
}

// seconds is the longest of the seconds that words name.
func seconds(match []string) float64 {
	most := 0.0
	for _, m := range match[1:] {
		if x, err := strconv.ParseFloat(m, 64); err == nil {
			most = max(most, x)
		}
		most = max(most, numberWords[m])
	}
	if strings.Contains(match[0], "minute") {
		most = max(most, 30)
	}
	return most
}

var (
	// against turns what follows it in a clause round: "no swinging", "stop before failure".
	against = words(`no|not|never|dont|do not|without|avoid|stop|stops|before|instead of|short of|far from|free of|rather than`)
	// notAgainst looks like it and is not: "do not stop before failure".
	notAgainst = words(`(?:do not|dont|never) stop(?: before| until| short of)?`)
	// itIsTheBreath is the one thing said over two clauses: "take a breath and hold it".
	itIsTheBreath = regexp.MustCompile(`(breath|breathe in|air)( in)?(?:,| and|, and|, then| then) hold (?:it|that)\b`)
	clauses       = regexp.MustCompile(`[.;:!?,—()/]| – |\bbut\b|\bthen\b|\band\b`)
)

// reach is how many words before it a turn-round still reaches.
const reach = 4

// Against says what a cue asks for that the caps forbid, "" for nothing: "“Hold
// your breath” asks for holding the breath". A cue that says not to is none.
func (c *Caps) Against(cue string) string {
	var closed []*ask
	for i := range asks {
		if asks[i].closed(c) {
			closed = append(closed, &asks[i])
		}
	}
	if len(closed) == 0 { // most clients: nothing has to be read
		return ""
	}
	text := strings.ToLower(plainly.Replace(cue))
	text = itIsTheBreath.ReplaceAllString(text, "$1, hold the breath")
	for _, clause := range clauses.Split(text, -1) {
		clause = notAgainst.ReplaceAllString(clause, " go on ")
		for _, a := range closed {
			match := a.words.FindStringSubmatch(clause)
			if match == nil || a.what == longHold && seconds(match) <= c.MostHoldS {
				continue
			}
			if turnedRound(clause, a.words.FindStringIndex(clause)[0], match[0]) {
				continue
			}
			return fmt.Sprintf("“%s” asks for %s, which this client's caps forbid", strings.TrimSpace(cue), a.what)
		}
	}
	return ""
}

// plainly writes a cue without what keyboards differ in.
var plainly = strings.NewReplacer("’", "", "'", "", "\u00a0", " ")

// turnedRound says whether a word shortly before a place of a clause turns its
// meaning round; words that are part of what was found do not.
func turnedRound(clause string, at int, found string) bool {
	before := strings.Fields(clause[:at])
	if n := len(before) - reach; n > 0 {
		before = before[n:]
	}
	return against.MatchString(strings.Join(before, " ")) && !strings.HasPrefix(found, "no ")
}
