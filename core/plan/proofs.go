package plan

import (
	"fmt"
	"math"
	"strings"

	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/register"
	"ochrestone/core/shape"
)

// Print is a printed layer as a proof of it should look.
type Print struct {
	Layer   string
	Label   string
	Region  shape.Region
	Film    colour.Film
	Strikes int
	Play    register.Play
}

// Prints lists the printed layers of an image that carry ink and lie on one
// ground, lowest first, and the colour of that ground. Of an image with prints
// on several pieces the largest group counts.
func (m *Maker) Prints(c card.Card, k kit.Kit, motif, way string, opts ...Option) ([]Print, colour.Linear, error) {
	b, pm, mo, err := m.image(c, k, Ask{Motif: motif}, opts)
	if err != nil {
		return nil, colour.Linear{}, err
	}
	w, ok := mo.Colourway(way)
	if !ok {
		return nil, colour.Linear{}, fmt.Errorf("read a proof: %s has no colourway %q: %w", mo.Name, way, ErrUnknown)
	}
	look := b.look(pm, w)
	groups := map[int][]Print{}
	best := -2
	for i, v := range pm.img.Views {
		f := w.Layers[v.Layer.ID]
		ink, ok := b.kit.ink[f.Ink]
		if v.Layer.Make != card.Printed || !ok {
			continue
		}
		film, _, err := b.film(ink)
		if err != nil {
			continue
		}
		on := v.Host
		for on >= 0 && pm.img.Views[on].Layer.Make == card.Printed {
			on = pm.img.Views[on].Host
		}
		p, _, _, err := b.eased(pm, look, i)
		if err != nil {
			return nil, colour.Linear{}, err
		}
		groups[on] = append(groups[on], Print{v.Layer.ID, v.Layer.Label, v.Outline, film, f.Strikes(), p})
		if best == -2 || len(groups[on]) > len(groups[best]) {
			best = on
		}
	}
	if best == -2 {
		return nil, colour.Linear{}, nil
	}
	paper := b.panelColour()
	if best >= 0 {
		paper, _ = colour.ParseHex(look.Layers[best].Dry)
	}
	return groups[best], paper, nil
}

// Verdict is one layer of a proof, and what to do about it.
type Verdict struct {
	Layer     string  `json:"layer"`
	Label     string  `json:"label"`
	X         float64 `json:"x" doc:"off to the right, mm"`
	Y         float64 `json:"y" doc:"off downwards, mm"`
	Turn      float64 `json:"turn" doc:"off clockwise, degrees"`
	SureShift float64 `json:"sureShift" doc:"standard error of x and of y, mm"`
	SureTurn  float64 `json:"sureTurn" doc:"standard error of the turn, degrees"`
	Judged    bool    `json:"judged" doc:"something has to meet"`
	Good      bool    `json:"good" doc:"inside its play"`
	Lost      bool    `json:"lost" doc:"it could not be made out; the numbers mean nothing"`
	MoveX     float64 `json:"moveX" doc:"what is said, as hands can do it: the paper to the right, mm"`
	MoveY     float64 `json:"moveY" doc:"the paper down, mm"`
	TurnBy    float64 `json:"turnBy" doc:"the paper clockwise, degrees"`
	Say       string  `json:"say" doc:"what to do at the positioner"`
}

// What hands can do at a positioner; our own defaults.
const (
	handShift = 0.1 // mm
	handTurn  = 0.2 // degrees
)

// Judge says of a measured layer whether it lies inside its play, and how to
// bring the next print into place. The stamp stays on the lid, so the paper goes
// the way the print went wrong: a print too far to the right comes home when the
// paper is moved to the right, and one turned clockwise when the paper is.
func Judge(p Print, shift shape.Point, turn, sureShift, sureTurn float64) Verdict {
	v := Verdict{Layer: p.Layer, Label: p.Label, X: shift.X, Y: shift.Y, Turn: turn, SureShift: sureShift, SureTurn: sureTurn, Judged: p.Play.Judged}
	v.Good = !p.Play.Judged || p.Play.Holds(shift, turn)
	round := func(x, to float64) float64 { return math.Round(x/to) * to }
	v.MoveX, v.MoveY, v.TurnBy = round(shift.X, handShift), round(shift.Y, handShift), round(turn, handTurn)
	var parts []string
	if x := v.MoveX; x != 0 {
		parts = append(parts, fmt.Sprintf("%.1f mm %s", math.Abs(x), map[bool]string{true: "right", false: "left"}[x > 0]))
	}
	if y := v.MoveY; y != 0 {
		parts = append(parts, fmt.Sprintf("%.1f mm %s", math.Abs(y), map[bool]string{true: "down", false: "up"}[y > 0]))
	}
	say := ""
	if len(parts) > 0 {
		say = "move the paper " + strings.Join(parts, " and ")
	}
	if t := v.TurnBy; t != 0 {
		if say != "" {
			say += ", "
		}
		say += fmt.Sprintf("turn it %.1f° %s", math.Abs(t), map[bool]string{true: "clockwise", false: "anticlockwise"}[t > 0])
	}
	switch {
	case say == "":
		v.Say = "Leave it: nearer than a hand can move it."
	case v.Good:
		v.Say = "It does not show. For a truer one, " + say + " for this strike."
	default:
		v.Say = capital(say) + " for this strike."
	}
	return v
}
