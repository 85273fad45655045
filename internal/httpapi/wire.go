package httpapi

import (
	"reflect"

	"github.com/danielgtaylor/huma/v2"

	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
)

// settingValue is how a setting's value is told to callers.
type settingValue struct{}

// Schema is a number or a word.
func (settingValue) Schema(huma.Registry) *huma.Schema {
	return &huma.Schema{OneOf: []*huma.Schema{{Type: huma.TypeNumber}, {Type: huma.TypeString}}, Description: "a number in the setting's unit, or one of its words"}
}

// speakPlans tells the document of the interface how the core's own types are
// written: a slot as a SlotJSON, a setting's value as a number or a word.
func speakPlans(r huma.Registry) {
	r.RegisterTypeAlias(reflect.TypeFor[plan.Slot](), reflect.TypeFor[plan.SlotJSON]())
	r.RegisterTypeAlias(reflect.TypeFor[movement.Value](), reflect.TypeFor[settingValue]())
}
