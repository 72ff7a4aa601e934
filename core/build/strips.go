package build

import (
	"math"

	"ochrestone/core/card"
	"ochrestone/core/motif"
)

// betweenDies is how much card a die wants to itself beside the next one, mm; our own default.
const betweenDies = 1.5

// Strip is how prints that are cut out afterwards lie side by side on card of their own.
type Strip struct {
	N      int     // prints
	Pitch  float64 // from middle to middle along the strip, mm
	Asked  float64 // what the die asks for at least, mm
	Die    float64 // how wide the die is along the strip, mm
	Along  float64 // of the strip a row takes, mm
	Across float64 // mm
	Rows   int     // so many rows, where the card is shorter than they are
	Row    int     // prints in a full row
}

// Bite is how far the die of one print cuts into its neighbour, mm; 0 where there is room.
func (s Strip) Bite() float64 { return max(0, s.Die-s.Pitch) }

// InStrip lays n prints side by side, along the narrower way of the die they are cut out with, on
// card so long, mm, or as long as they need for 0; nil where the layer is not cut out after, or there is only one.
func InStrip(v motif.View, n int, long float64) *Strip {
	if v.Layer.Make != card.Cut || !v.Layer.After || n < 2 || v.Problem != "" {
		return nil
	}
	box := v.Outline.Bounds()
	s := Strip{N: n, Die: min(box.W(), box.H()), Across: max(box.W(), box.H()) + betweenDies}
	s.Asked = s.Die + betweenDies
	s.Pitch = s.Asked
	if v.Layer.Pitch > 0 {
		s.Pitch = v.Layer.Pitch
	}
	s.Row = n
	if long > 0 && s.Pitch > 0 {
		s.Row = min(n, max(1, int(math.Floor((long-s.Asked)/s.Pitch))+1))
	}
	s.Rows = (n + s.Row - 1) / s.Row
	s.Along = float64(s.Row-1)*s.Pitch + s.Asked
	return &s
}
