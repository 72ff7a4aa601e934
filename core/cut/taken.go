package cut

import (
	"math"
	"slices"

	"ochrestone/core/kit"
)

// Taken is a cardstock after its sheets were cut as laid out: fewer whole sheets, never
// below none; the offcuts that were used gone, what is left of all of them there.
func Taken(p kit.Cardstock, s Stock) kit.Cardstock {
	p.Sheets = max(0, p.Sheets-s.Needs)
	left := slices.Clone(p.Offcuts)
	for _, sh := range s.Sheets {
		if sh.Kind == "offcut" {
			left = drop(left, kit.Offcut{W: sh.W, H: sh.H})
		}
	}
	for _, sh := range s.Sheets {
		for _, a := range sh.Left {
			left = keep(left, kit.Offcut{W: round(a.W), H: round(a.H)})
		}
	}
	p.Offcuts = left
	return p
}

// round takes off what a ruler does not show, mm.
func round(mm float64) float64 { return math.Floor(mm*2) / 2 }

func same(a, b kit.Offcut) bool {
	return math.Abs(a.W-b.W) < 0.5 && math.Abs(a.H-b.H) < 0.5
}

// drop takes one of an offcut away.
func drop(all []kit.Offcut, o kit.Offcut) []kit.Offcut {
	i := slices.IndexFunc(all, func(a kit.Offcut) bool { return same(a, o) })
	if i < 0 {
		return all
	}
	if n := all[i].Count() - 1; n > 0 {
		all[i].N = n
		return all
	}
	return slices.Delete(all, i, i+1)
}

// keep puts one more of an offcut there.
func keep(all []kit.Offcut, o kit.Offcut) []kit.Offcut {
	if i := slices.IndexFunc(all, func(a kit.Offcut) bool { return same(a, o) }); i >= 0 {
		all[i].N = all[i].Count() + 1
		return all
	}
	return append(all, o)
}
