package figure

import (
	"math"
	"strconv"
	"strings"
)

// Path is a line through points, or the disc round one, in a picture's box. It is
// written as path data; what draws on paper takes the points.
type Path struct {
	Points []Point
	Closed bool
	Smooth bool    // round its points, not through them; only of one that is closed
	R      float64 // of a disc, whose centre is the only point
}

// polyline is a path through points, closed or open.
func polyline(points []Point, closed bool) Path { return Path{Points: points, Closed: closed} }

// disc is a path round a point.
func disc(at Point, r float64) Path { return Path{Points: []Point{at}, Closed: true, R: r} }

// MarshalText writes path data.
func (p Path) MarshalText() ([]byte, error) { return []byte(p.String()), nil }

// String is the path data: lines, a disc as two arcs.
func (p Path) String() string {
	if p.R > 0 && len(p.Points) == 1 {
		at, wide := p.Points[0], round(p.R)
		r := number(wide)
		return "M" + number(at.X-wide) + " " + number(at.Y) + "a" + r + " " + r + " 0 1 0 " + number(2*wide) +
			" 0a" + r + " " + r + " 0 1 0 " + number(-2*wide) + " 0Z"
	}
	if p.Smooth {
		return p.curves()
	}
	b := make([]byte, 0, 14*len(p.Points)+1)
	for i, at := range p.Points {
		if i == 0 {
			b = append(b, 'M')
		} else {
			b = append(b, 'L')
		}
		b = short(b, at.X)
		b = append(b, ' ')
		b = short(b, at.Y)
	}
	if p.Closed {
		b = append(b, 'Z')
	}
	return string(b)
}

// curves is the path data of a smooth one: from the middle of each side to that of the next, bent by
// the point between.
func (p Path) curves() string {
	n := len(p.Points)
	middle := func(i int) Point { return toward(p.Points[(i+n-1)%n], p.Points[i%n], 0.5) }
	b := make([]byte, 0, 28*n)
	write := func(command byte, points ...Point) {
		b = append(b, command)
		for i, at := range points {
			if i > 0 {
				b = append(b, ' ')
			}
			b = append(short(b, at.X), ' ')
			b = short(b, at.Y)
		}
	}
	write('M', middle(0))
	for i, at := range p.Points {
		write('Q', at, middle(i+1))
	}
	return string(append(b, 'Z'))
}

// Flat is the path's points; of a smooth one so many on its curves that paper shows no corners.
func (p Path) Flat() []Point {
	if !p.Smooth {
		return p.Points
	}
	const fine = 4
	n := len(p.Points)
	out := make([]Point, 0, fine*n)
	for i, at := range p.Points {
		from, to := toward(p.Points[(i+n-1)%n], at, 0.5), toward(at, p.Points[(i+1)%n], 0.5)
		for k := range fine {
			t := float64(k) / fine
			out = append(out, toward(toward(from, at, t), toward(at, to, t), t))
		}
	}
	return out
}

// short writes a coordinate to a thousandth of the box, without what says nothing: pictures are
// many, and sent.
func short(b []byte, x float64) []byte {
	n := int(math.Round(x * 1000))
	if n < 0 {
		b, n = append(b, '-'), -n
	}
	if n >= 1000 || n == 0 {
		b = strconv.AppendInt(b, int64(n/1000), 10)
	}
	if n %= 1000; n == 0 {
		return b
	}
	b = append(b, '.', byte('0'+n/100), byte('0'+n/10%10), byte('0'+n%10))
	for b[len(b)-1] == '0' {
		b = b[:len(b)-1]
	}
	return b
}

// UnmarshalText reads what String writes, as a sheet that left keeps it; what it does
// not know it leaves out.
func (p *Path) UnmarshalText(text []byte) error {
	*p = Path{}
	path := string(text)
	read := func(s string) float64 {
		x, _ := strconv.ParseFloat(s, 64) // a broken number is 0: the picture is only a picture
		return x
	}
	for i := 0; i < len(path); {
		command := path[i]
		end := i + 1
		for end < len(path) && !strings.ContainsRune("MLQaZ", rune(path[end])) {
			end++
		}
		args := strings.Fields(path[i+1 : end])
		switch {
		case (command == 'M' || command == 'L') && len(args) >= 2:
			p.Points = append(p.Points, Point{read(args[0]), read(args[1])})
		case command == 'Q' && len(args) >= 2:
			if !p.Smooth { // it began in the middle of a side
				p.Smooth, p.Points = true, nil
			}
			p.Points = append(p.Points, Point{read(args[0]), read(args[1])})
		case command == 'a' && p.R == 0 && len(args) >= 2 && len(p.Points) == 1:
			p.R = read(args[0])
			p.Points[0].X += p.R
		case command == 'Z':
			p.Closed = true
		}
		i = end
	}
	return nil
}
