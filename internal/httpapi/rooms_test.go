package httpapi_test

import (
	"context"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/demo"
	"musculus/internal/httpapi/studio"
	"musculus/internal/store"
)

// What the form of a room does not hold is shown in words and stays as it is when the
// rest is changed, also where the form has a thing of the same name.
func TestThingsBeyondTheFormStay(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	first := person.BarOf(movement.BarStraight, 10, 10, 15)
	lb := person.Thing{ID: "second", Kind: movement.BarStraight, Unit: person.Pound, Own: 45, Loads: []float64{45, 65, 95}, Width: 1.1}
	id := uuid.New()
	require.NoError(t, s.store.In(context.Background(), demo.Studio, func(tx *store.Tx) error {
		return tx.AddRoom(context.Background(), id, person.Room{Name: "Annexe", Things: []person.Thing{first, lb, person.Pairs(8)}})
	}))
	find := func() studio.RoomView {
		for _, r := range got[struct{ Rooms []studio.RoomView }](c, 200, c.call("GET", "/rooms", nil)).Rooms {
			if r.ID == id {
				return r
			}
		}
		t.Fatal("there is no such room")
		return studio.RoomView{}
	}
	r := find()
	require.Len(t, r.More, 1)
	assert.Contains(t, r.More[0], "45, 65, 95 lb")
	assert.Equal(t, "8", r.Form.Pairs)
	r.Form.Pairs, r.Form.Bars = "8, 10", []studio.BarForm{{Kind: "bar_straight", Own: 10, Loads: "10–20 by 5"}}
	require.Equal(t, 200, c.call("PUT", "/rooms/"+id.String(), map[string]any{"mark": r.Mark, "form": r.Form}).status)
	after := find()
	assert.Equal(t, r.More, after.More)
	assert.Equal(t, []string{"8, 10", "10–20 by 5"}, []string{after.Form.Pairs, after.Form.Bars[0].Loads})
	after.Form.Bars[0].Unit, after.Form.Bars[0].WidthCm = "lb", 84
	require.Equal(t, 200, c.call("PUT", "/rooms/"+id.String(), map[string]any{"mark": after.Mark, "form": after.Form}).status)
	after = find()
	assert.Equal(t, "lb", after.Form.Bars[0].Unit, "a bar marked in pounds is in the form")
	assert.InDelta(t, 84, after.Form.Bars[0].WidthCm, 1e-9)
	after.Form.Bars[0].Loads = "5, 10"
	wrong := got[problem](c, 422, c.call("PUT", "/rooms/"+id.String(), map[string]any{"mark": after.Mark, "form": after.Form}))
	assert.Equal(t, []string{"body.form.bars[0].loads"}, wrong.locations())
}
