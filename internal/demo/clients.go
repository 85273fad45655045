package demo

import (
	"musculus/internal/core/arm"
	"musculus/internal/core/day"
	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
)

type settings = map[movement.Key]movement.Value

// planned is one slot of a demo session; whole is the load as people read it.
type planned struct {
	movement string
	settings settings
	dose     dose.Dose
	whole    float64
	cues     []string
}

// demoClient is one of the players with her planned session.
type demoClient struct {
	name, about   string
	rooms         []*person.Room
	minutes       int
	body          arm.Body
	inDays        int // the planned session
	session       string
	warmUp        float64
	slots         []planned
	loggedDaysAgo []int // earlier sessions with the same slots
	rightBetter   int   // reps the right arm is ahead
	also          []also
	// dossier is what else she says of herself; history what was recorded since.
	dossier func(today day.Day) person.Dossier
	history history
}

// also is another planned session of the same week.
type also struct {
	inDays  int
	session string
	slots   []planned
}

func sets(n, low, high, reserve, rest int) dose.Dose {
	return dose.Dose{Sets: n, RepsLow: low, RepsHigh: high, Reserve: reserve, RestS: rest}
}

func word(k movement.Key, w string) settings { return settings{k: movement.Word(w)} }
func num(k movement.Key, x float64) settings { return settings{k: movement.Num(x)} }

