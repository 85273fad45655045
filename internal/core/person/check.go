package person

import "fmt"

// checker gathers what is wrong, one error a field.
type checker struct{ found []FieldError }

// fault keeps a fault of a field unless it is well.
func (c *checker) fault(well bool, field, reason string, args ...any) {
	if !well {
		c.found = append(c.found, FieldError{Field: field, Reason: fmt.Sprintf(reason, args...)})
	}
}

// within holds a number to its limits; unit follows both, with its space.
func (c *checker) within(field string, x, least, most float64, unit string) {
	c.fault(x >= least && x <= most, field, "%g%s is outside %g…%g%s", x, unit, least, most, unit)
}

// size holds a text to so many characters.
func (c *checker) size(field, s string, most int) {
	c.fault(len([]rune(s)) <= most, field, "longer than %d characters", most)
}
