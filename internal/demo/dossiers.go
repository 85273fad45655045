package demo

import (
	"musculus/internal/core/day"
	"musculus/internal/core/measure"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/priority"
)

// dossierOf begins a dossier with the consent to keep health notes, some days ago.
func dossierOf(today day.Day, consented day.Day, bornYear int, days []string, wishes ...person.Wish) person.Dossier {
	d := person.NewDossier("")
	on := today - consented
	d.BornYear, d.HealthConsent, d.BodyConsent, d.Weekdays, d.Wishes = bornYear, &on, &on, days, wishes
	return d
}

func since(today day.Day, days day.Day) *day.Day {
	on := today - days
	return &on
}

// wished maps a wish to heads; without any, as the words say.
func wished(text string, heads ...string) person.Wish {
	if heads == nil {
		heads = []string{}
		if kinds := person.WishHeads(text); len(kinds) > 0 && kinds[0].Heads != nil {
			heads = kinds[0].Heads
		}
	}
	return person.Wish{Text: text, Heads: heads}
}

func tobiasDossier(today day.Day) person.Dossier {
	d := dossierOf(
		today,
		120,
		1994,
		[]string{"mon", "wed", "fri", "sat"},
		wished("the left arm to catch up"),
		wished("width from the front"),
	)
	d.Contact, d.Sex, d.BreadthM, d.TrainingSince = "over the stage door", measure.Man, 0.43, since(today, 2300)
	d.UpperArmM, d.ForearmM = 0.355, 0.345
	d.Elsewhere = []person.Elsewhere{{Weekday: "tue", Kind: "pull", Sets: 4}}
	d.Mobility = person.Mobility{OneWeight: "yes", TwoWeights: "yes", DipLevel: "loaded", CleanDips: 14}
	d.Notes = "Sword arm is the right one. Shows up early and talks while he rests."
	d.Present = "Barbell curl 4x8 30 kg\nHammer curl 3x10 14 kg\nPush-down with the rope 3x12 40 kg\nPush-down with the bar 3x12 45 kg"
	return d
}

var tobiasHistory = history{
	screened: []int{96},
	tape: &tape{
		relaxed:     34.6,
		flexed:      36.9,
		forearm:     29.4,
		wrist:       17.6,
		right:       1.1,
		gained:      0.9,
		rightGained: 0.4,
		fold:        9.5,
		daysAgo:     usualDays,
	},
	rating: &rated{
		9,
		3,
		map[string]int{"biceps_long": 1, "brachialis": -1, "triceps_long": -1, "biceps_short": 0},
		"Right side ahead in every view.",
	},
	emphasis: map[string]priority.Level{
		"brachialis":      priority.Prioritise,
		"triceps_long":    priority.Build,
		"biceps_long":     priority.Build,
		"biceps_short":    priority.Build,
		"triceps_lateral": priority.Build,
	},
	weeks:   6,
	answers: map[string]string{"Hammer curl 3x10 14 kg": "curl_neutral", "Barbell curl 4x8 30 kg": "curl_standing_bar"},
	tried: []tried{
		{
			40,
			"curl_turning",
			settings{movement.Hands: movement.Word("one")},
			9,
			"outside of the upper arm",
			"kept",
			"likes one arm at a time",
		},
		{33, "curl_pad_bar", nil, 5, "front of the elbow", "dropped", ""},
	},
}

func darioDossier(today day.Day) person.Dossier {
	d := dossierOf(today, 90, 1989, []string{"tue", "fri"}, wished("the long head of the triceps"), wished("pressing strength"))
	d.Contact, d.Sex, d.BreadthM, d.TrainingSince = "workshop telephone", measure.Man, 0.44, since(today, 1500)
	d.Elsewhere = []person.Elsewhere{
		{Weekday: "mon", Kind: "press", Sets: 6},
		{Weekday: "thu", Kind: "press", Sets: 5},
		{Weekday: "thu", Kind: "pull", Sets: 3},
	}
	d.Mobility = person.Mobility{OneWeight: "yes", TwoWeights: "no", DipLevel: "bars", CleanDips: 9}
	d.Present = "Bench press 4x6 80 kg\nClose-grip press 3x8\nPush-downs 4x10 45 kg\nDips 3x8"
	return d
}

