package draft

// Pattern is a named starting point.
type Pattern struct{ ID string }

func (p *Pattern) on(*Dated) {}
