package httpapi

import (
	"encoding/json"
	"reflect"
	"strconv"

	"github.com/danielgtaylor/huma/v2"

	"musculus/internal/core/draft"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/formats"
)

// settingValue is how a setting's value is told to callers.
type settingValue struct{}

// Schema is a number or a word.
func (settingValue) Schema(huma.Registry) *huma.Schema {
	return &huma.Schema{
		OneOf:       []*huma.Schema{{Type: huma.TypeNumber}, {Type: huma.TypeString}},
		Description: "a number in the setting's unit, or one of its words",
	}
}

// PlanSchema is the JSON schema of a plan's file, made from the types that write it.
func PlanSchema() ([]byte, error) {
	r := huma.NewMapRegistry("#/$defs/", huma.DefaultSchemaNamer)
	speakPlans(r)
	root := r.Schema(reflect.TypeFor[formats.Plan](), true, "")
	for _, s := range r.Map() {
		s.AdditionalProperties = nil // what a reader does not know is told, not refused
	}
	return json.MarshalIndent(map[string]any{
		"$schema": "https://json-schema.org/draft/2020-12/schema", "title": "A client's sessions, version " + strconv.Itoa(formats.PlanVersion),
		"$ref": root.Ref, "$defs": r.Map(),
	}, "", "  ")
}

// DraftSchema is the JSON schema of a problem of a week, made from the types that read it.
func DraftSchema() ([]byte, error) {
	r := huma.NewMapRegistry("#/$defs/", huma.DefaultSchemaNamer)
	speakPlans(r)
	root := r.Schema(reflect.TypeFor[draft.Problem](), true, "")
	return json.MarshalIndent(map[string]any{
		"$schema": "https://json-schema.org/draft/2020-12/schema", "title": "A week to be composed, version " + strconv.Itoa(draft.Version),
		"$ref": root.Ref, "$defs": r.Map(),
	}, "", "  ")
}

// speakPlans tells the document of the interface how the core's own types are
// written: a slot as a SlotJSON, a setting's value as a number or a word.
func speakPlans(r huma.Registry) {
	r.RegisterTypeAlias(reflect.TypeFor[plan.Slot](), reflect.TypeFor[plan.SlotJSON]())
	r.RegisterTypeAlias(reflect.TypeFor[movement.Value](), reflect.TypeFor[settingValue]())
}