var darioHistory = history{
	screened: []int{61},
	tape:     &tape{relaxed: 36.1, flexed: 38.4, forearm: 30.6, wrist: 18.1, right: 0.3, gained: 0.1, rightGained: 0.1, daysAgo: usualDays},
	rating: &rated{
		12,
		3,
		map[string]int{"triceps_long": -2, "triceps_lateral": 1, "biceps_long": 0},
		"From behind the inner half is flat.",
	},
	emphasis: map[string]priority.Level{
		"triceps_long": priority.Prioritise,
		"biceps_long":  priority.Build,
		"biceps_short": priority.Build,
		"brachialis":   priority.Build,
	},
	weeks: 7,
	answers: map[string]string{
		"Push-downs 4x10 45 kg": "pushdown_bar",
		"Close-grip press 3x8":  "press_bench_close",
		"Bench press 4x6 80 kg": "press_bench_close",
		"Dips 3x8":              "dip_bars",
	},
	tried: []tried{
		{28, "overhead_cable_low", nil, 8, "back of the arm, near the armpit", "kept", ""},
		{28, "overhead_two_dumbbells", nil, 3, "elbows drift out", "dropped", "mobility not there yet"},
	},
}

func noorDossier(today day.Day) person.Dossier {
	d := dossierOf(
		today,
		110,
		1997,
		[]string{"mon", "thu"},
		wished("strong arms that do not ache", "brachialis", "brachioradialis", "triceps_medial"),
	)
	d.Contact, d.Mode = "leaves a note with the prompter", person.Tolerance
	d.TrainingSince, d.ComebackOn = since(today, 800), since(today, 12)
	d.Mobility = person.Mobility{OneWeight: "yes", TwoWeights: "yes", DipLevel: "assisted"}
	d.Notes = "Three weeks away with the outreach van; nothing hurt while she was away."
	d.Present = "Push-downs 3x15\nDumbbell curls 3x12 6 kg"
	return d
}

var noorHistory = history{
	screened: []int{108, 12},
	yes:      map[string]ago{"ache": {}},
	aches: []ache{
		{
			movement.ElbowBack,
			person.Right,
			"deep bends under load",
			[][2]int{{105, 4}, {91, 3}, {77, 3}, {63, 2}, {49, 3}, {12, 2}, {5, 2}},
		},
		{movement.ElbowBack, person.Left, "deep bends under load", [][2]int{{105, 3}, {91, 3}, {77, 2}, {63, 2}, {49, 2}, {12, 2}, {5, 1}}},
	},
	tape: &tape{
		relaxed:     26.4,
		flexed:      28.0,
		forearm:     23.2,
		wrist:       15.2,
		right:       0.2,
		gained:      0.3,
		rightGained: 0.3,
		daysAgo:     []int{105, 102, 91, 77, 63, 49, 46, 12, 10},
	},
	rating:  &rated{11, 2, map[string]int{"brachialis": -1, "triceps_medial": -1}, ""},
	answers: map[string]string{"Push-downs 3x15": "pushdown_bar", "Dumbbell curls 3x12 6 kg": "curl_standing_dumbbells"},
	tried: []tried{
		{49, "overhead_two_dumbbells", nil, 2, "back of both elbows", "dropped", "swapped for push-downs cut short at 95°"},
		{5, "pushdown_bar", num(movement.ElbowFrom, 95), 8, "middle of the back of the arm", "kept", ""},
	},
}

