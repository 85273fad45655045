package week

import (
	"fmt"

	"musculus/internal/core/priority"
	"musculus/internal/core/series"
)

// whys are the reasons behind the rules.
var whys = map[string]string{
	"equipment":     "A session is done with what is really in the room.",
	"refused":       "The posture cannot be taken by this body, or the load never pulls.",
	"avoid":         "From the joint record, the mobility checks and this set-up’s own numbers.",
	"modify":        "From the joint record and this set-up’s own numbers.",
	"dose":          "Caps outrank every rule, preference and draft; loads are the room’s real steps.",
	"minutes":       "The client has the time the dossier says, warm-up included.",
	"group_session": fmt.Sprintf("Over %d hard sets of one muscle group in a session the last ones add little.", MostGroupSets),
	"group_week":    fmt.Sprintf("Over %d hard sets of one muscle group in a week recovery is what is short.", MostWeekSets),
	"twice":         "Heads, lengths and where it is hard nearly coincide: the second adds fatigue, not a stimulus.",
	"order":         "Heavy several-joint work first, what matters most early, light and safe work last.",
	"cold":          "Deep bends under load are never done cold.",
	"under":         "Targets follow the emphasis: " + priority.TargetWords() + ".",
	"over":          "Beyond the target more sets are taken from another head’s recovery.",
	"disputed":      "The stance’s bar meets the target, but under another stance it would not.",
	"length": fmt.Sprintf(
		"A prioritised head is trained at long and at short length; a length counts from %g effective sets.",
		covered,
	),
	"spacing": fmt.Sprintf(
		"Days with more than %d hard sets of a muscle group, those done elsewhere included, are %d hours apart by default.",
		EasySets,
		24*ApartDays,
	),
	"joint": fmt.Sprintf(
		"Hard sets times the movement’s score for the joint, summed over the week: %d, or %d where it is sore.",
		mostJoint,
		mostSoreJoint,
	),
	"failure":   "Sets to the limit cost more recovery than they add when they are many.",
	"same":      fmt.Sprintf("After %d weeks the same set-ups add less; one thing at a time is changed.", sameFor/7),
	"unchanged": "What is never made harder stops working: a rep, a step or a set more, one thing at a time.",
	"ladder":    "Load on dips and pull-ups is earned by clean reps without it, whatever the movement is called.",
	"top_range": fmt.Sprintf(
		"The strong top of a press may start no higher than the full range and rises slowly; over %.0f %% of the full range it is a stop.",
		100*series.MostOfFull,
	),
	"cue":   "The cue’s own words ask for what a cap forbids; the coach kept it with a reason.",
	"combo": "Caps outrank every method: which turns they close follows from the members, not from the method’s name.",
	"load":  "From the set-up’s own series: what it says could be lifted once, and what that leaves for these reps.",
	"grips": "With one weight throughout, the weaker grip is done fresh and the stronger one carries on.",
	"clash": "The targets need more sets than the client’s minutes hold: no change of the plan meets both, so something else has to give way.",
	"along": "A head that gets its sets from work for others costs nothing of its own; it is only told.",
	"apart": "What has to be walked to, turned or loaded between two exercises in turns takes its time, " +
		"whatever rest is written; one bar cannot carry two loads at once.",
	"one_movement": "Regions of a muscle may grow by different amounts: one movement in all sets leaves some out. A reason, never a number.",
	"one_part":     "Being hard in one part of the range only leaves the others unloaded; what comes next to it is a reason for pairing.",
	"weekday":      "The days are those of the Dossier; a session on another one may be meant.",
	"turns":        "What is changed between two exercises in turns is in the minutes: a gap lasts the longer of its rest and its change.",
}
