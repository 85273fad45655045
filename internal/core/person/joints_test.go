package person_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"musculus/internal/core/day"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
)

// What is told of a joint in one session is one report, at its peak, in the place of the last;
// another session's is another report.
func TestASessionsReportsAreOneAtItsPeak(t *testing.T) {
	on := day.Of(2026, 11, 27)
	told := func(d day.Day, score int, in string) person.JointReport {
		return person.JointReport{On: d, Joint: movement.ElbowBack, Side: person.Left, Score: score, In: in}
	}
	one := []person.JointReport{told(on, 5, "a"), told(on, 7, "a"), told(on, 2, "a")}
	assert.Equal(t, 7, person.ScoresOf(one)[person.Left][movement.ElbowBack], "the record keeps the peak")
	assert.Empty(t, person.Rising(one, nil, on), "over 3 three times in one session is once")
	two := append(one, told(on+3, 4, "b"))
	assert.Len(t, person.Rising(two, nil, on+3), 1, "in two sessions it asks for a clinician")
	eased := append(one, told(on, 1, "")) // by whoever plans, in the dossier
	assert.Equal(t, 1, person.ScoresOf(eased)[person.Left][movement.ElbowBack])
	other := append(one, person.JointReport{On: on, Joint: movement.ElbowBack, Side: person.Right, Score: 1, In: "a"})
	assert.Equal(t, 1, person.ScoresOf(other)[person.Right][movement.ElbowBack], "the other side is another joint")
}