func margueriteDossier(today day.Day) person.Dossier {
	d := dossierOf(
		today,
		80,
		2001,
		[]string{"tue", "fri"},
		wished("arms that hold a puppet up for a whole act", "brachialis", "biceps_short", "triceps_long"),
	)
	d.Contact, d.TrainingSince, d.HideWeights = "workshop pigeonhole", since(today, 77), true
	d.Mobility = person.Mobility{OneWeight: "yes", TwoWeights: "no", DipLevel: "assisted"}
	d.Notes = "Numbers frighten her; she likes being told what got easier."
	return d
}

var margueriteHistory = history{
	screened: []int{78},
	yes:      map[string]ago{"ache": {}},
	aches: []ache{
		{movement.Wrist, person.Right, "straight bars", [][2]int{{76, 3}, {62, 3}, {48, 2}, {34, 3}, {20, 2}, {3, 2}}},
		{movement.Wrist, person.Left, "straight bars", [][2]int{{76, 2}, {62, 2}, {48, 2}, {34, 2}, {20, 1}, {3, 1}}},
	},
	tape: &tape{
		relaxed:     27.2,
		flexed:      28.6,
		forearm:     23.8,
		wrist:       15.4,
		right:       0.2,
		gained:      1.1,
		rightGained: 1.1,
		daysAgo:     []int{76, 74, 62, 48, 45, 34, 20, 17, 6},
	},
	rating:   &rated{20, 2, map[string]int{"triceps_long": -1}, ""},
	emphasis: map[string]priority.Level{"brachialis": priority.Build, "biceps_short": priority.Build, "triceps_long": priority.Build},
	weeks:    8,
	tried: []tried{
		{62, "curl_standing_bar", nil, 3, "inside of the right wrist", "dropped", ""},
		{48, "curl_standing_bar", word(movement.Implement, "bar_cambered"), 8, "front of the arm", "kept", ""},
	},
}

func aurelioDossier(today day.Day) person.Dossier {
	d := dossierOf(
		today,
		130,
		1992,
		[]string{"mon", "wed", "fri"},
		wished("a side view that reads from the gallery"),
		wished("a full back of the arm"),
	)
	d.Contact, d.Sex, d.BreadthM, d.TrainingSince, d.Mode = "dressing room 2", measure.Man, 0.42, since(today, 1200), person.ForDate
	opening := today + 56
	d.ReadyOn = &opening
	d.Mobility = person.Mobility{OneWeight: "yes", TwoWeights: "yes", DipLevel: "bars", CleanDips: 12}
	d.Notes = "Opening night decides the block."
	return d
}

var aurelioHistory = history{
	screened: []int{128, 44},
	aches:    []ache{{movement.ElbowFront, person.Left, "cold curls", [][2]int{{84, 2}, {70, 1}, {56, 0}}}},
	tape: &tape{
		relaxed:     33.8,
		flexed:      36.2,
		forearm:     28.6,
		wrist:       17.1,
		right:       0.3,
		gained:      1.4,
		rightGained: 1.3,
		fold:        8.0,
		daysAgo:     append([]int{112, 109}, usualDays...),
	},
	rating: &rated{
		15,
		3,
		map[string]int{"biceps_long": -1, "brachialis": -1, "triceps_long": -1, "triceps_lateral": 1},
		"From the side, bent, the top half is there and the lower is not.",
	},
	emphasis: map[string]priority.Level{
		"biceps_long":     priority.Prioritise,
		"brachialis":      priority.Prioritise,
		"triceps_long":    priority.Build,
		"triceps_lateral": priority.Build,
		"biceps_short":    priority.Build,
	},
	weeks: 8,
	tried: []tried{{70, "curl_reclined", nil, 8, "high in the upper arm", "kept", ""}},
}

func inesDossier(today day.Day) person.Dossier {
	d := dossierOf(today, 100, 1995, []string{"tue", "thu", "sat"}, wished("width from the front"))
	d.Contact, d.Sex, d.TrainingSince = "wherever the wagon is", measure.Woman, since(today, 1900)
	d.Elsewhere = []person.Elsewhere{{Weekday: "mon", Kind: "pull", Sets: 8}, {Weekday: "wed", Kind: "pull", Sets: 6}}
	d.Mobility = person.Mobility{OneWeight: "yes", TwoWeights: "no", DipLevel: "assisted", CleanDips: 2}
	d.Notes = "Hangs from ropes for a living: pulling counts."
	return d
}