var players = []demoClient{
	{
		name: "Tobias Quill", dossier: tobiasDossier, history: tobiasHistory,
		about: "stage fighter; right arm 1.1 cm bigger than the left, uses everything",
		rooms: []*person.Room{
			&sailLoft,
		}, minutes: 55, body: arm.Body{Stature: 1.84, BodyMass: 83}, inDays: 0, session: "Left arm first", warmUp: 5,
		slots: []planned{
			{
				"curl_turning",
				settings{movement.Hands: movement.Word("one"), movement.GripOffset: movement.Num(0.02)},
				sets(3, 8, 12, 1, 60),
				14,
				[]string{"Palm up before the elbow is square", "Left arm first, right arm matches it"},
			},
			{"curl_cable_facing_away", nil, sets(2, 10, 12, 1, 60), 20, []string{"Keep the elbow behind your side seam"}},
			{"overhead_cable_low", nil, sets(3, 10, 12, 1, 90), 45, []string{"Point your elbows at the ceiling"}},
			{"kickback_cable", nil, sets(2, 12, 15, 1, 45), 15, []string{"Elbow as high as your back pocket"}},
		},
		loggedDaysAgo: []int{7, 14}, rightBetter: 2,
		also: []also{{2, "Grip and guard", []planned{
			{"curl_neutral_across", nil, sets(3, 8, 12, 2, 60), 14, []string{"Aim at the opposite chest pocket"}},
			{
				"lying_bar",
				word(movement.Implement, "bar_cambered"),
				sets(3, 8, 12, 2, 90),
				30.5,
				[]string{"Finish over your hair, not your chest"},
			},
			{"curl_reclined", num(movement.Bench, 60), sets(3, 8, 12, 2, 90), 12, []string{"Let both arms hang like ropes"}},
		}}},
	},
	{
		name: "Dario Vance", dossier: darioDossier, history: darioHistory, about: "stage carpenter; presses hard on two other days",
		rooms: []*person.Room{
			&sailLoft,
		}, minutes: 50, body: arm.Body{Stature: 1.79, BodyMass: 88}, inDays: 0, session: "Back of the arm", warmUp: 5,
		slots: []planned{
			{
				"overhead_cable_low",
				num(movement.PulleyHeight, -0.8),
				sets(4, 8, 12, 1, 90),
				60,
				[]string{"Point your elbows at the ceiling", "Keep your elbow on one spot of the wall"},
			},
			{
				"lying_bar",
				word(movement.Implement, "bar_cambered"),
				sets(3, 8, 10, 2, 120),
				33,
				[]string{"Finish over your hair, not your chest"},
			},
			{"curl_reclined", num(movement.Bench, 60), sets(3, 8, 12, 2, 90), 12, []string{"Elbows point at the floor all the way"}},
		},
		loggedDaysAgo: []int{7},
		also: []also{{2, "Curls, and a short finish", []planned{
			{"curl_turning", nil, sets(4, 8, 12, 2, 90), 12, []string{"Palm up before the elbow is square"}},
			{
				"curl_palms_down_bar",
				word(movement.Implement, "bar_cambered"),
				sets(3, 10, 15, 2, 60),
				20.5,
				[]string{"Lead the lift with your knuckles"},
			},
			{"kickback_cable", nil, sets(3, 12, 15, 1, 45), 15, []string{"Elbow as high as your back pocket"}},
		}}},
	},
	{
		name: "Noor Halloran", dossier: noorDossier, history: noorHistory,
		about: "juggler; elbows ache in deep bends, coming back after three weeks off",
		rooms: []*person.Room{
			&sailLoft,
		}, minutes: 40, body: arm.Body{Stature: 1.66, BodyMass: 58}, inDays: 1, session: "Easy return", warmUp: 8,
		slots: []planned{
			{
				"pushdown_bar",
				num(movement.ElbowFrom, 95),
				sets(3, 12, 15, 3, 75),
				25,
				[]string{"Step back until the cable slants", "Pin your sleeves to your shirt"},
			},
			{"curl_standing_dumbbells", nil, sets(3, 12, 15, 3, 75), 6, []string{"Elbows stay under the shoulders"}},
			{"kickback_cable", nil, sets(2, 12, 15, 3, 60), 5, nil},
		},
		loggedDaysAgo: []int{5},
	},
	{
		name: "Marguerite Oseland", dossier: margueriteDossier, history: margueriteHistory,
		about: "puppeteer; wrists dislike straight bars, new to training",
		rooms: []*person.Room{
			&sailLoft,
		}, minutes: 40, body: arm.Body{Stature: 1.62, BodyMass: 64}, inDays: 2, session: "Workshop day", warmUp: 5,
		slots: []planned{
			{
				"curl_standing_bar",
				word(movement.Implement, "bar_cambered"),
				sets(3, 10, 12, 3, 90),
				13,
				[]string{"Let the bar touch your thighs"},
			},
			{"pushdown_rope", nil, sets(3, 10, 12, 3, 90), 20, []string{"Hands reach your trouser pockets"}},
			{"curl_neutral", nil, sets(2, 10, 12, 3, 90), 6, nil},
		},
		loggedDaysAgo: []int{3},
	},
	{
		name: "Aurelio Finch", dossier: aurelioDossier, history: aurelioHistory, about: "lead; eight weeks to opening night",
		rooms: []*person.Room{
			&sailLoft,
		}, minutes: 65, body: arm.Body{Stature: 1.81, BodyMass: 79}, inDays: 2, session: "Gallery day", warmUp: 5,
		slots: []planned{
			{"press_bench_close", nil, sets(3, 6, 8, 2, 150), 60, []string{"Tuck your elbows toward your pockets"}},
			{"curl_reclined", nil, sets(3, 8, 12, 1, 90), 14, []string{"Let both arms hang like ropes", "Little fingers ride highest"}},
			{"dip_bars", nil, sets(2, 8, 10, 2, 120), 0, []string{"Look straight ahead, chest tall"}},
			{
				"curl_pad_bar",
				word(movement.Implement, "bar_cambered"),
				sets(3, 8, 12, 1, 90),
				25.5,
				[]string{"Land the weight like an egg"},
			},
		},
		loggedDaysAgo: []int{5, 12},
		also: []also{{4, "Before the matinee", []planned{
			{"curl_cable_facing_away", nil, sets(3, 10, 12, 2, 60), 20, []string{"Keep the elbow behind your side seam"}},
			{"curl_neutral", nil, sets(3, 8, 12, 2, 90), 14, []string{"Carry it like a full mug"}},
			{"overhead_cable_low", nil, sets(3, 10, 12, 2, 90), 40, []string{"Point your elbows at the ceiling"}},
		}}},
	},
	{
		name: "Ines Karlova", dossier: inesDossier, history: inesHistory, about: "aerialist; irritable right shoulder, stable",
		rooms: []*person.Room{
			&wagon,
			&sailLoft,
		}, minutes: 40, body: arm.Body{Stature: 1.68, BodyMass: 60}, inDays: 3, session: "On the road", warmUp: 5,
		slots: []planned{
			{"curl_chest_supported", nil, sets(3, 10, 15, 2, 90), 10, []string{"Upper arms hang like bell ropes"}},
			{
				"curl_neutral",
				settings{movement.Hands: movement.Word("alternate")},
				sets(2, 12, 15, 2, 60),
				10,
				[]string{"Carry it like a full mug"},
			},
			{"lying_bar", nil, sets(3, 15, 20, 2, 75), 10, []string{"Tip your elbows toward the wall behind"}},
		},
	},
	{
		name: "Pelle Sandoval", dossier: pelleDossier, history: pelleHistory, about: "understudy; thirty minutes twice a week, cables only",
		rooms: []*person.Room{
			&sailLoft,
		}, minutes: 30, body: arm.Body{Stature: 1.74, BodyMass: 70}, inDays: 4, session: "Half an hour", warmUp: 3,
		slots: []planned{
			{
				"curl_cable_facing_away",
				word(movement.Hands, "both"),
				sets(3, 10, 12, 2, 75),
				15,
				[]string{"Keep the elbow behind your side seam"},
			},
			{"pushdown_rope", nil, sets(3, 10, 12, 2, 75), 40, []string{"Pin your sleeves to your shirt"}},
			{"overhead_cable_low", nil, sets(2, 10, 12, 2, 75), 35, nil},
		},
	},
	{
		name: "Bettina Groos", dossier: bettinaDossier, history: bettinaHistory,
		about: "prompter; 61, blood pressure treated, cleared by her doctor",
		rooms: []*person.Room{
			&digs,
		}, minutes: 30, body: arm.Body{Stature: 1.64, BodyMass: 71}, inDays: 5, session: "At the digs", warmUp: 5,
		slots: []planned{
			{
				"curl_upright_two_hand",
				nil,
				sets(3, 10, 15, 2, 90),
				14,
				[]string{"Elbows stay under the shoulders", "Blow out slowly as the weight goes up"},
			},
			{"overhead_one_dumbbell_two_hands", nil, sets(2, 8, 12, 3, 120), 14, []string{"Blow out slowly as the weight goes up"}},
		},
	},
}