var inesHistory = history{
	screened: []int{98, 30},
	yes:      map[string]ago{"ache": {}},
	aches: []ache{
		{
			movement.ShoulderFront,
			person.Right,
			"arm behind the body, dips",
			[][2]int{{98, 3}, {84, 3}, {70, 2}, {56, 5}, {53, 3}, {42, 3}, {28, 2}, {14, 2}, {4, 2}},
		},
		{movement.ShoulderTop, person.Right, "overhead when tired", [][2]int{{56, 3}, {42, 2}, {14, 1}}},
	},
	tape: &tape{
		relaxed:     28.8,
		flexed:      31.0,
		forearm:     25.6,
		wrist:       15.9,
		right:       0.4,
		gained:      0.7,
		rightGained: 0.7,
		fold:        11,
		daysAgo:     usualDays,
	},
	rating: &rated{30, 2, map[string]int{"triceps_lateral": -1, "biceps_short": 0, "brachialis": -1}, ""},
	emphasis: map[string]priority.Level{
		"brachialis":      priority.Prioritise,
		"triceps_lateral": priority.Build,
		"biceps_short":    priority.Build,
	},
	weeks: 5,
	tried: []tried{
		{56, "curl_reclined", nil, 2, "front of the right shoulder", "dropped", "pain report; swapped for the chest-supported curl"},
		{53, "curl_chest_supported", nil, 8, "low in the arm", "kept", ""},
	},
}

func pelleDossier(today day.Day) person.Dossier {
	d := dossierOf(today, 75, 2003, []string{"mon", "thu"}, wished("bigger arms without an evening lost"))
	d.Contact, d.TrainingSince = "the understudies’ list", since(today, 400)
	d.Present = "Cable curls 3x10 15 kg\nRope push-downs 3x12 40 kg\nTricep press-downs 3x12\nReverse curl 2x15"
	return d
}

var pelleHistory = history{
	tape: &tape{
		relaxed:     30.2,
		flexed:      32.4,
		forearm:     26.1,
		wrist:       16.4,
		right:       0.2,
		gained:      0.5,
		rightGained: 0.5,
		daysAgo:     []int{74, 71, 60, 46, 32, 18, 4},
	},
}

func bettinaDossier(today day.Day) person.Dossier {
	d := dossierOf(today, 85, 1965, []string{"mon", "wed", "sat"}, wished("to lift the prompt box without help"))
	d.Contact, d.TrainingSince = "prompt corner", since(today, 600)
	d.Mobility = person.Mobility{OneWeight: "yes", TwoWeights: "no", DipLevel: "assisted"}
	d.Notes = "Takes her own reading before each session and writes it on the script."
	return d
}

var bettinaHistory = history{
	screened: []int{84, 20},
	yes:      map[string]ago{"pressure": {86, "her doctor"}},
	aches:    []ache{{movement.ShoulderFront, person.Left, "reaching back", [][2]int{{70, 2}, {42, 1}, {14, 0}}}},
	tape: &tape{
		relaxed:     30.4,
		flexed:      31.4,
		forearm:     24.4,
		wrist:       16.1,
		right:       0.3,
		gained:      0.4,
		rightGained: 0.4,
		daysAgo:     []int{84, 81, 70, 56, 42, 40, 28, 14},
	},
	rating: &rated{21, 1, map[string]int{"brachialis": -1}, "Seen in a cardigan."},
	emphasis: map[string]priority.Level{
		"brachialis":   priority.Build,
		"biceps_long":  priority.Build,
		"biceps_short": priority.Build,
		"triceps_long": priority.Build,
	},
	weeks: 8,
}
